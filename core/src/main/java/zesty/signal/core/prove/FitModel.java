package zesty.signal.core.prove;

import zesty.signal.core.text.Messages;

/** What is fitted through reference points. */
public enum FitModel {
    /** reference = raw + c0. */
    OFFSET(1, 0, Messages.of("prove.an-offset")),
    /** reference = c1 · raw. */
    RATIO(1, 1, Messages.of("prove.a-ratio")),
    /** reference = c0 + c1 · raw. */
    LINE(2, 1, Messages.of("prove.a-line")),
    QUADRATIC(3, 2, Messages.of("prove.a-curve-of-degree-2")),
    CUBIC(4, 3, Messages.of("prove.a-curve-of-degree-3"));

    private final int free;
    private final int degree;
    private final String words;

    FitModel(int free, int degree, String words) {
        this.free = free;
        this.degree = degree;
        this.words = words;
    }

    /** @return how many coefficients are free, which is how many points it needs at least */
    public int free() {
        return free;
    }

    int degree() {
        return degree;
    }

    public String words() {
        return words;
    }
}
