package zesty.signal.core.act;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Decides by rules, sample by sample, and says what is to be sent: the same on the live stream, a replayed take and a file. Times never
 * fall. What becomes due between samples (silence, events that leave their window, the longest time of an output, periods) is done in its
 * order before the next ones, at its own time. One thread; no clock of its own.
 */
public final class Controller {
    /** Far below any sample period, far above the rounding of sums of times. */
    static final double ROUNDING_SECONDS = 1e-9;

    /** Hears what is decided and what is to be sent, in order of time. */
    public interface Listener {
        /**
         * @param state 0 off, 1 on; of bands the band's number
         * @param value behind it: the sample, the slope, how many events; NaN where there is none
         */
        void decided(double seconds, int rule, int state, double value);

        void sent(double seconds, int output, String line, Why why);
    }

    /** Why a line is sent. */
    public enum Why {
        RULE,
        VALUE,
        LONGEST,
        END
    }

    private final Listener listener;
    private RuleBook book;
    /** By watch its rules and outputs. */
    private RuleState[][] rulesOf = {};

    private ValueDriver[][] valvesOf = {};
    private RuleState[] states = {};
    private final List<OutputDriver> drivers = new ArrayList<>();
    private final List<SilenceSwitch> silences = new ArrayList<>();
    private final List<EventSwitch> counted = new ArrayList<>();
    private final List<RuleDriver> lamps = new ArrayList<>();
    private final List<ValueDriver> valves = new ArrayList<>();
    private boolean begun;
    private double now;
    private boolean changed;

    /** @param listener is called on the thread that hands in samples */
    public Controller(RuleBook book, Listener listener) {
        this.listener = listener;
        change(book);
    }

    /**
     * Goes on by another book. Rules that are in both, with all that they are made of, go on as they are, and so do their outputs;
     * an output that does not makes itself safe first.
     */
    public void change(RuleBook other) {
        List<RuleState> rulesBefore = List.of(states);
        List<OutputDriver> driversBefore = List.copyOf(drivers);
        drivers.clear();
        silences.clear();
        counted.clear();
        lamps.clear();
        valves.clear();
        List<Watch> watches = other.watches();
        Map<String, RuleState> byName = new HashMap<>();
        RuleState[] fresh = new RuleState[other.rules().size()];
        for (int r = 0; r < fresh.length; r++) {
            Rule rule = other.rules().get(r);
            RuleState made = state(rule, r, byName);
            fresh[r] = rulesBefore.stream()
                    .filter(one -> one.sameAs(made))
                    .findFirst()
                    .orElse(made);
            fresh[r].index = r;
            byName.put(rule.name(), fresh[r]);
            keep(fresh[r]);
        }
        for (int o = 0; o < other.outputs().size(); o++) {
            OutputDriver made = driver(other.outputs().get(o), o, byName);
            OutputDriver kept = driversBefore.stream()
                    .filter(one -> one.sameAs(made))
                    .findFirst()
                    .orElse(made);
            drivers.add(kept);
            if (kept instanceof RuleDriver lamp) {
                lamps.add(lamp);
            } else {
                valves.add((ValueDriver) kept);
            }
        }
        driversBefore.stream().filter(one -> !drivers.contains(one)).forEach(one -> one.end(now));
        for (int o = 0; o < drivers.size(); o++) {
            drivers.get(o).index = o;
        }
        book = other;
        states = fresh;
        rulesOf = watches.stream()
                .map(watch -> Arrays.stream(fresh)
                        .filter(one -> watch.equals(one.watch))
                        .toArray(RuleState[]::new))
                .toArray(RuleState[][]::new);
        valvesOf = watches.stream()
                .map(watch -> valves.stream()
                        .filter(one -> watch.equals(one.setup.watch()))
                        .toArray(ValueDriver[]::new))
                .toArray(ValueDriver[][]::new);
        if (begun) {
            begin(now);
        }
    }

    private void keep(RuleState state) {
        if (state instanceof SilenceSwitch one) {
            silences.add(one);
        } else if (state instanceof EventSwitch one) {
            counted.add(one);
        }
    }

    private OutputDriver driver(Output output, int index, Map<String, RuleState> byName) {
        return output instanceof Output.ByRule one
                ? new RuleDriver(index, one, byName.get(one.rule()), listener)
                : new ValueDriver(index, (Output.ByValue) output, listener);
    }

    private RuleState state(Rule rule, int index, Map<String, RuleState> byName) {
        if (rule instanceof Rule.Made made) {
            return new MadeSwitch(
                    index, made, made.parts().stream().map(byName::get).toArray(RuleState[]::new), this::turned);
        }
        if (rule instanceof Rule.InBands bands) {
            return new BandSwitch(index, bands, this::turned);
        }
        Rule.OnSamples one = (Rule.OnSamples) rule;
        if (one.when() instanceof Condition.Silent silent) {
            return new SilenceSwitch(index, one, silent.forSeconds(), this::turned);
        }
        if (one.when() instanceof Condition.Events events) {
            return new EventSwitch(index, one, events, this::turned);
        }
        return new ValueSwitch(index, one, this::turned);
    }

