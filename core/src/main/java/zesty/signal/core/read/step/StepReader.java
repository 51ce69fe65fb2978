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
import zesty.signal.core.text.Messages;

/** Finds the steps of the input and fits the answer to each; of several the one of middle gain speaks for all. */
final class StepReader extends Recorded {
    private static final int MOST_POINTS = 3000;
    private static final int MOST_STEPS = 6;
    private static final int FEWEST_POINTS = 8;
    /** The fit has four numbers; of noise alone it takes so much off the squares less than once in a thousand times. */
    private static final double SIGNIFICANT = 14;

    /** What is missing for less than so many periods, or this share of the record, is too short to hide a step. */
    private static final double LONG_PERIODS = 6;

    private static final double LONG_SHARE = 0.005;

    private static final double SECOND_BETTER = 25;
    private static final double SECOND_SHARE = 0.85;

    private final double rateHz;

    /** The change of the response over that of the input, set by hand; NaN where it is sought. */
    private final double heldGain;

    private final StepFit.Held held;

    /** @param gain set by hand, {@code tau} and {@code dead} in s, too; NaN for each that is sought */
    StepReader(double gain, double tau, double dead, double rateHz) {
        super(2);
        this.rateHz = rateHz;
        heldGain = gain;
        held = new StepFit.Held(tau, dead, gain);
    }

    /** @param best root of the mean square that the best fit leaves, where another one was set by hand; NaN else. @param fit the first order, null where nothing came of it. @param second null where it is not clearly better */
    private record Answer(
            double at,
            double change,
            double before,
            double gain,
            StepFit fit,
            StepFit second,
            double residual,
            double best,
            double after) {
        /** @return what fits clearly better: the second order where there is one */
        StepFit better() {
            return second != null ? second : fit;
        }

        boolean settled() {
            return fit != null && after > better().settledSeconds();
        }
    }

