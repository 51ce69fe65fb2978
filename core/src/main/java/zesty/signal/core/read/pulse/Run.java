package zesty.signal.core.read.pulse;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * What makes the candidates chosen last, before a pulse is believed, believable: all alike, evenly spaced, about equally
 * high, nothing as high between them. The worth of a run is the mean over its beats of Fisher's z of their likeness to
 * the mean of the others (R. A. Fisher 1915), less {@link #INTERVALS} times the logarithm of the longest to the shortest
 * interval and {@link #HEIGHTS} times that of the highest to the lowest beat. The bounds lie above the best that runs of
 * that length reached in some hundred hours of white, pink and brown noise, hum, handling and breathing without a pulse;
 * see docs/MEASURED.md.
 */
final class Run {
    /** A run is not looked at further back than this, in beats. */
    static final int LONGEST = 12;

    /** A run of so many beats must be worth so much. */
    private record Bound(int length, double optical, double electrical) {
        double worth(PulseSource source) {
            return source == PulseSource.OPTICAL ? optical : electrical;
        }
    }

    private static final List<Bound> BOUNDS = List.of(
            new Bound(3, 3.4, 3.6),
            new Bound(4, 2.3, 2.2),
            new Bound(5, 1.95, 1.7),
            new Bound(6, 1.65, 1.45),
            new Bound(8, 1.35, 1.15),
            new Bound(12, 1.05, 0.95));
    /** A run that looks like the beats from before a loss, and is as high, may be short. */
    private static final Bound AGAIN = new Bound(3, 1.3, 1.1);

    private static final double INTERVALS = 3;
    private static final double HEIGHTS = 1;
    /** In a run of so many beats spread in height, or of an uneven heart, is no longer an accident: it counts less. */
    private static final int LONG = 6;

    private static final double LONG_INTERVALS = 2;
    private static final double LONG_HEIGHTS = 0.5;
    private static final double MOST_INTERVALS = 1.7;
    private static final double MOST_HEIGHTS = 2.5;
    static final double SLOWEST_SECONDS = 60.0 / 33;

    /** Of candidates so high, as a share of the lowest beat, there are this many between them at the most, a beat. */
    private static final double INTRUDER = 0.8;

    private static final double INTRUDERS = 0.3;

    private static final double FAST_SECONDS = 0.55;
    private static final double FAST_INTRUDER = 0.5;
    /** And its beats are about equally high. */
    private static final double FAST_HEIGHTS = 1.6;

    /** Of two humps nearly as steep the first is the beat: it comes after the longer pause. */
    private static final double SECOND_HUMP = 0.7;

    private static final double AFTER_PAUSE = 0.53;

    /** A rise that is so much less steep than the fall beside it is the fall of a pulse upside down. */
    private static final double LEAST_UPRIGHT = -0.15;

    /** A run is clearly no pulse upside down: its second humps may be as steep as its first ones … */
    private static final double CLEARLY_UPRIGHT = 0.05;
    /** … and come at one place in the beat, within this share of it. */
    private static final double SAME_PLACE = 0.12;

    static final double HIGHEST_FLOOR = 0.5;
    /** A shape that changes its sign so often is hum that was sampled too slowly. */
    private static final int MOST_TURNS = 5;

    private static final double SMALL_SWING = 0.12;

    /** A run as fast as this may be the humps of a slower one: it is believed only once that could be tried. */
    private static final double HUMPS_SECONDS = 0.45;

    /** From a second hump to the next beat it takes this share of an interval at most. */
    private static final double HUMP_TO_BEAT = 0.8;
    /** And of the later beats more than this share show it, of so many that are looked at. */
    private static final double HUMPS_SHARE = 0.6;

    private static final int FEWEST_AFTER_HUMP = 4;

    /** A likeness nearer to 1 than this is not worth more. */
    private static final double MOST_ALIKE = 0.995;

    /** Finds the candidates between two moments. */
    @FunctionalInterface
    interface Between {
        List<Candidate> of(double from, double to);
    }

    private Run() {}

    /**
     * @param chosen the candidates chosen last, oldest first
     * @param known what beats looked like before a loss; null when none were known
     * @param usual how high they were
     * @return the newest of them that make a run to be believed; empty for none
     */
    static List<Candidate> believable(
            PulseSource source, List<Candidate> chosen, Between between, double[] known, double usual) {
        if (known != null && chosen.size() >= AGAIN.length()) {
            List<Candidate> run = newest(chosen, AGAIN.length());
            boolean asHigh = run.stream().allMatch(c -> c.height() > 0.5 * usual && c.height() < 2 * usual);
            if (asHigh && sound(source, run, between) && worth(source, run, known) >= AGAIN.worth(source)) {
                return run;
            }
        }
        if (source == PulseSource.OPTICAL && chosen.size() > 1) {
            List<Candidate> run = newest(chosen, Math.min(LONGEST, chosen.size()));
            if (chosen.size() >= Humps.LEAST) {
                int fold = Humps.fold(heights(run), meanSeconds(run));
                if (fold > 1) {
                    return worthy(source, Humps.highest(run, fold), between);
                }
            } else if (meanSeconds(run) < HUMPS_SECONDS) {
                return List.of();
            }
        }
        return worthy(source, chosen, between);
    }

    private static List<Candidate> worthy(PulseSource source, List<Candidate> chosen, Between between) {
        for (Bound bound : BOUNDS) {
            if (chosen.size() < bound.length()) {
                break;
            }
            List<Candidate> run = newest(chosen, bound.length());
            if (sound(source, run, between) && worth(source, run, null) >= bound.worth(source)) {
                return run;
            }
        }
        return List.of();
    }

    private static double[] heights(List<Candidate> run) {
        return run.stream().mapToDouble(Candidate::height).toArray();
    }

    private static double meanSeconds(List<Candidate> run) {
        return (run.get(run.size() - 1).seconds() - run.get(0).seconds()) / (run.size() - 1);
    }

    /** @return the run itself, or the first humps between its beats where they turn out to be the second ones */
    static List<Candidate> firstHumps(List<Candidate> run, Between between) {
        List<Candidate> humps = new ArrayList<>();
        for (int i = 1; i < run.size(); i++) {
            Candidate from = run.get(i - 1);
            Candidate to = run.get(i);
            Candidate hump = between.of(from.seconds(), to.seconds()).stream()
                    .max(Comparator.comparingDouble(Candidate::height))
                    .orElse(null);
            boolean first = hump != null
                    && hump.height() > SECOND_HUMP * Math.min(from.height(), to.height())
                    && hump.seconds() - from.seconds() > AFTER_PAUSE * (to.seconds() - from.seconds());
            if (!first) {
                return run;
            }
            humps.add(hump);
        }
        return humps;
    }

    /**
     * Whether the first of them is no beat but the second hump of one that came before the record began: it is soon followed by the
     * next, and before each of the later ones stands a hump as long before it.
     *
     * @param early beats before the run that was believed, {@code run} those of it
     */
    static boolean beginsWithSecondHump(List<Candidate> early, List<Candidate> run, Between between) {
        List<Candidate> all = new ArrayList<>(early);
        all.addAll(run);
        if (all.size() < FEWEST_AFTER_HUMP || run.size() < 3) {
            return false;
        }
        double usual = meanSeconds(all.subList(1, all.size()));
        double before = all.get(1).seconds() - all.get(0).seconds();
        if (before > HUMP_TO_BEAT * usual) {
            return false;
        }
        int humps = 0;
        for (int k = 2; k < all.size(); k++) {
            double at = all.get(k).seconds() - before;
            double from = all.get(k - 1).seconds();
            humps += between.of(from, all.get(k).seconds()).stream()
                            .anyMatch(one -> one.seconds() > from && Math.abs(one.seconds() - at) < SAME_PLACE * usual)
                    ? 1
                    : 0;
        }
        return humps > HUMPS_SHARE * (all.size() - 2);
    }

    private static List<Candidate> newest(List<Candidate> chosen, int length) {
        return chosen.subList(chosen.size() - length, chosen.size());
    }

    /** What no run may lack, however good it is else. */
    private static boolean sound(PulseSource source, List<Candidate> run, Between between) {
        double lowest = Double.MAX_VALUE;
        double highest = 0;
        double upright = 0;
        double floor = 0;
        for (Candidate one : run) {
            lowest = Math.min(lowest, one.height());
            highest = Math.max(highest, one.height());
            upright += one.upright() / run.size();
            floor = Math.max(floor, one.floor());
        }
        double[] gaps = gaps(run);
        double mean = meanSeconds(run);
        // A fast heart has no second hump: what is between its beats says that they are every other wave of something.
        boolean fast = mean < FAST_SECONDS;
        double least = lowest * (fast ? FAST_INTRUDER : INTRUDER);
        return highest <= (fast && source == PulseSource.OPTICAL ? FAST_HEIGHTS : MOST_HEIGHTS) * lowest
                && floor <= HIGHEST_FLOOR
                && (source == PulseSource.ELECTRICAL || upright >= LEAST_UPRIGHT)
                && gaps[1] <= SLOWEST_SECONDS
                && gaps[1] <= MOST_INTERVALS * gaps[0]
                && gaps[0] >= BeatPath.SHORTEST_SECONDS
                && intruders(run, between, least, upright >= CLEARLY_UPRIGHT) <= INTRUDERS * run.size()
                && turns(mean(run)) <= MOST_TURNS;
    }

    /** How many between the beats are as high as {@code least}; those that come at one place each beat are second humps. */
    private static long intruders(List<Candidate> run, Between between, double least, boolean clear) {
        List<Candidate> high = between
                .of(run.get(0).seconds(), run.get(run.size() - 1).seconds())
                .stream()
                .filter(candidate -> candidate.height() > least && !run.contains(candidate))
                .toList();
        return clear && secondHumps(run, high) ? 0 : high.size();
    }

    private static boolean secondHumps(List<Candidate> run, List<Candidate> high) {
        double first = 1;
        double last = 0;
        int at = 0;
        for (Candidate one : high) {
            int before = at;
            while (run.get(at + 1).seconds() < one.seconds()) {
                at++;
            }
            double since = one.seconds() - run.get(at).seconds();
            double phase = since / (run.get(at + 1).seconds() - run.get(at).seconds());
            boolean another = one != high.get(0) && before == at;
            if (another || phase > 1 - AFTER_PAUSE) {
                return false;
            }
            first = Math.min(first, phase);
            last = Math.max(last, phase);
        }
        return last - first < SAME_PLACE;
    }

    /** The shortest and the longest time from beat to beat. */
    private static double[] gaps(List<Candidate> run) {
        double[] gaps = {Double.MAX_VALUE, 0};
        for (int i = 1; i < run.size(); i++) {
            double apart = run.get(i).seconds() - run.get(i - 1).seconds();
            gaps[0] = Math.min(gaps[0], apart);
            gaps[1] = Math.max(gaps[1], apart);
        }
        return gaps;
    }

    /** How often a shape changes its sign, small swings about zero not counted. */
    private static int turns(double[] shape) {
        double least = 0;
        for (double value : shape) {
            least = Math.max(least, SMALL_SWING * Math.abs(value));
        }
        int turns = 0;
        int side = 0;
        for (double value : shape) {
            int now = value > least ? 1 : value < -least ? -1 : side;
            turns += now != side && side != 0 ? 1 : 0;
            side = now;
        }
        return turns;
    }

    /** @param known the shape to be like; null for the mean of the others */
    private static double worth(PulseSource source, List<Candidate> run, double[] known) {
        double[][] shapes = fitted(run);
        double[] sum = sum(shapes);
        double z = 0;
        double lowest = Double.MAX_VALUE;
        double highest = 0;
        for (int k = 0; k < shapes.length; k++) {
            double alike;
            if (known == null) {
                double[] others = sum.clone();
                add(others, shapes[k], -1);
                alike = Candidate.product(shapes[k], Candidate.normalise(others));
            } else {
                alike = run.get(k).likeness(known);
            }
            double bounded = Math.min(MOST_ALIKE, alike);
            z += 0.5 * Math.log((1 + bounded) / (1 - bounded)) / shapes.length;
            lowest = Math.min(lowest, run.get(k).height());
            highest = Math.max(highest, run.get(k).height());
        }
        double[] gaps = gaps(run);
        boolean longer = run.size() >= LONG;
        return z
                - (longer && source == PulseSource.ELECTRICAL ? LONG_INTERVALS : INTERVALS)
                        * Math.log(gaps[1] / gaps[0])
                - (longer ? LONG_HEIGHTS : HEIGHTS) * Math.log(highest / lowest);
    }

    private static double[] sum(double[][] shapes) {
        double[] sum = new double[shapes[0].length];
        for (double[] shape : shapes) {
            add(sum, shape, 1);
        }
        return sum;
    }

    private static void add(double[] sum, double[] shape, int sign) {
        for (int i = 0; i < sum.length; i++) {
            sum[i] += sign * shape[i];
        }
    }

    /** The shapes, each where it fits the newest one best. */
    private static double[][] fitted(List<Candidate> run) {
        double[] newest = run.get(run.size() - 1).shape();
        return run.stream().map(one -> one.fitted(newest)).toArray(double[][]::new);
    }

    /** @return the mean shape of the candidates, mean 0 and length 1 */
    static double[] mean(List<Candidate> run) {
        return Candidate.normalise(sum(fitted(run)));
    }
}
