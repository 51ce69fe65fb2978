package zesty.signal.core.clean;

import zesty.signal.core.scale.Digits;

/** How steps are written and what may be said against them. */
final class Words {
    private Words() {}

    static void corner(String step, double hz, double rate) {
        if (!(hz < rate / 2)) {
            throw new RecipeException(step + ": " + Digits.exact(hz) + " Hz is not below half of " + Digits.exact(rate)
                    + " samples/s; it must be below " + Digits.exact(rate / 2) + " Hz");
        }
    }

    /** @return a window of so many samples @throws RecipeException when there is none such, saying what there could be */
    static int window(String step, double samples, double rate, int fewest, int most) {
        if (!(samples >= fewest && samples <= most)) {
            throw new RecipeException(step + ": at " + Digits.exact(rate) + " samples/s it is " + Digits.of(samples)
                    + " samples; " + fewest + " to " + Digits.of(most) + " are possible");
        }
        return (int) samples;
    }
}