    @Override
    protected Reading read(Segment stretch) {
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
        items.add(new Item.Scalar("dead_s", fit == null ? Double.NaN : fit.shownDead()));
        items.add(new Item.Scalar(
                "rise_s", fit == null ? Double.NaN : told.better().riseSeconds()));
        items.add(new Item.Flag("settled", told != null && told.settled()));
        items.add(new Item.Scalar("rms_residual", told == null ? Double.NaN : told.residual()));
        items.add(new Item.Scalar("steps", answers.size()));
        items.add(new Item.Scalar("gain_up", gain(answers, 1)));
        items.add(new Item.Scalar("gain_down", gain(answers, -1)));
        items.add(new Item.Scalar(
                "overshoot_percent",
                fit == null ? Double.NaN : 100 * told.better().overshoot()));
        double[] lags = fit == null ? null : told.better().lags();
        items.add(new Item.Scalar("slow_lag_s", lags == null ? Double.NaN : lags[0]));
        items.add(new Item.Scalar("fast_lag_s", lags == null ? Double.NaN : lags[1]));
        items.add(new Item.Records(
                "each",
                List.of("t_s", "change", "gain", "tau_s", "dead_s"),
                answers.stream()
                        .map(one -> new double[] {
                            one.at(),
                            one.change(),
                            one.gain(),
                            one.fit() == null ? Double.NaN : one.fit().tau(),
                            one.fit() == null ? Double.NaN : one.fit().shownDead()
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

    private List<Answer> answers(Segment stretch) {
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
        for (int[] run : parts(stretch)) {
            List<Integer> steps = InputSteps.of(stretch.ports()[0], run[0], run[1], low, high);
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
                double lead =
                        s == 0 ? Double.NaN : stretch.seconds()[steps.get(s)] - stretch.seconds()[steps.get(s - 1)];
                Answer answer = answer(stretch, from, steps.get(s), to, lead);
                if (answer != null) {
                    answers.add(answer);
                }
            }
        }
        return answers;
    }

    /** The answer has times of its own, so that only what is missing for long parts it. */
    private List<int[]> parts(Segment stretch) {
        double longest = Math.max(LONG_PERIODS / rateHz, LONG_SHARE * stretch.span());
        List<int[]> parts = new ArrayList<>();
        for (int[] run : stretch.runs()) {
            int[] last = parts.isEmpty() ? null : parts.get(parts.size() - 1);
            if (last != null && stretch.seconds()[run[0]] - stretch.seconds()[last[1] - 1] < longest) {
                last[1] = run[1];
            } else {
                parts.add(run.clone());
            }
        }
        return parts;
    }

    private Answer answer(Segment stretch, int from, int at, int to, double lead) {
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
        int n = 0;
        double[] t = new double[(to - from) / every];
        double[] y = new double[t.length];
        double before = 0;
        int early = 0;
        for (int i = 0; i < t.length; i++) {
            int k = from + i * every;
            if (response[k] != response[k]) {
                continue;
            }
            t[n] = stretch.seconds()[k] - stretch.seconds()[at];
            y[n++] = response[k];
            if (k < at) {
                before += response[k];
                early++;
            }
        }
        if (n < FEWEST_POINTS || n == early) {
            return null;
        }
        t = Arrays.copyOf(t, n);
        y = Arrays.copyOf(y, n);
        before = early == 0 ? Double.NaN : before / early;
        double period = every / rateHz;
        double after = t[n - 1];
        StepFit.Data data = new StepFit.Data(t, y, period, lead);
        StepFit first = StepFit.firstOrder(data);
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
                    stretch.seconds()[at],
                    change,
                    before,
                    (then - before) / change,
                    null,
                    null,
                    Math.sqrt(all / n),
                    Double.NaN,
                    after);
        }
        StepFit second = StepFit.secondOrder(data);
        double better = (first.squares() - second.squares()) / (second.squares() / Math.max(1, n - 5) + 1e-300);
        boolean two = better > SECOND_BETTER && second.squares() < SECOND_SHARE * first.squares();
        StepFit fit = two ? second : first;
        double best = Double.NaN;
        if (held.any()) {
            best = Math.sqrt(fit.squares() / n);
            fit = first.held(data, new StepFit.Held(held.tau(), held.dead(), heldGain * change));
            first = fit;
            two = false;
        }
        return new Answer(
                stretch.seconds()[at],
                change,
                fit.base(),
                fit.size() / change,
                first,
                two ? second : null,
                Math.sqrt(fit.squares() / n),
                best,
                after);
    }

    private static Quality quality(Segment stretch, List<Answer> answers, Answer told) {
        if (stretch.length() < FEWEST_POINTS) {
            return new Quality(0, List.of(Messages.of("read.step.too-few-samples", stretch.length())));
        }
        if (told == null) {
            return new Quality(0, List.of(Messages.of("read.step.the-input-does-not-step-switch-it")));
        }
        if (told.fit() == null) {
            return new Quality(0.9, List.of(Messages.of("read.step.no-response-is-the-power-on-and")));
        }
        List<String> reasons = new ArrayList<>();
        double share = 1;
        double left = told.residual() / Math.abs(told.better().size());
        if (told.best() == told.best()) {
            double best = told.best() / Math.abs(told.better().size());
            share = Math.max(0.3, 1 - 2 * left);
            reasons.add(Messages.of(
                    "read.step.set-by-hand-it-leaves-of-the-step",
                    Digits.about(100 * left, 2),
                    Digits.about(100 * best, 2)));
        } else if (left > 0.1) {
            share = Math.max(0.3, 1 - 2 * left);
            reasons.add(Messages.of("read.step.what-the-fit-leaves-is-of-the-step", Digits.fixed(100 * left, 0)));
        }
        if (!told.settled()) {
            share = Math.min(share, 0.4);
            reasons.add(Messages.of(
                    "read.step.it-has-not-settled-record-s-after",
                    Digits.of(Math.ceil(Math.min(1e6, told.better().settledSeconds())))));
        }
        return new Quality(share, reasons);
    }

    private static List<String> working(List<Answer> answers, Answer told) {
        if (told == null) {
            return List.of();
        }
        List<String> words = new ArrayList<>();
        words.add(Messages.of(
                "read.step.the-input-changed-by-the-response",
                Digits.about(told.change(), 4),
                Digits.about(told.gain() * told.change(), 4),
                Digits.about(told.gain(), 4)));
        if (told.fit() != null) {
            words.add(Messages.of(
                    "read.step.first-order-63-of-the-way-after-s",
                    Digits.fixed(told.fit().dead() + told.fit().tau(), 2)));
            double[] lags = told.better().lags();
            if (told.second() != null && lags == null) {
                words.add(Messages.of(
                        "read.step.second-order-damping-it-fits-much",
                        Digits.fixed(told.second().damping(), 2)));
            } else if (lags != null) {
                words.add(Messages.of(
                        "read.step.two-lags-in-a-row-and-s-fit-much",
                        Digits.fixed(lags[0], 1),
                        Digits.fixed(lags[1], 1)));
            }
            words.add(Messages.of(
                    "read.step.switching-faster-than-every-s-it",
                    Digits.fixed(3 * told.fit().tau(), 1)));
        }
        if (answers.size() > 1) {
            words.add(Messages.of("read.step.of-steps-the-one-of-middle-gain", answers.size()));
        }
        return words;
    }
}
