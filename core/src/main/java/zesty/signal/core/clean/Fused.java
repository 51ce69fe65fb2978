package zesty.signal.core.clean;

/**
 * A multiplication and an addition in one, where the processor has that; else one after the other, which may differ in the
 * last bit. Without the processor's help the exact one would take a thousand times as long.
 */
final class Fused {
    private static final int ROUNDS = 8;
    private static final int CALLS = 64;
    /** With the processor a call takes some tens of nanoseconds before it is compiled, without it microseconds. */
    private static final long SLOW_NANOS = CALLS * 400L;

    private static final boolean BY_PROCESSOR = quick();

    private Fused() {}

    /** @return a · b + c */
    static double add(double a, double b, double c) {
        return BY_PROCESSOR ? Math.fma(a, b, c) : a * b + c;
    }

    private static boolean quick() {
        long best = Long.MAX_VALUE;
        double sum = 0.1;
        for (int round = 0; round < ROUNDS; round++) {
            long before = System.nanoTime();
            for (int i = 0; i < CALLS; i++) {
                sum = Math.fma(sum, 0.999, 0.001);
            }
            best = Math.min(best, System.nanoTime() - before);
        }
        return sum > 0 && best < SLOW_NANOS;
    }
}
