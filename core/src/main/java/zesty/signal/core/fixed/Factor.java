package zesty.signal.core.fixed;

import zesty.signal.core.text.Messages;

/**
 * A number that whole numbers are multiplied by: {@code mantissa} · 2^−{@code shift}.
 *
 * @param mantissa 31 bits, sign apart, so that no precision is given away; 0 for nothing
 * @param shift 17 to 78: the product of 46 bits and 31 does not fit 64, so 16 bits of it are dropped on the way
 */
public record Factor(int mantissa, int shift) {
    static final int LEAST_SHIFT = 17;
    private static final int MOST_SHIFT = 78;

    /** @throws FixedException when the number is not finite, or 2^14 and more */
    public static Factor of(double number) {
        if (!Double.isFinite(number)) {
            throw new FixedException(Messages.of("fixed.is-no-number-to-multiply-by", number));
        }
        if (number == 0) {
            return new Factor(0, LEAST_SHIFT);
        }
        int shift = 30 - Math.getExponent(number);
        long mantissa = Math.round(Math.scalb(number, shift));
        if (Math.abs(mantissa) > Integer.MAX_VALUE) {
            shift--;
            mantissa = Math.round(Math.scalb(number, shift));
        }
        if (shift < LEAST_SHIFT) {
            throw new FixedException(Messages.of("fixed.is-too-large-a-step-for-whole", number));
        }
        return shift > MOST_SHIFT ? new Factor(0, LEAST_SHIFT) : new Factor((int) mantissa, shift);
    }

    /** @param value below 2^47 in size. @return the product, rounded to the nearest, halves away from 0 */
    public long times(long value) {
        long u = Math.abs(value);
        long m = Math.abs((long) mantissa);
        long product = (u >>> 16) * m + ((u & 0xFFFF) * m >>> 16);
        int rest = shift - 16;
        product = product + (1L << (rest - 1)) >>> rest;
        return value < 0 == mantissa < 0 ? product : -product;
    }
}
