package zesty.signal.core.decode;

import java.util.Arrays;
import java.util.List;
import zesty.signal.core.sample.Gap;

/** The steps of a board's clock from row to row: what is usual, and what is a gap. One thread. */
final class ClockSteps {
    /** Steps of an even clock differ by less than this share of the period. */
    private static final double EVEN = 0.05;
    /** Over more periods than these the rate is not known well enough to tell whether a gap is a whole number of them. */
    private static final double MOST_COUNTED = 40;
    /** A gap further than this from a whole number of periods, as a share of one, is none of lost rows. */
    private static final double OFF_GRID = 0.2;
    /** So many steps give a first pace by which a stamp is doubted. */
    private static final int PACE_STEPS = 4;
    /** Steps that differ by a smaller share are the same, as they are worked out. */
    private static final double ROUNDING = 1e-6;
    /** A step of so many ticks is known to a third of a percent by the median; of a shorter one the mean tells more. */
    private static final double FINE_TICKS = 300;
    /** Half of the steps lie within this share of the median, or the mean tells more than it. */
    private static final double SCATTERED = 0.01;
    /** Where rows come faster than ticks, so many of these have to go by before the mean is within a tenth. */
    private static final double FIRST_TICKS = 10;
    /** Steps of one tick among which so many of these are of two: the rate lies between, and two are no lost row. */
    private static final int BETWEEN_TICKS = 3;
    /** Of steps shorter than so many ticks one may be half as long again as the next, which is no gap. */
    private static final double COARSE_TICKS = 2;
    /** As far as a step may be from a whole number of ticks, as it is worked out. */
    private static final double WHOLE = 1e-3;
    /** What is usual is looked at again after so many steps. */
    private static final int LOOKED_AT = 64;
    /** So many more long steps than others, and alike, are no gaps: the board goes on at another rate. */
    private static final int OTHER_PACE = 8;

    private final boolean even;
    private final Losses losses;
    private final double unit;
    private final TickSteps ticks = new TickSteps();
    private final MeanStep mean = new MeanStep();
    private final double[] recent = new double[15];
    private int count;

    private double usual = Double.NaN;
    private boolean scattered;
    /** Whether the clock counts whole ticks: one in seconds mostly has decimals. */
    private boolean whole;
    /** A longer step is a gap, in s. */
    private double longest = Double.NaN;
    /** By what steps differ at least, in s: what the clock can tell apart; 0 where they do not. */
    private double tickSeconds;

    private final double[] longOnes = new double[OTHER_PACE];
    private int longOnesNow;

    /**
     * @param even whether rows come at a rate, so that they lie evenly between ticks coarser than it
     * @param tickSeconds from one of the clock's ticks to the next: it may tell apart less, and more only where it has decimals
     */
    ClockSteps(boolean even, double tickSeconds, Losses losses) {
        this.even = even;
        this.losses = losses;
        unit = tickSeconds;
    }

    /**
     * @return seconds from row to row, NaN until known: the median of the newest steps, or where that is coarse (many rows
     *     share a stamp, or steps are of seven ticks and of eight) or they scatter, the mean of many
     */
    double periodSeconds() {
        boolean known = count >= recent.length;
        if (usual >= FINE_TICKS * tickSeconds && !(known && scattered)) {
            return usual;
        }
        double all = mean.sum();
        double steps = mean.count();
        // What is a gap among the first steps is taken out of their sum only once there are enough of them.
        for (int i = 0; !known && i < count; i++) {
            if (recent[i] > longest) {
                all -= recent[i];
                steps--;
            }
        }
        boolean told = usual >= 2 * tickSeconds || all > 0 && all >= FIRST_TICKS * tickSeconds;
        return told ? all / steps : Double.NaN;
    }

    double usualOr(double other) {
        return Double.isNaN(usual) ? other : usual;
    }

    /** @return whether there were enough of them to doubt a stamp by */
    boolean tellAPace() {
        return count >= PACE_STEPS;
    }

    /** The number goes round: by how many whole rounds more rows are missing, the clock tells. */
    private long rounds(double step, Between what) {
        if (!(what.turn() > 0) || count < recent.length) {
            return 0;
        }
        double byClock = step / mean.seconds() - 1;
        return Math.max(0, Math.round((byClock - what.numbered()) / what.turn())) * (long) what.turn();
    }

