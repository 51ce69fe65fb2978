package zesty.signal.engine;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Controller;
import zesty.signal.core.act.Deed;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.RuleBook;
import zesty.signal.core.act.StepPlan;
import zesty.signal.core.act.Watch;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Decision;

/**
 * Decides while rows come, by the rules of the rig in force: each row of a channel as it came out of its cleaning, each watched
 * number once a second, each event when it is found. Trail's thread only. Longer than others: rules, bands and plans are decided in one order.
 */
final class Decider implements Controller.Listener {
    /** Events are looked for so often on the stream's own time. */
    private static final double EVENT_SECONDS = 0.2;
    /** Where nothing comes, the clock stands so far behind: rows may be on their way. */
    private static final double BEHIND_SECONDS = 0.25;

    /** A plan whose channel is silent for so long is over. */
    private static final long PLAN_SILENT_NANOS = 2_000_000_000;

    private static final int KEPT = 400;
    private static final RuleBook NOTHING = new RuleBook(List.of(), List.of());

    /** Where decisions go. */
    interface Effects {
        /** A line of the log. */
        void logged(Decision decision);

        /** A plan sets an output, or is over. */
        void planned(String output, String what);

        /** A rule turned on that does something. */
        void deed(Deed deed, String rule);
    }

    private final Effects effects;
    private final Outputs outputs;
    private PlanRun plan;
    private long plannedNanos;
    private final RowMerge merge = new RowMerge();
    private final Map<SampleStream, Inflow> inflows = new IdentityHashMap<>();
    private final Deque<Decision> log = new ArrayDeque<>();
    private ActSetup setup = ActSetup.NONE;
    private RuleBook book = NOTHING;
    private List<Watch> watches = List.of();
    private Controller controller = new Controller(NOTHING, this);
    private double[] newest = {};
    private int[] timesOn = {};
    private double[] turnedSeconds = {};

    Decider(Outputs outputs, Effects effects) {
        this.outputs = outputs;
        this.effects = effects;
    }

    /** What one line of samples brings to the rules. */
    private final class Inflow {
        /** By watch the channel whose values it takes; null where these come from elsewhere. */
        final String[] columns = new String[watches.size()];

        final WatchedReader[] readers = new WatchedReader[watches.size()];
        final boolean[] events = new boolean[watches.size()];
        final double originSeconds;
        long ticks = 1;
        double eventsDue;
        boolean any;

        Inflow(SampleStream stream, double firstSeconds) {
            originSeconds = firstSeconds;
            eventsDue = firstSeconds + EVENT_SECONDS;
            for (int w = 0; w < columns.length; w++) {
                String column = stream.columnCalled(Watches.column(watches.get(w)));
                if (column == null) {
                    continue;
                }
                any = true;
                if (watches.get(w) instanceof Watch.Number number) {
                    readers[w] = new WatchedReader(number, stream.rateOf(column));
                    events[w] = countsEvents(number);
                }
                columns[w] = column;
            }
        }

        private boolean countsEvents(Watch watch) {
            return book.rules().stream()
                    .anyMatch(rule -> rule instanceof Rule.OnSamples one
                            && one.watch().equals(watch)
                            && one.when() instanceof Condition.Events);
        }

        void rows(SampleStream stream, double[] seconds) {
            double[][] values = new double[columns.length][];
            for (int w = 0; w < columns.length; w++) {
                values[w] = columns[w] == null ? null : stream.newestOf(columns[w], seconds.length);
            }
            int read = 0;
            for (int i = 0; i < seconds.length; i++) {
                double tick = originSeconds + ticks * WatchedReader.NUMBER_SECONDS;
                while (tick < seconds[i]) {
                    read(seconds, values, read, i);
                    read = i;
                    merge.add(stream, new RowMerge.Moment(tick, -1, numbers(nothing(), tick)));
                    tick = originSeconds + ++ticks * WatchedReader.NUMBER_SECONDS;
                }
                double[] row = nothing();
                for (int w = 0; w < row.length; w++) {
                    row[w] = values[w] == null || readers[w] != null ? row[w] : values[w][i];
                }
                if (tick == seconds[i]) {
                    read(seconds, values, read, i + 1);
                    read = i + 1;
                    numbers(row, tick);
                    ticks++;
                }
                merge.add(stream, new RowMerge.Moment(seconds[i], -1, row));
            }
            read(seconds, values, read, seconds.length);
            double last = seconds[seconds.length - 1];
            if (last >= eventsDue) {
                eventsDue = last + EVENT_SECONDS;
                events(stream);
            }
        }

        private double[] nothing() {
            double[] row = new double[columns.length];
            Arrays.fill(row, Double.NaN);
            return row;
        }

        private void read(double[] seconds, double[][] values, int from, int to) {
            for (int w = 0; w < readers.length; w++) {
                if (readers[w] != null) {
                    readers[w].rows(seconds, values[w], from, to);
                }
            }
        }

