package zesty.signal.core.clean;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import zesty.signal.core.text.Messages;

/**
 * Cleaning steps in the order they run. The text form, {@code "bandpass:0.5..8@2 | notch:50@30"}, reads back to an
 * equal recipe.
 */
public record Recipe(List<Step> steps) {
    /** Leaves the signal as it is. */
    public static final Recipe NONE = new Recipe(List.of());

    /** No reader bridges a longer hole than this, in s. */
    public static final double LEAST_HOLE_SECONDS = 0.25;

    private static final double MOST_HOLE_SECONDS = 1;
    /** {@link Step#context} leaves a part in 10⁸. */
    private static final double CONTEXT_DECADES = 8;

    public Recipe {
        steps = List.copyOf(steps);
    }

    /** @throws RecipeException when a step is not understood; the message names it and what would be right */
    public static Recipe parse(String text) {
        if (text.isBlank()) {
            return NONE;
        }
        List<Step> steps = new ArrayList<>();
        for (String part : text.split("\\|", -1)) {
            steps.add(StepParser.parse(part.strip()));
        }
        return new Recipe(steps);
    }

    /** @return one step of each kind that a channel can have, the most wanted first */
    public static List<Step> examples() {
        return StepParser.examples().stream()
                .filter(step -> !(step instanceof Resample))
                .toList();
    }

    public String text() {
        return steps.stream().map(Step::text).collect(Collectors.joining(" | "));
    }

    /**
     * @return the steps as one stage for a stream
     * @throws RecipeException when a step cannot be run at this rate
     */
    public Stage stage(double sampleRateHz, Start start) {
        rateIsSane(sampleRateHz);
        List<Stage> stages = new ArrayList<>();
        for (Step step : steps) {
            stages.add(step.stage(sampleRateHz, start));
        }
        return new Chain(stages);
    }

    /** Runs the recipe over a whole record from rest, in place. */
    public void onceThrough(double[] data, double sampleRateHz) {
        rateIsSane(sampleRateHz);
        for (Step step : steps) {
            step.onceThrough(data, sampleRateHz);
        }
    }

    /** Runs the recipe over a whole record, in place, forward and back where a step would be late. */
    public void bothWays(double[] data, double sampleRateHz) {
        rateIsSane(sampleRateHz);
        for (Step step : steps) {
            step.bothWays(data, sampleRateHz);
        }
    }

    /** @return whether a step takes the signal's level off */
    public boolean removesLevel() {
        return steps.stream().anyMatch(Step::removesLevel);
    }

    /** @return by how many seconds the output of the stream stands behind, as far as that is one number */
    public double delaySeconds(double sampleRateHz) {
        double samples = 0;
        for (Step step : steps) {
            samples += step.delaySamples(sampleRateHz);
        }
        return samples / sampleRateHz;
    }

    /** @return how many samples either way have a say in what one becomes; see {@link Step#context} */
    public long context(double sampleRateHz) {
        long sum = 0;
        for (Step step : steps) {
            long one = step.context(sampleRateHz);
            sum = one > Long.MAX_VALUE - sum ? Long.MAX_VALUE : sum + one;
        }
        return sum;
    }

    /**
     * The longest hole that is filled for the recipe rather than begun anew after: as long as what a step remembers falls to
     * a tenth in, since beginning anew would lose as much, but at least what any reader bridges, and at most a second.
     *
     * @return in s, from the value before the hole to the one after it
     */
    public double longestHoleSeconds(double sampleRateHz) {
        double decade = context(sampleRateHz) / CONTEXT_DECADES / sampleRateHz;
        return Math.max(LEAST_HOLE_SECONDS, Math.min(MOST_HOLE_SECONDS, decade));
    }

    /** @return whether a step of it deals with missing values, so that they are left to it */
    public boolean fillsByItself() {
        return steps.stream().anyMatch(Fill.class::isInstance);
    }

    private static void rateIsSane(double sampleRateHz) {
        if (!(sampleRateHz > 0) || Double.isInfinite(sampleRateHz)) {
            throw new RecipeException(Messages.of("clean.the-rate-must-be-a-number-above-0", sampleRateHz));
        }
    }
}