    private void turned(double seconds, int rule, int to, double value) {
        changed = true;
        listener.decided(seconds, rule, to, value);
    }

    /**
     * Takes what came at one moment.
     *
     * @param values one a watch of the book, in its order; NaN where nothing came or a value is missing
     */
    public void samples(double seconds, double[] values) {
        advance(seconds);
        for (int w = 0; w < values.length; w++) {
            double value = values[w];
            if (value == value) {
                for (RuleState state : rulesOf[w]) {
                    state.sample(seconds, value);
                }
                for (ValueDriver valve : valvesOf[w]) {
                    valve.newest = value;
                }
            }
        }
        settle(seconds);
    }

    /** Takes a reader's event of a watch; before the samples of the same moment. */
    public void event(int watch, double seconds) {
        advance(seconds);
        for (RuleState state : rulesOf[watch]) {
            state.happened(seconds);
        }
        settle(seconds);
    }

    /** Does what is due before a moment, and lets the clock stand there: where nothing comes, it is told what time it is. */
    public void advance(double seconds) {
        if (!begun) {
            begun = true;
            now = seconds;
            begin(seconds);
        }
        for (double due = nextDue(seconds); due < seconds - ROUNDING_SECONDS; due = nextDue(seconds)) {
            dueAt(due);
        }
        now = seconds;
    }

    /** What is there for the first time begins now. */
    private void begin(double seconds) {
        for (ValueDriver valve : valves) {
            valve.firstSeconds = Double.isNaN(valve.firstSeconds) ? seconds : valve.firstSeconds;
        }
        for (RuleState state : states) {
            state.sinceSeconds = state.now < 0 || !Double.isNaN(state.sinceSeconds) ? state.sinceSeconds : seconds;
        }
        // What is on from the first sample on, such as the opposite of what is off, is told once its parts are known.
        changed = true;
    }

    private double nextDue(double until) {
        double due = until;
        for (SilenceSwitch one : silences) {
            due = Math.min(due, one.due());
        }
        for (EventSwitch one : counted) {
            due = Math.min(due, one.due());
        }
        for (RuleDriver one : lamps) {
            due = Math.min(due, one.due());
        }
        for (ValueDriver one : valves) {
            due = Math.min(due, one.due());
        }
        return due;
    }

    private void dueAt(double due) {
        now = due;
        for (SilenceSwitch one : silences) {
            one.dueAt(due);
        }
        for (EventSwitch one : counted) {
            one.dueAt(due);
        }
        settle(due);
        for (OutputDriver one : drivers) {
            one.dueAt(due);
        }
    }

    /** Rules made of others follow those, and outputs their rules. */
    private void settle(double seconds) {
        if (!changed) {
            return;
        }
        changed = false;
        for (RuleState state : states) {
            state.follow(seconds);
        }
        for (RuleDriver lamp : lamps) {
            lamp.follow(seconds);
        }
    }

    /** Lets go of a latched rule: it turns off by its condition from here on. */
    public void acknowledge(int rule) {
        states[rule].acknowledged = true;
    }

    /**
     * Ends it at the last sample: what is due by then is done, and what is not safe is made so.
     *
     * @param seconds of the last sample
     */
    public void finish(double seconds) {
        advance(seconds);
        // What is due at this very moment is still part of it.
        for (double due = nextDue(Double.POSITIVE_INFINITY);
                due <= seconds + ROUNDING_SECONDS;
                due = nextDue(Double.POSITIVE_INFINITY)) {
            dueAt(due);
        }
        for (OutputDriver one : drivers) {
            one.end(seconds);
        }
    }

    /**
     * Something else made an output safe: what is on waits until its rule has been off, a value until the next one comes.
     */
    public void madeSafe(int output) {
        drivers.get(output).madeSafe();
    }

    /** @return 0 off, 1 on; of bands the band's number, −1 before its first sample */
    public int state(int rule) {
        return states[rule].now;
    }

    /** @return how often it has turned, on and off */
    public int turns(int rule) {
        return states[rule].turns;
    }

    /** @return how long each state was held up to a moment, in s: off and on, or one a band */
    public double[] held(int rule, double untilSeconds) {
        RuleState state = states[rule];
        double[] held = state.held.clone();
        if (state.now >= 0 && begun) {
            held[state.now] += untilSeconds - state.sinceSeconds;
        }
        return held;
    }

    /** @return the book it decides by */
    public RuleBook book() {
        return book;
    }

    /** @return whether anything has come yet */
    public boolean isRunning() {
        return begun;
    }

    /** @return the moment up to which it has decided, in s */
    public double nowSeconds() {
        return now;
    }
}