        private double[] numbers(double[] into, double atSeconds) {
            for (int w = 0; w < readers.length; w++) {
                boolean number = readers[w] != null
                        && !((Watch.Number) watches.get(w)).number().isEmpty();
                into[w] = number ? readers[w].number(atSeconds) : readers[w] != null ? Double.NaN : into[w];
            }
            return into;
        }

        private void events(SampleStream stream) {
            for (int w = 0; w < readers.length; w++) {
                for (double at : events[w] ? readers[w].freshEvents() : List.<Double>of()) {
                    merge.add(stream, new RowMerge.Moment(at, w, null));
                }
            }
        }
    }

    /** Takes the rules of a rig into force; those that stay the same go on as they are, the outputs of others become safe. */
    void rig(Rig rig) {
        RuleBook now = rig.act().inForce();
        outputs.change(rig);
        setup = rig.act();
        if (now.equals(book)) {
            return;
        }
        int[] onBefore = timesOn;
        double[] turnedBefore = turnedSeconds;
        RuleBook before = book;
        controller.change(now);
        book = now;
        watches = now.watches();
        newest = new double[watches.size()];
        Arrays.fill(newest, Double.NaN);
        timesOn = new int[now.rules().size()];
        turnedSeconds = new double[now.rules().size()];
        Arrays.fill(turnedSeconds, Double.NaN);
        for (int r = 0; r < timesOn.length; r++) {
            for (int b = 0; b < onBefore.length; b++) {
                if (before.rules().get(b).name().equals(now.rules().get(r).name())) {
                    timesOn[r] = onBefore[b];
                    turnedSeconds[r] = turnedBefore[b];
                }
            }
        }
        inflows.clear();
        merge.clear();
    }

    /** Sets one value after the other on an output, watching a channel, in the place of what its rule says. */
    void plan(String output, String column, StepPlan of) {
        endPlan(Messages.of("engine.another-plan-began"));
        plannedNanos = System.nanoTime();
        plan = new PlanRun(output, column, of, new PlanRun.Effects() {
            @Override
            public void set(double value) {
                outputs.plan(output, lineOf(output, value), System.nanoTime());
            }

            @Override
            public void began(double value) {
                effects.planned(output, lineOf(output, value));
            }
        });
    }

    /** @param why in words */
    void endPlan(String why) {
        if (plan != null && !plan.isOver()) {
            plan.end(why);
            planOver();
        }
    }

    private void planOver() {
        outputs.safe(plan.output, "plan " + plan.now().ended());
        effects.planned(plan.output, "plan " + plan.now().ended());
    }

    private boolean planning() {
        return plan != null && !plan.isOver();
    }

    /** @return the line that sets an output to a value: that of a mapped one, or the "on" line with another number */
    private String lineOf(String output, double value) {
        String number = Digits.exact(value);
        for (Output one : book.outputs()) {
            if (one.name().equals(output)) {
                return one instanceof Output.ByValue by
                        ? by.line().replace("{value}", number)
                        : ((Output.ByRule) one).on().replaceFirst("[-+]?\\d+([.]\\d+)?(?!.*\\d)", number);
            }
        }
        return number;
    }

    /** Takes rows of a line of samples after they went through its channels. */
    void rows(SampleStream stream, double[] seconds, long nanos) {
        if (planning()) {
            String column = stream.columnCalled(plan.column);
            double[] values = column == null ? new double[0] : stream.newestOf(column, seconds.length);
            plannedNanos = values.length > 0 ? nanos : plannedNanos;
            for (int i = 0; i < values.length && planning(); i++) {
                plan.row(seconds[i], values[i]);
                if (plan.isOver()) {
                    planOver();
                }
            }
        }
        if (watches.isEmpty() || seconds.length == 0) {
            return;
        }
        Inflow inflow = inflows.computeIfAbsent(stream, one -> new Inflow(one, seconds[0]));
        if (!inflow.any) {
            return;
        }
        merge.join(stream);
        inflow.rows(stream, seconds);
        merge.heard(stream, seconds[seconds.length - 1], nanos);
        merge.release(nanos, this::take);
    }

    private void take(RowMerge.Moment moment) {
        double at = controller.isRunning() ? Math.max(controller.nowSeconds(), moment.seconds()) : moment.seconds();
        if (moment.event() >= 0) {
            controller.event(moment.event(), at);
            return;
        }
        for (int w = 0; w < newest.length; w++) {
            newest[w] = Double.isNaN(moment.values()[w]) ? newest[w] : moment.values()[w];
        }
        controller.samples(at, moment.values());
    }

