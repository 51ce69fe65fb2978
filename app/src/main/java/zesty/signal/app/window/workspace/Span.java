package zesty.signal.app.window.workspace;

/**
 * A stretch of time that is being measured between two moments.
 *
 * @param first one end, in s; NaN while there is none
 * @param second the other end; NaN while it is not chosen yet
 */
public record Span(double first, double second) {
    public static final Span NONE = new Span(Double.NaN, Double.NaN);

    public boolean begun() {
        return first == first;
    }

    public boolean whole() {
        return begun() && second == second;
    }

    public double from() {
        return Math.min(first, second);
    }

    public double to() {
        return Math.max(first, second);
    }

    /** @return with one more moment: the first, then the second, then a new first */
    public Span with(double seconds) {
        return begun() && !whole() ? new Span(first, seconds) : new Span(seconds, Double.NaN);
    }
}
