package zesty.signal.core.read.step;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Recorded;
import zesty.signal.core.sample.Order;
import zesty.signal.core.scale.Digits;

/** Finds the steps of the input and fits the answer to each; of several the one of middle gain speaks for all. */
final class StepReader extends Recorded {
    private static final int MOST_POINTS = 3000;
    private static final int MOST_STEPS = 6;
    private static final int FEWEST_POINTS = 8;
    /** The fit has four numbers; of noise alone it takes so much off the squares less than once in a thousand times. */
    private static final double SIGNIFICANT = 14;

    private static final double SECOND_BETTER = 25;
    private static final double SECOND_SHARE = 0.85;

    private final double rateHz;

    StepReader(double rateHz) {
        super(2);
        this.rateHz = rateHz;
    }

    /** @param fit null where nothing came of it */
    private record Answer(
            double at, double change, double before, double gain, StepFit fit, double residual, double after) {
        boolean settled() {
            return fit != null && after > fit.settledSeconds();
        }
    }

    @Override
    protected Reading read(Stretch stretch) {
        List<Answer> answers = answers(stretch);
        Answer told = answers.stream()
                .sorted(Comparator.comparingDouble(Answer::gain))
                .skip(answers.size() / 2)
                .findFirst()
                .orElse(null);
        List<Item> items = new ArrayList<>();
        StepFit fit = told == null ? null : told.fit();
        items.add(new Item.Scalar("baseline", told == null ? Double.NaN : told.before()));
        items.add(new Item.Scalar("gain", told == null ? Double.NaN : told.gain()));
        items.add(new Item.Scalar("tau_s", fit == null ? Double.NaN : fit.tau()));
        items.add(new Item.Scalar("dead_s", fit == null ? Double.NaN : fit.dead()));
        items.add(new Item.Scalar("rise_s", fit == null ? Double.NaN : fit.riseSeconds()));
        items.add(new Item.Flag("settled", told != null && told.settled()));
        items.add(new Item.Scalar("rms_residual", told == null ? Double.NaN : told.residual()));
        items.add(new Item.Scalar("steps", answers.size()));
        items.add(new Item.Scalar("gain_up", gain(answers, 1)));
        items.add(new Item.Scalar("gain_down", gain(answers, -1)));
        items.add(new Item.Scalar("overshoot_percent", fit == null ? Double.NaN : 100 * fit.overshoot()));
        items.add(new Item.Records(
                "each",
                List.of("t_s", "change", "gain", "tau_s", "dead_s"),
                answers.stream()
                        .map(one -> new double[] {
                            one.at(),
                            one.change(),
                            one.gain(),
                            one.fit() == null ? Double.NaN : one.fit().tau(),
                            one.fit() == null ? Double.NaN : one.fit().dead()
                        })
                        .toList()));
        return new Reading(quality(stretch, answers, told), items, working(answers, told));
    }

    /** The middle gain of the steps up, or of those down; NaN without any. */
    private static double gain(List<Answer> answers, int way) {
        double[] gains = answers.stream()
                .filter(one -> way * one.change() > 0)
                .mapToDouble(Answer::gain)
                .toArray();
        return gains.length == 0 ? Double.NaN : Order.median(gains);
    }

    private List<Answer> answers(Stretch stretch) {
        double[] drive = stretch.present(0);
        List<Answer> answers = new ArrayList<>();
        if (drive.length < FEWEST_POINTS) {
            return answers;
        }
        double low = Arrays.stream(drive).min().orElse(0);
        double high = Arrays.stream(drive).max().orElse(0);
        if (!(high > low)) {
            return answers;
        }
        double middle = (low + high) / 2;
        for (int[] run : stretch.runs()) {
            List<Integer> steps = new ArrayList<>();
            for (int i = run[0] + 1; i < run[1]; i++) {
                boolean was = stretch.ports()[0][i - 1] >= middle;
                boolean is = stretch.ports()[0][i] >= middle;
                if (was != is) {
                    steps.add(i);
                }
            }
            // Of very many changes those that were left alone longest tell most.
            List<Integer> told = IntStream.range(0, steps.size())
                    .boxed()
                    .sorted(Comparator.comparingInt(
                            s -> steps.get(s) - (s + 1 < steps.size() ? steps.get(s + 1) : run[1])))
                    .limit(MOST_STEPS)
                    .sorted()
                    .toList();
            for (int s : told) {
                int from = s == 0 ? run[0] : (steps.get(s - 1) + steps.get(s)) / 2;
                int to = s + 1 < steps.size() ? steps.get(s + 1) : run[1];
                Answer answer = answer(stretch, from, steps.get(s), to);
                if (answer != null) {
                    answers.add(answer);
                }
            }
        }
        return answers;
    }