    /**
     * What the rows between two stamps were.
     *
     * @param numbered rows lost as the sequence has it; −1 where there is none
     * @param exact whether the sequence went on across a re-opened link, so that the clock need not bridge it
     * @param turn rows after which the sequence begins anew; 0 where it does not, or nobody knows
     */
    record Between(long numbered, boolean exact, double turn, boolean bridged, boolean restarted, boolean unseen) {}

    /**
     * The time of a row within the tick that its clock tells: as evenly behind the one before it as that allows, and never
     * before it. Clocks finer than half a step are taken at their word, and those of rows that come at no rate.
     *
     * @param before time of the row before, in s
     * @param stamp what the clock says, in s
     */
    double within(double before, double stamp) {
        double least = Math.max(before, stamp);
        double period = periodSeconds();
        // What was taken for a tick may turn out to be many: those before stand further on than this one could then.
        return even && period < COARSE_TICKS * tickSeconds
                ? Math.max(least, Math.min(before + period, stamp + tickSeconds))
                : least;
    }

    /**
     * Takes up a step.
     *
     * @param step from stamp to stamp, in s
     * @param before time of the row before. @param after time of the row
     * @param gaps takes up the gap that it is, if it is one
     */
    void saw(double step, double before, double after, Between what, List<Gap> gaps) {
        boolean known = count >= recent.length;
        boolean bridged = what.bridged() && !what.exact();
        if (what.numbered() > 0 && !bridged || what.exact()) {
            // The rows' own numbers need no rate: also among the first rows, and behind one that was late.
            long missing = what.numbered() + rounds(step, what);
            if (missing > 0) {
                losses.gap(before, after, missing, gaps);
                return;
            }
        }
        boolean mayTell = !known || aTickARow();
        if (mayTell && what.numbered() < 0 && !bridged && lostBetweenTicks(step, known)) {
            losses.gap(before, after, 1, gaps);
            return;
        }
        // Rows a little slower than the ticks: now and then a step has one more, and the numbers say that nothing is
        // lost.
        boolean tickMore =
                what.numbered() == 0 && !bridged && step <= usual + 1.5 * (tickSeconds > 0 ? tickSeconds : usual);
        if (known && step > longest && !tickMore || bridged && step > 0 && !(step < longest)) {
            long missing = mean.sum() > 0 ? Math.max(0, Math.round(step / mean.seconds()) - 1) : 0;
            if (what.numbered() == 0 && !bridged) {
                missing = 0;
            } else if (what.restarted() && what.unseen() || known && !bridged && paused(step)) {
                missing = 0;
            }
            losses.gap(before, after, missing, gaps);
            if (!bridged) {
                tooLong(step);
            }
            return;
        }
        longOnesNow = Math.max(0, longOnesNow - 1);
        recent[count++ % recent.length] = step;
        if (mean.add(step, whole ? unit : tickSeconds)) {
            // Steps of two paces differ by what is no tick.
            tickSeconds = 0;
        }
        if (count <= recent.length || count % LOOKED_AT == 0) {
            look();
            if (count == recent.length) {
                countEarlyLosses(what.numbered() >= 0);
            }
        }
    }

    private void look() {
        double[] sorted = Arrays.copyOf(recent, Math.min(count, recent.length));
        Arrays.sort(sorted);
        double median = sorted[sorted.length / 2];
        usual = median > 0 ? median : Double.NaN;
        whole = true;
        for (int i = 0; i < sorted.length && whole; i++) {
            whole = Math.abs(sorted[i] / unit - Math.rint(sorted[i] / unit)) < WHOLE;
        }
        scattered = sorted[sorted.length * 3 / 4] - sorted[sorted.length / 4] > SCATTERED * median;
        // From one pace to another there is one change, which is no tick.
        tickSeconds = changes(ROUNDING * sorted[sorted.length - 1]) > 1 ? tick(sorted) : tickSeconds;
        longest = longest(sorted);
    }

    /** Whether it ticks, without decimals, about as often as rows come. */
    private boolean aTickARow() {
        return whole && usual < 1.5 * unit;
    }

