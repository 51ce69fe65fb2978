package zesty.signal.core.clean;

import java.util.List;
import java.util.stream.Stream;

/**
 * A recipe that usually does for a signal of a kind.
 *
 * @param recipe in words
 * @param reason why, in a sentence
 */
public record Suggestion(String recipe, String reason) {
    private static final Suggestion STEADY = new Suggestion(
            "median:5 | lowpass:1@2", "what changes slowly: single jumps go, and what is quicker than a second");

    /**
     * @param reader the kind of the channel's reader; empty for none
     * @return those that can be run at that rate, the best first
     */
    public static List<Suggestion> of(String reader, double rateHz) {
        return Stream.of(all(reader)).filter(one -> runs(one.recipe, rateHz)).toList();
    }

    private static Suggestion[] all(String reader) {
        return switch (reader) {
            case "pulse" ->
                new Suggestion[] {
                    new Suggestion(
                            "bandpass:0.5..8@2", "an optical pulse lies between half a beat and a few harmonics"),
                    new Suggestion(
                            "baseline:0.6 | hum:50@1",
                            "a heart by electrodes: wander and mains go, the beat keeps its shape")
                };
            case "muscle" ->
                new Suggestion[] {
                    new Suggestion(
                            "highpass:20@2 | hum:50@1",
                            "movement lies below 20 Hz, mains is followed; the muscle is what is left"),
                    new Suggestion("highpass:20@2 | envelope:6", "the strength alone, as a line")
                };
            case "vibration", "hits" ->
                new Suggestion[] {new Suggestion("highpass:2@2", "gravity and the drift of the sensor go")};
            case "tone" -> new Suggestion[] {new Suggestion("highpass:60@2", "rumble and the hum of the mains go")};
            case "motion" -> new Suggestion[] {new Suggestion("lowpass:10@2", "what shakes and is no leaning goes")};
            case "wind" -> new Suggestion[0];
            default ->
                new Suggestion[] {STEADY, new Suggestion("despike:3@4", "single jumps go, nothing else is touched")};
        };
    }

    private static boolean runs(String recipe, double rateHz) {
        try {
            Recipe.parse(recipe).stage(rateHz, Start.SETTLED);
            return true;
        } catch (RecipeException e) {
            return false;
        }
    }
}
