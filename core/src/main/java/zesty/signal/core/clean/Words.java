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
}
