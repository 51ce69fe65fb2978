package zesty.signal.engine;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.link.LinkException;
import zesty.signal.core.act.Output;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Decision;

/**
 * The outputs of a rig: what is ordered of them goes to their boards on a thread of its own, and each is made safe when what it goes by
 * can no longer be trusted. Nothing but a safe line is sent where no watchdog stands by, unless the board is simulated in this
 * program and ends with it. The trail's thread, where nothing else is said. Longer than others: every way in which an output is made safe is here, to be read at once.
 */
final class Outputs implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Outputs.class);
    /** What ends a line to a board. */
    static final LineEnding ENDING = LineEnding.NEW_LINE;

    private static final String PLAN = "plan";
    private static final String STOOD_STILL = Messages.of("engine.the-program-stood-still");
    private static final int QUEUE = 256;
    private static final long WAIT_MS = 50;
    private static final long CLOSE_MS = 800;
    private static final long AGAIN_NANOS = 300_000_000;
    private static final long ANSWER_NANOS = 2_000_000_000;
    /** A hand that is not heard of for so long has let go. */
    private static final long HAND_NANOS = 500_000_000;

    /** A line that holds is said again so often to a board that watches itself: a few times before it would go safe. */
    private static final long KEEP_NANOS = 250_000_000;

    /** A line waits so long for a watchdog; later it would surprise. */
    private static final long WAITING_NANOS = 5_000_000_000L;

    private static final long ASK_NANOS = 1_000_000_000;
    private static final long RESTART_NANOS = 2_000_000_000;

    /** The boards. Any thread. */
    interface Boards {
        /** Waits for the link. @return the line as it went out. @throws LinkException when the link takes none */
        SentLine send(String source, String line) throws LinkException;

        /** @return the same line with the board's answer, once there is one */
        SentLine answered(String source, SentLine line);

        /** @return whether the board said a line of that text back since then, in whatever it answered */
        boolean confirmed(String source, String line, long sinceNanos);

        /** A watchdog is to hold the link to that board, too. */
        void share(String source);
    }

    /** What becomes of what is done here. */
    interface Told {
        void logged(Decision decision);

        /** Decisions go on as if it had been off since. */
        void madeSafe(String output);
    }

    /** A line on its way. */
    private record Outgoing(State state, String output, String source, String line, boolean safe) {}

    private static final class State {
        Output output;
        String source = "";
        boolean wanted;
        /** Null where no watchdog is needed, empty where none can be. */
        String port;

        /** The line that asks its board for a watchdog of its own; empty for none. */
        String watch = "";

        /** Since when its answer counts. */
        long watchSinceNanos;

        long keptNanos;
        /** Since when a line waits for a watchdog; 0 for none. */
        long waitingNanos;

        String line = "";
        boolean on;
        boolean drove;
        /** When it was turned on. */
        long onNanos;

        double sinceSeconds = Double.NaN;
        long askedNanos;
        /** When a hand was on it last; 0 for none. */
        long handNanos;
        /** When a plan set it last; 0 for none. */
        long plannedNanos;

        volatile SentLine sent;
        volatile String trouble = "";
        volatile boolean owed;
        volatile long owedNanos;
    }

    private final Boards boards;
    private final Told told;
    private final Map<String, State> states = new LinkedHashMap<>();
    private final BlockingQueue<Outgoing> queue = new ArrayBlockingQueue<>(QUEUE);
    private final ConcurrentLinkedQueue<String> stoodStill = new ConcurrentLinkedQueue<>();
    private final Thread thread;
    private volatile boolean closing;
    private volatile WatchdogProcess watchdog;
    private String watchdogTrouble = "";
    private long startedNanos;
    private String held = "";

    Outputs(Boards boards, Told told) {
        this.boards = boards;
        this.told = told;
        thread = new Thread(this::run, "outputs");
        thread.setDaemon(true);
    }

    /** Takes the outputs of a rig into force. What was on and is no longer there, or no longer to be driven, is made safe. */
    void change(Rig rig) {
        Set<String> there = new HashSet<>();
        for (Output output : rig.act().book().outputs()) {
            there.add(output.name());
            State state = states.computeIfAbsent(output.name(), name -> new State());
            boolean wanted = rig.drives(output.name());
            String source = rig.act().use(output.name()).source();
            boolean other = state.output != null
                    && (!state.output.safe().equals(output.safe()) || !state.source.equals(source));
            if (state.on && (other || wanted != state.wanted)) {
                safe(
                        output.name(),
                        wanted == state.wanted
                                ? "changed"
                                : wanted ? Messages.of("engine.begins-safe") : Messages.of("engine.dry-run"));
            }
            String watch = rig.act().use(output.name()).watchdog();
            if (!watch.equals(state.watch) || !source.equals(state.source)) {
                state.watchSinceNanos = System.nanoTime();
            }
            state.watch = watch;
            boolean fresh = other || state.output == null || !state.wanted && wanted;
            state.output = output;
            state.source = source;
            state.wanted = wanted;
            state.port = port(rig, source);
            if (fresh && wanted && state.port != null && !state.port.isEmpty()) {
                guard(output.name(), state);
            }
        }
        List<String> gone =
                states.keySet().stream().filter(name -> !there.contains(name)).toList();
        for (String name : gone) {
            safe(name, Messages.of("engine.taken-off"));
            states.remove(name);
        }
        if (!there.isEmpty() && !thread.isAlive() && !closing) {
            thread.start();
        }
    }

    private static String port(Rig rig, String source) {
        String address = rig.sources().stream()
                .filter(one -> one.name().equals(source))
                .map(one -> one.setup().address())
                .findFirst()
                .orElse("");
        if (address.startsWith("sim:")) {
            return null;
        }
        try {
            return LinkAddress.parse(address) instanceof LinkAddress.Serial serial
                            && serial.path().startsWith("/")
                    ? serial.path()
                    : "";
        } catch (IllegalArgumentException e) {
            return "";
        }
    }

    private void guard(String name, State state) {
        boards.share(state.source);
        try {
            if (watchdog == null || watchdog.isBroken()) {
                startedNanos = System.nanoTime();
                watchdog = WatchdogProcess.start(stoodStill::add);
                watchdogTrouble = "";
            }
            watchdog.hold(name, state.port, state.output.safe() + ENDING.text());
            state.askedNanos = System.nanoTime();
        } catch (IOException e) {
            watchdogTrouble = Messages.of("engine.the-watchdog-does-not-start", e.getMessage());
            LOG.error("the watchdog does not start", e);
        }
    }

    private boolean guarded(String name, State state) {
        WatchdogProcess now = watchdog;
        return state.port == null || (state.port.isEmpty() ? boardWatches(state) : now != null && now.holds(name));
    }

    /** @return whether the board said yes to a watchdog of its own */
    private boolean boardWatches(State state) {
        return !state.watch.isEmpty() && boards.confirmed(state.source, state.watch, state.watchSinceNanos);
    }

    private boolean drives(String name, State state) {
        return state.wanted && guarded(name, state);
    }

    /** A line is to be sent. @param why for the log */
    void order(double seconds, String name, String line, String why) {
        State state = states.get(name);
        if (state == null) {
            return;
        }
        passed(seconds);
        boolean safe = line.equals(state.output.safe());
        if (state.plannedNanos != 0 && !why.equals(PLAN)) {
            // What its rule says counts again when the plan is over.
            return;
        }
        if (!held.isEmpty() && !safe && state.wanted) {
            told.logged(new Decision(
                    seconds, Decision.Kind.OUTPUT, name, line, Double.NaN, Messages.of("engine.not-sent", held)));
            return;
        }
        boolean drives = safe ? state.drove || drives(name, state) : drives(name, state);
        String how = drives
                ? why
                : state.wanted
                        ? Messages.of("engine.not-sent-2", why, unguarded(name, state))
                        : Messages.of("engine.dry-run-2", why);
        told.logged(new Decision(seconds, Decision.Kind.OUTPUT, name, line, Double.NaN, how));
        state.line = line;
        state.sinceSeconds = safe ? Double.NaN : state.on ? state.sinceSeconds : seconds;
        state.onNanos = safe || state.on ? state.onNanos : System.nanoTime();
        state.on = !safe;
        state.waitingNanos = !safe && !drives && state.wanted ? System.nanoTime() : 0;
        if (drives) {
            send(name, state, line, safe);
        }
    }

    /** A hand drives it, for as long as this is said again and again. */
    void byHand(double seconds, String name, String line, long nanos) {
        State state = states.get(name);
        if (state == null) {
            return;
        }
        state.handNanos = nanos;
        if (!(state.on && state.line.equals(line))) {
            order(seconds, name, line, Messages.of("engine.by-hand"));
        }
    }

    /** A plan sets it, in the place of its rule; it goes on for as long as it is said again. */
    void plan(String name, String line, long nanos) {
        State state = states.get(name);
        if (state != null) {
            state.plannedNanos = nanos;
            if (!state.line.equals(line)) {
                order(nowSeconds, name, line, PLAN);
            }
        }
    }

    /** The plan goes on, though no row has come. */
    void keepPlan(String name, long nanos) {
        State state = states.get(name);
        if (state != null && state.plannedNanos != 0) {
            state.plannedNanos = nanos;
        }
    }

    private void send(String name, State state, String line, boolean safe) {
        if (!safe) {
            state.drove = true;
            WatchdogProcess now = watchdog;
            if (now != null && state.port != null) {
                now.on(name);
            }
        }
        Outgoing outgoing = new Outgoing(state, name, state.source, line, safe);
        while (!queue.offer(outgoing)) {
            leaveOut(queue.poll());
        }
    }

    /** The newest is what counts; a safe line that had to give way is owed, like one that could not be sent. */
    private static void leaveOut(Outgoing oldest) {
        if (oldest != null) {
            oldest.state().trouble = Messages.of("engine.the-link-is-too-slow-a-line-was");
            oldest.state().owedNanos = System.nanoTime();
            oldest.state().owed |= oldest.safe();
        }
    }

    private String unguarded(String name, State state) {
        if (state.port.isEmpty()) {
            return state.watch.isEmpty()
                    ? Messages.of("engine.no-watchdog-can-hold-this-link-and")
                    : Messages.of("engine.the-board-has-not-said-yes-to", state.watch);
        }
        WatchdogProcess now = watchdog;
        String why = now == null ? watchdogTrouble : now.refusal(name);
        return why.isEmpty()
                ? Messages.of("engine.the-watchdog-is-not-ready-yet")
                : Messages.of("engine.the-watchdog", why);
    }

    /** Makes an output safe, whatever its rule says. @param why for the log */
    void safe(String name, String why) {
        State state = states.get(name);
        if (state != null) {
            state.plannedNanos = 0;
            state.handNanos = 0;
        }
        if (state == null || !state.on) {
            return;
        }
        state.on = false;
        state.waitingNanos = 0;
        state.line = state.output.safe();
        boolean drove = state.drove;
        told.logged(new Decision(
                nowSeconds,
                Decision.Kind.OUTPUT,
                name,
                state.output.safe(),
                Double.NaN,
                why + (drove ? "" : Messages.of("engine.dry-run-3"))));
        state.sinceSeconds = Double.NaN;
        if (drove) {
            send(name, state, state.output.safe(), true);
        }
        told.madeSafe(name);
    }

    /** Makes all that are driven safe and keeps them so until {@link #release}. @param why in words */
    void hold(String why) {
        states.forEach((name, state) -> {
            if (state.wanted) {
                safe(name, why);
            }
        });
        held = why;
    }

    /** Rules may drive again: those that are on when they have been off. */
    void release() {
        if (!held.isEmpty()) {
            held = "";
            states.keySet().forEach(told::madeSafe);
        }
    }

    /** @return why all are held safe; empty where they are not */
    String held() {
        return held;
    }

    /** @return whether any output that is sent for true is not safe */
    boolean anyOn() {
        return states.values().stream().anyMatch(state -> state.on && state.drove);
    }

    private double nowSeconds = Double.NaN;

    /** The clock is looked at now and then; an order may come of rows before the first look. */
    private void passed(double seconds) {
        nowSeconds = Double.isNaN(seconds) ? nowSeconds : seconds;
    }

    /** Several times a second. @param seconds of the trail's line now; NaN before its first row */
    void tick(double seconds, long nanos) {
        passed(seconds);
        WatchdogProcess now = watchdog;
        if (now != null) {
            now.beat(nanos);
            for (String name = stoodStill.poll(); name != null; name = stoodStill.poll()) {
                safe(name, STOOD_STILL);
            }
            if (now.isBroken() && nanos - startedNanos > RESTART_NANOS) {
                states.forEach((name, state) -> {
                    if (state.wanted && state.port != null && !state.port.isEmpty()) {
                        safe(name, Messages.of("engine.the-watchdog-ended"));
                        guard(name, state);
                    }
                });
            }
            states.forEach((name, state) -> {
                boolean needed = state.wanted && state.port != null && !state.port.isEmpty();
                if (needed && !now.holds(name) && nanos - state.askedNanos > ASK_NANOS) {
                    // The port was not there, or not to be shared yet.
                    guard(name, state);
                }
            });
        }
        states.forEach((name, state) -> boardWatch(name, state, nanos));
        states.forEach(this::waiting);
        states.forEach((name, state) -> {
            if (state.handNanos != 0 && nanos - state.handNanos > HAND_NANOS) {
                state.handNanos = 0;
                safe(name, Messages.of("engine.released-by-hand"));
            }
            if (state.owed && !state.on && nanos - state.owedNanos > AGAIN_NANOS) {
                state.owedNanos = nanos;
                send(name, state, state.output.safe(), true);
            }
        });
    }

    /** A board with a watchdog of its own is asked for it, and hears its line again and again while it is on. */
    private void boardWatch(String name, State state, long nanos) {
        if (!state.wanted || state.port == null || !state.port.isEmpty() || state.watch.isEmpty()) {
            return;
        }
        if (!boardWatches(state)) {
            if (nanos - state.askedNanos > ASK_NANOS) {
                state.askedNanos = nanos;
                queue.offer(new Outgoing(state, name, state.source, state.watch, false));
            }
        } else if (state.on && state.drove && nanos - state.keptNanos > KEEP_NANOS) {
            state.keptNanos = nanos;
            queue.offer(new Outgoing(state, name, state.source, state.line, false));
        }
    }

    /** A line that was ordered while the watchdog was on its way is sent when it stands by, if that is soon. */
    private void waiting(String name, State state) {
        if (state.waitingNanos == 0 || !state.on) {
            return;
        }
        if (System.nanoTime() - state.waitingNanos > WAITING_NANOS) {
            state.waitingNanos = 0;
        } else if (drives(name, state)) {
            state.waitingNanos = 0;
            told.logged(new Decision(
                    nowSeconds,
                    Decision.Kind.OUTPUT,
                    name,
                    state.line,
                    Double.NaN,
                    Messages.of("engine.the-watchdog-stands-by")));
            send(name, state, state.line, false);
        }
    }

    /** Since that moment nothing was decided: what was on before is not to be trusted any more. */
    void stoodStill(long sinceNanos) {
        states.forEach((name, state) -> {
            if (state.on && state.onNanos < sinceNanos) {
                safe(name, STOOD_STILL);
            }
        });
    }

    /** A board can be reached again after a break: whatever it still does is ended first. */
    void linkBack(String source) {
        states.forEach((name, state) -> {
            if (state.source.equals(source)) {
                state.watchSinceNanos = System.nanoTime();
                safe(name, Messages.of("engine.link-back-after-a-break"));
                if (state.drove) {
                    send(name, state, state.output.safe(), true);
                    if (state.port != null && !state.port.isEmpty()) {
                        guard(name, state);
                    }
                }
            }
        });
    }

    /** @return what there is to see of each */
    List<ActSnapshot.OutputNow> now() {
        long nanos = System.nanoTime();
        List<ActSnapshot.OutputNow> all = new ArrayList<>();
        states.forEach((name, state) -> {
            SentLine sent = state.sent;
            SentLine answered = sent == null ? null : boards.answered(state.source, sent);
            String answer = answered == null ? "" : answered.answer();
            String trouble = state.trouble;
            if (trouble.isEmpty() && state.wanted && !guarded(name, state)) {
                trouble = unguarded(name, state);
            }
            if (trouble.isEmpty() && sent != null && answer.isEmpty() && nanos - sent.nanoTime() > ANSWER_NANOS) {
                trouble = Messages.of("engine.no-answer-to", sent.text());
            }
            all.add(new ActSnapshot.OutputNow(
                    state.output,
                    state.line,
                    !state.on,
                    state.wanted && (state.drove || guarded(name, state)),
                    state.sinceSeconds,
                    answer,
                    trouble));
        });
        return all;
    }

    private void run() {
        try {
            while (!closing || !queue.isEmpty()) {
                Outgoing next = queue.poll(WAIT_MS, TimeUnit.MILLISECONDS);
                if (next != null) {
                    write(next);
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } catch (RuntimeException e) {
            LOG.error("outputs stopped", e);
        }
    }

    private void write(Outgoing next) {
        State state = next.state();
        WatchdogProcess now = watchdog;
        boolean asks = next.line().equals(state.watch);
        if (!next.safe() && !asks && now != null) {
            // A safe line ordered before this one, and written only now, may have told the watchdog that it is off.
            now.on(next.output());
        }
        try {
            SentLine sent = boards.send(next.source(), next.line());
            if (asks) {
                return;
            }
            state.sent = sent;
            state.trouble = "";
            state.owed = false;
            if (next.safe() && now != null) {
                now.off(next.output());
            }
        } catch (LinkException e) {
            state.trouble = Messages.of("engine.not-sent", e.getMessage());
            state.owedNanos = System.nanoTime();
            state.owed = next.safe();
        }
    }

    /** Waits a moment until what was ordered is sent, then lets the watchdog go: it makes safe what could not be. After {@link #hold}; any thread. */
    @Override
    public void close() {
        closing = true;
        try {
            if (thread.isAlive()) {
                thread.join(CLOSE_MS);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        WatchdogProcess now = watchdog;
        if (now != null) {
            now.close();
        }
    }
}
