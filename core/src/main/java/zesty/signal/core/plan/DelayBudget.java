package zesty.signal.core.plan;

import zesty.signal.core.clean.BandPass;
import zesty.signal.core.clean.BandStop;
import zesty.signal.core.clean.Envelope;
import zesty.signal.core.clean.LowPass;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.Sections;
import zesty.signal.core.clean.Step;

/** By how much a recipe is late: filters at 0 Hz, band filters in the middle of their band, means by half their length. */
public record DelayBudget(double seconds) {
    /** Where nothing passes the delay is that of a little beside it, in turns a sample. */
    private static final double BESIDE = 1e-5;

    private static final double NOTHING_PASSES = 1e-9;

    public static DelayBudget of(Recipe recipe, double rateHz) {
        double samples = 0;
        for (Step step : recipe.steps()) {
            samples += samples(step, rateHz);
        }
        return new DelayBudget(samples / rateHz);
    }

    private static double samples(Step step, double rateHz) {
        if (step instanceof Envelope envelope) {
            return samples(new LowPass(envelope.hz(), 2), rateHz);
        }
        if (!(step instanceof Step.Filter filter)) {
            return step.delaySamples(rateHz);
        }
        double hz = step instanceof BandPass band
                ? Math.sqrt(band.lowHz() * band.highHz())
                : step instanceof BandStop stop ? Math.sqrt(stop.lowHz() * stop.highHz()) : 0;
        Sections sections = filter.sections(rateHz);
        double turns = hz / rateHz;
        return sections.gain(turns) > NOTHING_PASSES
                ? sections.delaySamples(turns)
                : (sections.delaySamples(turns + BESIDE) + sections.delaySamples(Math.abs(turns - BESIDE))) / 2;
    }
}
