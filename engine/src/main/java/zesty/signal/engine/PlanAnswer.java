package zesty.signal.engine;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import zesty.signal.core.act.Flicker;
import zesty.signal.core.act.LoopProposal;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reading;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** What a plan of steps tells: gain, dead time and time constant of what answered, what it proposes for holding a value, and what went wrong by name. */
public final class PlanAnswer {
    private static final int FEWEST_ROWS = 20;
    /** What moved before the first step by more than this share of all it moved was still warming up. */
    private static final double DRIFT_SHARE = 0.15;

    private PlanAnswer() {}

    /**
     * Long: not on the window's thread.
     *
     * @param plan that is over
     * @param unit of what was watched
     * @param heats whether the output heats, so that what it heats cannot become colder by it
     * @return in sentences, one a line
     */
    public static String of(ActSnapshot.PlanNow plan, String unit, boolean heats) {
        if (plan.seconds().length < FEWEST_ROWS) {
            return Messages.of("engine.too-little-came-to-tell-anything");
        }
        double rate = SampleRate.of(plan.seconds());
        Reading reading =
                TableReading.of("step", Map.of(), new double[][] {plan.input(), plan.response()}, plan.seconds(), rate);
        List<String> words = new ArrayList<>();
        double gain = reading.scalar("gain");
        double tau = reading.scalar("tau_s");
        double dead = reading.scalar("dead_s");
        double drift = drift(plan);
        if (drift > DRIFT_SHARE) {
            words.add(Messages.of("engine.it-was-still-drifting-before-the"));
        }
        if (Double.isNaN(tau)) {
            words.add(
                    reading.quality().reasons().isEmpty()
                            ? Messages.of("engine.no-step-to-read")
                            : sentence(reading.quality().reasons().get(0)));
            return String.join("\n", words);
        }
        if (heats && gain < 0) {
            words.add(Messages.of("engine.it-cools-while-it-is-to-heat-are"));
        }
        words.add(Messages.of("engine.gain-for-one-more", amount(gain, unit), spread(reading, 2)));
        words.add(Messages.of("engine.dead-time-s", Digits.about(dead, 3), spread(reading, 4)));
        words.add(Messages.of("engine.time-constant-s", Digits.about(tau, 3), spread(reading, 3)));
        if (!reading.quality().reasons().isEmpty()) {
            words.add(sentence(reading.quality().reasons().get(0)));
        }
        words.addAll(proposal(plan, new LoopProposal(gain, tau, dead), reading.scalar("baseline"), unit, rate));
        return String.join("\n", words);
    }

    private static String amount(double value, String unit) {
        String number = Digits.about(value, 3);
        return unit.isEmpty() ? number : number + " " + unit;
    }

    private static String sentence(String words) {
        return Character.toUpperCase(words.charAt(0)) + words.substring(1) + ".";
    }

    /** The standard uncertainty of the mean over the steps, where there are several. */
    private static String spread(Reading reading, int column) {
        for (Item item : reading.items()) {
            if (item instanceof Item.Records records && records.key().equals("each")) {
                double[] all = records.records().stream()
                        .mapToDouble(one -> one[column])
                        .filter(Double::isFinite)
                        .toArray();
                if (all.length > 1) {
                    double mean = Arrays.stream(all).average().orElse(0);
                    double squares =
                            Arrays.stream(all).map(v -> (v - mean) * (v - mean)).sum();
                    return " \u00b1 " + Digits.about(Math.sqrt(squares / (all.length - 1) / all.length), 2);
                }
            }
        }
        return "";
    }

    private static double drift(ActSnapshot.PlanNow plan) {
        int first = 0;
        while (first < plan.input().length && plan.input()[first] == plan.input()[0]) {
            first++;
        }
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (double value : plan.response()) {
            low = Math.min(low, value);
            high = Math.max(high, value);
        }
        int n = Math.min(first, plan.response().length);
        int tenth = Math.max(1, n / 10);
        return first == plan.input().length || n < FEWEST_ROWS / 2 || high == low
                ? 0
                : Math.abs(mean(plan.response(), n - tenth, n) - mean(plan.response(), 0, tenth)) / (high - low);
    }

    private static double mean(double[] x, int from, int to) {
        double sum = 0;
        for (int i = from; i < to; i++) {
            sum += x[i];
        }
        return sum / (to - from);
    }

    private static List<String> proposal(
            ActSnapshot.PlanNow plan, LoopProposal loop, double base, String unit, double rate) {
        double highest = 0;
        for (double one : plan.input()) {
            highest = Math.max(highest, one);
        }
        double hysteresis = Flicker.hysteresis(plan.response(), rate);
        double wanted = base + loop.gain() * highest / 2;
        LoopProposal.OnOff onOff = loop.onOff(base, wanted, highest, hysteresis);
        List<String> said = new ArrayList<>();
        said.add(Messages.of(
                "engine.on-and-off-around-expected-to",
                amount(wanted, unit),
                Digits.about(hysteresis / 2, 2),
                amount(onOff.swing(), unit),
                (Double.isNaN(onOff.periodSeconds())
                        ? "."
                        : Messages.of("engine.every-s", Digits.fixed(onOff.periodSeconds(), 0)))));
        for (LoopProposal.Terms terms : loop.both()) {
            said.add(Messages.of(
                    "engine.control-p-i-s-expected-beyond",
                    (terms.temper() == LoopProposal.Temper.QUICK
                            ? Messages.of("engine.quick")
                            : Messages.of("engine.calm")),
                    Digits.about(terms.proportional(), 3),
                    Digits.about(terms.integralSeconds(), 3),
                    Digits.fixed(100 * terms.overshoot(), 0),
                    (Double.isNaN(terms.settledSeconds())
                            ? Messages.of("engine.never-settled")
                            : Messages.of("engine.settled-after-s", Digits.fixed(terms.settledSeconds(), 0)))));
        }
        return said;
    }
}
