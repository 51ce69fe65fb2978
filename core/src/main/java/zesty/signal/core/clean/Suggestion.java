package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.text.Messages;

/**
 * A recipe that usually does for a signal of a kind.
 *
 * @param recipe in words
 * @param reason why, in a sentence
 */
public record Suggestion(String recipe, String reason) {
    /** Those for a quantity that is read as it stands. */
    public static final List<Suggestion> LEVEL = List.of(
            new Suggestion("median:5 | lowpass:1@2", Messages.of("clean.what-changes-slowly-single-jumps")),
            new Suggestion("despike:3@4", Messages.of("clean.single-jumps-go-nothing-else-is")));

    /** @return whether it can be run on a signal of that rate */
    public boolean runsAt(double rateHz) {
        try {
            Recipe.parse(recipe).stage(rateHz, Start.SETTLED);
            return true;
        } catch (RecipeException e) {
            return false;
        }
    }
}