    private Answer answer(Stretch stretch, int from, int at, int to) {
        if (at - from < 2 || to - at < FEWEST_POINTS) {
            return null;
        }
        double[] drive = stretch.ports()[0];
        double[] response = stretch.ports()[1];
        double change =
                Order.median(Arrays.copyOfRange(drive, at, to)) - Order.median(Arrays.copyOfRange(drive, from, at));
        if (change == 0) {
            return null;
        }
        int every = Math.max(1, (to - from) / MOST_POINTS);
        int n = (to - from) / every;
        double[] t = new double[n];
        double[] y = new double[n];
        double before = 0;
        int early = 0;
        for (int i = 0; i < n; i++) {
            int k = from + i * every;
            t[i] = stretch.seconds()[k] - stretch.seconds()[at];
            y[i] = response[k];
            if (k < at) {
                before += response[k];
                early++;
            }
        }
        before = early == 0 ? Double.NaN : before / early;
        double period = every / rateHz;
        double after = t[n - 1];
        StepFit first = StepFit.firstOrder(t, y, period);
        double mean = Arrays.stream(y).average().orElse(0);
        double all = Arrays.stream(y).map(v -> (v - mean) * (v - mean)).sum();
        double noise = first.squares() / Math.max(1, n - 4);
        boolean answered = all > 0
                && (all - first.squares()) / 3 > SIGNIFICANT * noise
                && Math.abs(first.size()) * Math.abs(first.size())
                        > SIGNIFICANT * noise * 2 / Math.min(early, n - early);
        if (!answered) {
            double then = Arrays.stream(y, Math.min(n - 1, early), n).average().orElse(Double.NaN);
            return new Answer(
                    stretch.seconds()[at], change, before, (then - before) / change, null, Math.sqrt(all / n), after);
        }
        StepFit second = StepFit.secondOrder(t, y, period);
        double better = (first.squares() - second.squares()) / (second.squares() / Math.max(1, n - 5) + 1e-300);
        boolean two = better > SECOND_BETTER && second.squares() < SECOND_SHARE * first.squares();
        StepFit fit = two ? second : first;
        return new Answer(
                stretch.seconds()[at],
                change,
                fit.base(),
                fit.size() / change,
                fit,
                Math.sqrt(fit.squares() / n),
                after);
    }

    private static Quality quality(Stretch stretch, List<Answer> answers, Answer told) {
        if (stretch.length() < FEWEST_POINTS) {
            return new Quality(0, List.of("too few samples: " + stretch.length()));
        }
        if (told == null) {
            return new Quality(0, List.of("the input does not step: switch it, and leave it for a while"));
        }
        if (told.fit() == null) {
            return new Quality(0.9, List.of("no response: is the power on, and the sensor at the right place?"));
        }
        if (!told.settled()) {
            return new Quality(
                    0.4,
                    List.of("it has not settled: record "
                            + Digits.of(Math.ceil(Math.min(1e6, told.fit().settledSeconds())))
                            + " s after the step for a gain to rely on"));
        }
        double share = told.residual() / Math.abs(told.fit().size());
        return share > 0.1
                ? new Quality(
                        Math.max(0.3, 1 - 2 * share),
                        List.of("what the fit leaves is " + Digits.fixed(100 * share, 0)
                                + " % of the step: noise, or another cause"))
                : new Quality(1, List.of());
    }

    private static List<String> working(List<Answer> answers, Answer told) {
        if (told == null) {
            return List.of();
        }
        List<String> words = new ArrayList<>();
        words.add("The input changed by " + Digits.about(told.change(), 4) + ", the response by "
                + Digits.about(told.gain() * told.change(), 4) + ": gain " + Digits.about(told.gain(), 4) + ".");
        if (told.fit() != null) {
            words.add(
                    told.fit().oscillates()
                            ? "Second order, damping " + Digits.fixed(told.fit().damping(), 2)
                                    + ": it fits much better than a first order."
                            : "First order: 63 % of the way after "
                                    + Digits.fixed(
                                            told.fit().dead() + told.fit().tau(), 2) + " s.");
            words.add("Switching faster than every "
                    + Digits.fixed(3 * told.fit().tau(), 1) + " s it will not follow all the way.");
        }
        if (answers.size() > 1) {
            words.add("Of " + answers.size() + " steps the one of middle gain.");
        }
        return words;
    }
}