    /** Where nothing comes, time passes all the same. @param nowSeconds of the trail's line, by the computer's clock; NaN before its first row */
    void tick(double nowSeconds, long nanos) {
        if (planning() && !outputs.held().isEmpty()) {
            endPlan("ended: " + outputs.held());
        } else if (planning() && nanos - plannedNanos > PLAN_SILENT_NANOS) {
            endPlan(Messages.of("engine.ended-nothing-comes-of", plan.column));
        } else if (planning()) {
            outputs.keepPlan(plan.output, nanos);
        }
        if (book.rules().isEmpty() && book.outputs().isEmpty()) {
            return;
        }
        merge.release(nanos, this::take);
        double until = nowSeconds - BEHIND_SECONDS;
        if (controller.isRunning() && until > controller.nowSeconds()) {
            controller.advance(until);
        }
    }

    /** Streams came to their end, as files do. */
    void over(double lastSeconds) {
        if (controller.isRunning()) {
            controller.finish(Math.max(lastSeconds, controller.nowSeconds()));
        }
    }

    @Override
    public void decided(double seconds, int rule, int state, double value) {
        RuleBook now = controller.book();
        Rule of = now.rules().get(rule);
        boolean bands = of instanceof Rule.InBands;
        if (rule < timesOn.length) {
            timesOn[rule] += !bands && state == 1 ? 1 : 0;
            turnedSeconds[rule] = seconds;
        }
        String what = bands ? "band " + state : state == 1 ? "on" : "off";
        log(new Decision(seconds, Decision.Kind.RULE, of.name(), what, value, ""));
        if (!bands && state == 1) {
            setup.deedsOf(of.name()).stream().sorted().forEach(deed -> effects.deed(deed, of.name()));
        }
    }

    @Override
    public void sent(double seconds, int output, String line, Controller.Why why) {
        outputs.order(seconds, controller.book().outputs().get(output).name(), line, words(why));
    }

    private static String words(Controller.Why why) {
        return why.name().toLowerCase(java.util.Locale.ROOT);
    }

    /** Keeps a line of the log. */
    void log(Decision decision) {
        if (log.size() == KEPT) {
            log.removeFirst();
        }
        log.addLast(decision);
        effects.logged(decision);
    }

    /** Something else made an output safe: what is on waits until its rule has been off, and a plan is over. */
    void madeSafe(String output) {
        if (planning() && plan.output.equals(output)) {
            plan.end(Messages.of("engine.ended-the-output-was-made-safe"));
            effects.planned(output, "plan " + plan.now().ended());
        }
        for (int o = 0; o < book.outputs().size(); o++) {
            if (book.outputs().get(o).name().equals(output)) {
                controller.madeSafe(o);
            }
        }
    }

    /** Lets go of a latched rule. */
    void acknowledge(String rule) {
        for (int r = 0; r < book.rules().size(); r++) {
            if (book.rules().get(r).name().equals(rule)) {
                controller.acknowledge(r);
            }
        }
    }

    /** Counts how often rules turned on from nought again. */
    void countAnew() {
        Arrays.fill(timesOn, 0);
    }

    /** @return the columns, or names of channels, that an output goes by */
    Set<String> watchedBy(String output) {
        Set<String> columns = new HashSet<>();
        for (Output one : book.outputs()) {
            if (one.name().equals(output)) {
                columns.addAll(
                        planning() && plan.output.equals(output) ? Set.of(plan.column) : Watches.columns(book, one));
            }
        }
        return columns;
    }

    double nowSeconds() {
        return controller.isRunning() ? controller.nowSeconds() : Double.NEGATIVE_INFINITY;
    }

    /** @return what there is to see now */
    ActSnapshot snapshot() {
        if (book.rules().isEmpty() && book.outputs().isEmpty()) {
            return ActSnapshot.NONE;
        }
        List<ActSnapshot.RuleNow> rules = new ArrayList<>();
        double until = controller.nowSeconds();
        for (int r = 0; r < book.rules().size(); r++) {
            Rule rule = book.rules().get(r);
            Watch watch = Watches.of(rule);
            double[] held = controller.held(r, until);
            rules.add(new ActSnapshot.RuleNow(
                    rule,
                    controller.state(r),
                    turnedSeconds[r],
                    controller.turns(r),
                    timesOn[r],
                    rule instanceof Rule.InBands ? 0 : held[1],
                    watch == null ? Double.NaN : newest[watches.indexOf(watch)],
                    watch == null || isFound(watches.indexOf(watch))));
        }
        return new ActSnapshot(
                rules, outputs.now(), outputs.held(), List.copyOf(log), plan == null ? null : plan.now());
    }

    private boolean isFound(int watch) {
        return inflows.values().stream().anyMatch(one -> one.columns[watch] != null);
    }

    /** @return whether a channel is meant by that name: its column, or what the maker calls it */
    static boolean isCalled(Channel channel, String name) {
        return channel.column().equals(name) || channel.name().equals(name);
    }
}
