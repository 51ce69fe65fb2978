package zesty.signal.core.act;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
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
        /** @param state 0 off, 1 on; of bands the band's number */
        void decided(double seconds, int rule, int state);

        void sent(double seconds, int output, String line, Why why);
    }

    /** Why a line is sent. */
    public enum Why {
        RULE,
        VALUE,
        LONGEST,
        END
    }

    private final RuleBook book;
    private final Listener listener;
    /** By watch its rules and outputs. */
    private final State[][] rulesOf;

    private final Valve[][] valvesOf;
    private final State[] states;
    private final List<Driver> drivers = new ArrayList<>();
    private final List<Silence> silences = new ArrayList<>();
    private final List<Counted> counted = new ArrayList<>();
    private final List<Lamp> lamps = new ArrayList<>();
    private final List<Valve> valves = new ArrayList<>();
    private boolean begun;
    private double now;
    private boolean changed;

    /** @param listener is called on the thread that hands in samples */
    public Controller(RuleBook book, Listener listener) {
        this.book = book;
        this.listener = listener;
        List<Watch> watches = book.watches();
        Map<String, State> byName = new HashMap<>();
        List<List<State>> of = new ArrayList<>();
        List<List<Valve>> out = new ArrayList<>();
        watches.forEach(watch -> {
            of.add(new ArrayList<>());
            out.add(new ArrayList<>());
        });
        states = new State[book.rules().size()];
        for (int r = 0; r < states.length; r++) {
            states[r] = state(book.rules().get(r), r, byName);
            byName.put(book.rules().get(r).name(), states[r]);
            if (states[r].watch != null) {
                of.get(watches.indexOf(states[r].watch)).add(states[r]);
            }
        }
        for (int o = 0; o < book.outputs().size(); o++) {
            if (book.outputs().get(o) instanceof Output.ByRule one) {
                Lamp lamp = new Lamp(o, one, byName.get(one.rule()));
                lamps.add(lamp);
                drivers.add(lamp);
            } else {
                Valve valve = new Valve(o, (Output.ByValue) book.outputs().get(o));
                valves.add(valve);
                drivers.add(valve);
                out.get(watches.indexOf(valve.setup.watch())).add(valve);
            }
        }
        rulesOf = of.stream().map(one -> one.toArray(State[]::new)).toArray(State[][]::new);
        valvesOf = out.stream().map(one -> one.toArray(Valve[]::new)).toArray(Valve[][]::new);
    }

    private State state(Rule rule, int index, Map<String, State> byName) {
        if (rule instanceof Rule.Made made) {
            return new Group(index, made, made.parts().stream().map(byName::get).toArray(State[]::new));
        }
        if (rule instanceof Rule.InBands bands) {
            return new Bands(index, bands);
        }
        Rule.OnSamples one = (Rule.OnSamples) rule;
        if (one.when() instanceof Condition.Silent silent) {
            Silence silence = new Silence(index, one, silent.forSeconds());
            silences.add(silence);
            return silence;
        }
        if (one.when() instanceof Condition.Events events) {
            Counted count = new Counted(index, one, events);
            counted.add(count);
            return count;
        }
        return new Switch(index, one);
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
                for (State state : rulesOf[w]) {
                    state.sample(seconds, value);
                }
                for (Valve valve : valvesOf[w]) {
                    valve.newest = value;
                }
            }
        }
        settle(seconds);
    }

    /** Takes a reader's event of a watch; before the samples of the same moment. */
    public void event(int watch, double seconds) {
        advance(seconds);
        for (State state : rulesOf[watch]) {
            state.happened(seconds);
        }
        settle(seconds);
    }

    /** Does what is due before a moment, and lets the clock stand there: where nothing comes, it is told what time it is. */
    public void advance(double seconds) {
        if (!begun) {
            begun = true;
            now = seconds;
            valves.forEach(valve -> valve.firstSeconds = seconds);
            for (State state : states) {
                state.sinceSeconds = state.now < 0 ? Double.NaN : seconds;
            }
            // What is on from the first sample on, such as the opposite of what is off, is told once its parts are
            // known.
            changed = true;
        }
        for (double due = nextDue(seconds); due < seconds - ROUNDING_SECONDS; due = nextDue(seconds)) {
            dueAt(due);
        }
        now = seconds;
    }

    private double nextDue(double until) {
        double due = until;
        for (Silence one : silences) {
            due = Math.min(due, one.due());
        }
        for (Counted one : counted) {
            due = Math.min(due, one.due());
        }
        for (Lamp one : lamps) {
            due = Math.min(due, one.due());
        }
        for (Valve one : valves) {
            due = Math.min(due, one.due());
        }
        return due;
    }

    private void dueAt(double due) {
        now = due;
        for (Silence one : silences) {
            one.dueAt(due);
        }
        for (Counted one : counted) {
            one.dueAt(due);
        }
        settle(due);
        for (Driver one : drivers) {
            one.dueAt(due);
        }
    }

    /** Rules made of others follow those, and outputs their rules. */
    private void settle(double seconds) {
        if (!changed) {
            return;
        }
        changed = false;
        for (State state : states) {
            state.follow(seconds);
        }
        for (Lamp lamp : lamps) {
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
        for (Driver one : drivers) {
            one.end(seconds);
        }
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
        State state = states[rule];
        double[] held = state.held.clone();
        if (state.now >= 0 && begun) {
            held[state.now] += untilSeconds - state.sinceSeconds;
        }
        return held;
    }

    /** A rule at work. */
    private abstract class State {
        final int index;
        final Watch watch;
        int now;
        int turns;
        boolean acknowledged;
        double turnedSeconds = Double.NEGATIVE_INFINITY;
        double sinceSeconds = Double.NaN;
        final double[] held;

        State(int index, Watch watch, int states) {
            this.index = index;
            this.watch = watch;
            held = new double[states];
        }

        void sample(double seconds, double value) {
            // Most rules look at samples; those that do not have nothing to do here.
        }

        void happened(double seconds) {
            // As above, of events.
        }

        void follow(double seconds) {
            // As above, of other rules.
        }

        void turn(double seconds, int to) {
            hold(seconds);
            now = to;
            turnedSeconds = seconds;
            turns++;
            changed = true;
            listener.decided(seconds, index, to);
        }

        void hold(double seconds) {
            if (sinceSeconds == sinceSeconds && now >= 0) {
                held[now] += seconds - sinceSeconds;
            }
            sinceSeconds = seconds;
        }

        boolean dead(double seconds, double deadSeconds) {
            return seconds - turnedSeconds < deadSeconds - ROUNDING_SECONDS;
        }
    }

    /** On or off by a value or its slope. */
    private final class Switch extends State {
        private final Rule.OnSamples rule;
        private final SlopeWindow slope;
        private final double half;
        private final double low;
        private final double high;
        private final int kind;
        /** Since when what would turn it has held; NaN where it does not. */
        private double turningSince = Double.NaN;

        private static final int ABOVE = 0;
        private static final int BELOW = 1;
        private static final int INSIDE = 2;
        private static final int OUTSIDE = 3;

        Switch(int index, Rule.OnSamples rule) {
            super(index, rule.watch(), 2);
            this.rule = rule;
            half = rule.hysteresis() / 2;
            Condition when = rule.when();
            SlopeWindow window = null;
            double least = Double.NaN;
            double most = Double.NaN;
            if (when instanceof Condition.Above one) {
                kind = ABOVE;
                least = one.limit();
            } else if (when instanceof Condition.Below one) {
                kind = BELOW;
                least = one.limit();
            } else if (when instanceof Condition.Inside one) {
                kind = INSIDE;
                least = one.low();
                most = one.high();
            } else if (when instanceof Condition.Outside one) {
                kind = OUTSIDE;
                least = one.low();
                most = one.high();
            } else if (when instanceof Condition.Rising one) {
                kind = ABOVE;
                least = one.limit();
                window = new SlopeWindow(one.overSeconds());
            } else {
                kind = BELOW;
                least = -((Condition.Falling) when).limit();
                window = new SlopeWindow(((Condition.Falling) when).overSeconds());
            }
            low = least;
            high = most;
            slope = window;
        }

        private boolean turnsOn(double x) {
            return switch (kind) {
                case ABOVE -> x >= low + half;
                case BELOW -> x <= low - half;
                case INSIDE -> x >= low + half && x <= high - half;
                default -> x < low - half || x > high + half;
            };
        }

        private boolean turnsOff(double x) {
            return switch (kind) {
                case ABOVE -> x < low - half;
                case BELOW -> x > low + half;
                case INSIDE -> x < low - half || x > high + half;
                default -> x >= low + half && x <= high - half;
            };
        }

        @Override
        void sample(double seconds, double value) {
            double x = value;
            if (slope != null) {
                x = slope.add(seconds, value);
                if (x != x) {
                    return;
                }
            }
            boolean on = now == 1;
            boolean turning = on ? turnsOff(x) && !(rule.holds().latch() && !acknowledged) : turnsOn(x);
            if (!turning) {
                turningSince = Double.NaN;
                return;
            }
            if (turningSince != turningSince) {
                turningSince = seconds;
            }
            double hold = on ? rule.holds().offForSeconds() : rule.holds().forSeconds();
            if (seconds - turningSince >= hold - ROUNDING_SECONDS
                    && !dead(seconds, rule.holds().deadSeconds())) {
                turn(seconds, on ? 0 : 1);
                turningSince = Double.NaN;
                acknowledged = false;
            }
        }
    }

    /** The number of a band. */
    private final class Bands extends State {
        private final Rule.InBands rule;
        private int aimedAt = -1;
        private double aimedSince;

        Bands(int index, Rule.InBands rule) {
            super(index, rule.watch(), rule.edges().length + 1);
            this.rule = rule;
            now = -1;
        }

        @Override
        void sample(double seconds, double value) {
            double[] edges = rule.edges();
            if (now < 0) {
                int band = 0;
                while (band < edges.length && value >= edges[band]) {
                    band++;
                }
                hold(seconds);
                now = band;
                return;
            }
            double half = rule.hysteresis() / 2;
            int to = now;
            while (to < edges.length && value >= edges[to] + half) {
                to++;
            }
            while (to > 0 && value < edges[to - 1] - half) {
                to--;
            }
            if (to == now) {
                aimedAt = -1;
                return;
            }
            if (to != aimedAt) {
                aimedAt = to;
                aimedSince = seconds;
            }
            if (seconds - aimedSince >= rule.leastSeconds() - ROUNDING_SECONDS) {
                turn(seconds, to);
                aimedAt = -1;
            }
        }
    }

    /** On while nothing comes. */
    private final class Silence extends State {
        private final Rule.OnSamples rule;
        private final double forSeconds;
        private double lastSeconds = Double.NaN;

        Silence(int index, Rule.OnSamples rule, double forSeconds) {
            super(index, rule.watch(), 2);
            this.rule = rule;
            this.forSeconds = forSeconds;
        }

        double due() {
            return now == 1 || lastSeconds != lastSeconds
                    ? Double.POSITIVE_INFINITY
                    : Math.max(
                            lastSeconds + forSeconds,
                            turnedSeconds + rule.holds().deadSeconds());
        }

        void dueAt(double seconds) {
            if (seconds >= due() - ROUNDING_SECONDS) {
                turn(seconds, 1);
            }
        }

        @Override
        void sample(double seconds, double value) {
            lastSeconds = seconds;
            boolean may = !rule.holds().latch() || acknowledged;
            if (now == 1 && may && !dead(seconds, rule.holds().deadSeconds())) {
                turn(seconds, 0);
                acknowledged = false;
            }
        }
    }

    /** On while enough events lie within a window. */
    private final class Counted extends State {
        private final Rule.OnSamples rule;
        private final Condition.Events events;
        private final Deque<Double> within = new ArrayDeque<>();

        Counted(int index, Rule.OnSamples rule, Condition.Events events) {
            super(index, rule.watch(), 2);
            this.rule = rule;
            this.events = events;
        }

        @Override
        void happened(double seconds) {
            within.addLast(seconds);
            while (seconds - within.peekFirst() > events.withinSeconds() + ROUNDING_SECONDS) {
                within.removeFirst();
            }
            if (now == 0
                    && within.size() >= events.count()
                    && !dead(seconds, rule.holds().deadSeconds())) {
                turn(seconds, 1);
            }
        }

        double due() {
            if (now == 0 || within.size() < events.count() || rule.holds().latch() && !acknowledged) {
                return Double.POSITIVE_INFINITY;
            }
            // The one that the window can least do without.
            double needed = within.stream()
                    .skip(within.size() - events.count())
                    .findFirst()
                    .orElseThrow();
            return Math.max(
                    needed + events.withinSeconds(),
                    turnedSeconds + rule.holds().deadSeconds());
        }

        void dueAt(double seconds) {
            if (seconds >= due() - ROUNDING_SECONDS) {
                turn(seconds, 0);
            }
        }
    }

    /** On by what others are. */
    private final class Group extends State {
        private final Rule.Made rule;
        private final State[] parts;
        private int firstTurns;
        private double firstOnSeconds = Double.NaN;
        private boolean secondWas;

        Group(int index, Rule.Made rule, State[] parts) {
            super(index, null, 2);
            this.rule = rule;
            this.parts = parts;
        }

        @Override
        void follow(double seconds) {
            int to = together(seconds) ? 1 : 0;
            if (to != now) {
                turn(seconds, to);
            }
        }

        private boolean together(double seconds) {
            return switch (rule.how()) {
                case ALL -> every();
                case ANY -> some();
                case NOT -> parts[0].now == 0;
                case THEN -> then(seconds);
            };
        }

        private boolean every() {
            for (State part : parts) {
                if (part.now == 0) {
                    return false;
                }
            }
            return true;
        }

        private boolean some() {
            for (State part : parts) {
                if (part.now == 1) {
                    return true;
                }
            }
            return false;
        }

        private boolean then(double seconds) {
            State first = parts[0];
            State second = parts[1];
            if (first.turns != firstTurns) {
                firstTurns = first.turns;
                firstOnSeconds = first.now == 1 ? first.turnedSeconds : firstOnSeconds;
            }
            boolean turnedOn = second.now == 1 && !secondWas;
            secondWas = second.now == 1;
            if (turnedOn) {
                return seconds - firstOnSeconds <= rule.withinSeconds() + ROUNDING_SECONDS;
            }
            return now == 1 && second.now == 1;
        }
    }

    /** What sends lines. */
    private abstract class Driver {
        final int index;
        final String safe;
        String last;

        Driver(int index, String safe) {
            this.index = index;
            this.safe = safe;
        }

        void send(double seconds, String line, Why why) {
            last = line;
            listener.sent(seconds, index, line, why);
        }

        abstract void dueAt(double seconds);

        void end(double seconds) {
            if (last != null && !last.equals(safe)) {
                send(seconds, safe, Why.END);
            }
        }
    }

    /** On and off lines by a rule. */
    private final class Lamp extends Driver {
        private final Output.ByRule setup;
        private final State rule;
        private boolean on;
        private boolean overdue;
        private double onSeconds;

        Lamp(int index, Output.ByRule setup, State rule) {
            super(index, setup.safe());
            this.setup = setup;
            this.rule = rule;
        }

        void follow(double seconds) {
            boolean is = rule.now == 1;
            if (is == on) {
                return;
            }
            on = is;
            if (is) {
                onSeconds = seconds;
                send(seconds, setup.on(), Why.RULE);
            } else if (!overdue) {
                send(seconds, setup.off(), Why.RULE);
            }
            overdue = false;
        }

        double due() {
            return on && !overdue ? onSeconds + setup.longestOnSeconds() : Double.POSITIVE_INFINITY;
        }

        @Override
        void dueAt(double seconds) {
            if (seconds >= due() - ROUNDING_SECONDS) {
                overdue = true;
                send(seconds, safe, Why.LONGEST);
            }
        }
    }

    /** A value over and over. */
    private final class Valve extends Driver {
        private final Output.ByValue setup;
        private final double share;
        private double firstSeconds = Double.NaN;
        private long period;
        private double newest = Double.NaN;
        private double smoothed = Double.NaN;
        private double slewed = Double.NaN;
        private double sentValue = Double.NaN;

        Valve(int index, Output.ByValue setup) {
            super(index, setup.safe());
            this.setup = setup;
            share = setup.smoothSeconds() > 0 ? 1 - Math.exp(-setup.periodSeconds() / setup.smoothSeconds()) : 1;
        }

        double due() {
            return firstSeconds + period * setup.periodSeconds();
        }

        @Override
        void dueAt(double seconds) {
            if (!(seconds >= due() - ROUNDING_SECONDS)) {
                return;
            }
            double at = due();
            period++;
            if (newest != newest) {
                return;
            }
            double mapped = mapped(newest);
            smoothed = smoothed == smoothed ? smoothed + share * (mapped - smoothed) : mapped;
            double most = setup.slewPerSecond() * setup.periodSeconds();
            slewed = slewed == slewed ? slewed + Math.max(-most, Math.min(most, smoothed - slewed)) : smoothed;
            if (sentValue == sentValue && Math.abs(slewed - sentValue) < setup.deadZone()) {
                return;
            }
            sentValue = slewed;
            send(at, setup.line().replace("{value}", Decimals.upToThree(slewed)), Why.VALUE);
        }

        private double mapped(double in) {
            double[][] map = setup.map();
            if (map.length == 0) {
                return in;
            }
            if (in <= map[0][0]) {
                return map[0][1];
            }
            for (int i = 1; i < map.length; i++) {
                if (in <= map[i][0]) {
                    double way = (in - map[i - 1][0]) / (map[i][0] - map[i - 1][0]);
                    return map[i - 1][1] + way * (map[i][1] - map[i - 1][1]);
                }
            }
            return map[map.length - 1][1];
        }
    }

    /** @return the book it decides by */
    public RuleBook book() {
        return book;
    }

    /** @return the moment up to which it has decided, in s */
    public double nowSeconds() {
        return now;
    }
}
