package zesty.signal.core.clean;

import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** How steps are written and what may be said against them. */
final class Words {
    private Words() {}

    static void corner(String step, double hz, double rate) {
        if (!(hz < rate / 2)) {
            throw new RecipeException(Messages.of(
                    "clean.hz-is-not-below-half-of-samples-s",
                    step,
                    Digits.exact(hz),
                    Digits.exact(rate),
                    Digits.exact(rate / 2)));
        }
    }

    /** @return a window of so many samples @throws RecipeException when there is none such, saying what there could be */
    static int window(String step, double samples, double rate, int fewest, int most) {
        if (!(samples >= fewest && samples <= most)) {
            throw new RecipeException(Messages.of(
                    "clean.at-samples-s-it-is-samples-to-are",
                    step,
                    Digits.exact(rate),
                    Digits.of(samples),
                    fewest,
                    Digits.of(most)));
        }
        return (int) samples;
    }
}
