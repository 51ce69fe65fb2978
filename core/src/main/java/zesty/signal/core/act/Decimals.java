package zesty.signal.core.act;

import java.math.BigDecimal;
import java.math.RoundingMode;

/** Numbers as lines to a board carry them. */
final class Decimals {
    private Decimals() {}

    /** @return with up to three decimals, and none that say nothing */
    static String upToThree(double value) {
        BigDecimal rounded =
                BigDecimal.valueOf(value).setScale(3, RoundingMode.HALF_EVEN).stripTrailingZeros();
        return rounded.signum() == 0 ? "0" : rounded.toPlainString();
    }
}
