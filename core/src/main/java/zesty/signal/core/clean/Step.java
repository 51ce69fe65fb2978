package zesty.signal.core.clean;

import java.util.List;

/** One step of a recipe, as the maker writes it. */
public sealed interface Step
        permits Step.Filter,
                Mean,
                Median,
                Smooth,
                Despike,
                Rectify,
                Rms,
                Envelope,
                Detrend,
                Offset,
                Scale,
                Exponential,
                Differentiate,
                Integrate,
                Timed,
                BaselineRemoval,
                Fill,
                Declipper,
                Hum,
                Wavelet,
                Resample {

    /** @return the step in the words of a recipe, {@code lowpass:8@2} */
    String text();

    /** @return the step in a few words, for its tile */
    String words();

    /** @return the numbers that it is given, in the order that a recipe writes them */
    default List<StepArgument> arguments() {
        return List.of();
    }

    /** @return what it does to a signal, in a sentence that goes on from its name */
    String about();

    /**
     * @return the stage that runs it on a stream
     * @throws RecipeException when it cannot be run at this rate, saying why
     */
    Stage stage(double sampleRateHz, Start start);

    /** Runs the step over a whole record, in place, forward once from rest. */
    default void onceThrough(double[] data, double sampleRateHz) {
        Stage stage = stage(sampleRateHz, Start.FROM_REST);
        if (stage instanceof Centred centred) {
            centred.whole(data);
        } else {
            stage.apply(data, 0, data.length);
        }
    }

    /** Runs the step over a whole record, in place, forward and back where it has a delay to undo. */
    default void bothWays(double[] data, double sampleRateHz) {
        onceThrough(data, sampleRateHz);
    }

    /** @return whether it takes the signal's level off, so that what is left swings about zero */
    default boolean removesLevel() {
        return false;
    }

    /** @return by how many samples it makes the signal late on a stream, as far as that is one number */
    default double delaySamples(double sampleRateHz) {
        return stage(sampleRateHz, Start.SETTLED).delaySamples();
    }

    /**
     * @return how many samples either way have a say in what one becomes, but for less than a part in 10⁸: so many are
     *     enough to work out a part of a long record; {@link Long#MAX_VALUE} when all of it has
     */
    default long context(double sampleRateHz) {
        return stage(sampleRateHz, Start.SETTLED).delaySamples();
    }

    /** A step that is a cascade of sections. */
    sealed interface Filter extends Step permits LowPass, HighPass, BandPass, BandStop, Notch, Comb {
        /** @throws RecipeException when a corner does not fit the rate */
        Sections sections(double sampleRateHz);

        /** @return a frequency that it lets pass, in Hz, to state its delay at */
        double typicalHz();

        @Override
        default double delaySamples(double sampleRateHz) {
            return sections(sampleRateHz).delaySamples(Math.min(0.45, typicalHz() / sampleRateHz));
        }

        @Override
        default Stage stage(double sampleRateHz, Start start) {
            return new SectionFilter(sections(sampleRateHz), start);
        }

        @Override
        default long context(double sampleRateHz) {
            return sections(sampleRateHz).settlingSamples();
        }

        @Override
        default void bothWays(double[] data, double sampleRateHz) {
            Sections sections = sections(sampleRateHz);
            SectionFilter filter = new SectionFilter(sections, Start.SETTLED);
            BothWays.run(data, filter, 3 * (sections.poles() + 1));
        }
    }
}