    /** @return whether steps of two ticks may be of a rate between the ticks */
    boolean mayLieBetweenTicks() {
        return even && aTickARow();
    }

    /** The samples tell that two ticks at even distances are of rows that were lost, not of a rate between the ticks. */
    void regularAreLost() {
        ticks.regularAreLost();
    }

    /** Whether a step of two ticks of a clock that ticks about once a row is a row that was lost. */
    private boolean lostBetweenTicks(double step, boolean known) {
        int of = (int) Math.min(TickSteps.MOST, Math.rint(step / unit));
        boolean lost = ticks.saw(of) && known;
        if (lost) {
            long before = ticks.takenForSteps();
            mean.takeOut(before * unit);
            for (long i = 0; i < before; i++) {
                losses.uncertainGap(1);
            }
        }
        return lost;
    }

    /** A board that goes on at a lower rate has hardly a step that is not too long: these are what is usual from here on. */
    private void tooLong(double step) {
        longOnes[longOnesNow++] = step;
        if (longOnesNow < OTHER_PACE) {
            return;
        }
        longOnesNow = 0;
        double[] sorted = longOnes.clone();
        Arrays.sort(sorted);
        if (sorted[OTHER_PACE - 1] <= Gap.PERIODS * sorted[OTHER_PACE / 2]
                && sorted[OTHER_PACE / 2] <= Gap.PERIODS * sorted[0]) {
            mean.restart();
            tickSeconds = 0;
            count = 0;
            for (double one : longOnes) {
                mean.add(one, whole ? unit : tickSeconds);
                recent[count++] = one;
            }
            look();
        }
    }

    /** How often a step is another than the one before it. */
    private int changes(double rounding) {
        int first = count > recent.length ? count % recent.length : 0;
        int changes = 0;
        for (int i = 1; i < Math.min(count, recent.length); i++) {
            double apart = recent[(first + i) % recent.length] - recent[(first + i - 1) % recent.length];
            changes += Math.abs(apart) > rounding ? 1 : 0;
        }
        return changes;
    }

    private double tick(double[] sorted) {
        double least = tickSeconds > 0 ? tickSeconds : Double.POSITIVE_INFINITY;
        // Among the first steps there may be gaps, by which no tick is told.
        double most = usual == usual ? 2.5 * usual : Double.POSITIVE_INFINITY;
        for (int i = 1; i < sorted.length && sorted[i] <= most; i++) {
            double apart = sorted[i] - sorted[i - 1];
            least = apart > ROUNDING * sorted[i] ? Math.min(least, apart) : least;
        }
        return least < Double.POSITIVE_INFINITY ? least : 0;
    }

    private double longest(double[] steps) {
        if (aTickARow()) {
            return 2.5 * unit;
        }
        if (Double.isNaN(usual)) {
            // Several rows share each stamp.
            return tickSeconds > 0 ? 2.5 * tickSeconds : Double.NaN;
        }
        int two = 0;
        for (double step : steps) {
            two += Math.abs(step / tickSeconds - 2) < 0.1 ? 1 : 0;
        }
        boolean between = usual < 1.5 * tickSeconds && two >= BETWEEN_TICKS;
        return between ? 2.5 * tickSeconds : Gap.PERIODS * usual;
    }

    /**
     * Whether the board itself paused: rows lost on the way leave a whole number of periods of an even clock, a pause of
     * the board does not.
     */
    private boolean paused(double step) {
        double periods = step / mean.seconds();
        int even = 0;
        for (double one : recent) {
            even += Math.abs(one - usual) < EVEN * usual ? 1 : 0;
        }
        return even * 10 >= recent.length * 9
                && periods < MOST_COUNTED
                && Math.abs(periods - Math.rint(periods)) > OFF_GRID;
    }

    /**
     * The first steps were taken before the period was known: what was a gap among them is counted now.
     *
     * @param numbered whether the rows' numbers have told already what was lost
     */
    private void countEarlyLosses(boolean numbered) {
        for (double step : recent) {
            if (step > longest && usual == usual) {
                if (!numbered) {
                    losses.uncertainGap(Math.round(step / usual) - 1);
                }
                mean.takeOut(step - usual);
            }
        }
    }
}
