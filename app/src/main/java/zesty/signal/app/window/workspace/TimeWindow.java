package zesty.signal.app.window.workspace;

/** Which stretch of time the lanes show. Follows a live signal until it is moved by hand. */
public final class TimeWindow {
    /** The shortest stretch: a few samples of the fastest boards. */
    private static final double SHORTEST = 0.002;

    private static final double LONGEST = 14 * 24 * 3600.0;

    private double end = 0;
    private double span = 20;
    private boolean following = true;
    private double first = 0;
    private double last = 0;

    /** Tells what there is: from the oldest moment that can be shown to the newest. */
    public void extent(double oldest, double newest) {
        first = oldest;
        last = newest;
        if (following) {
            end = newest;
        }
    }

    /** Shows all there is, and follows no more. */
    public void showAll() {
        following = false;
        span = clampSpan((last - first) * 1.02);
        end = last + 0.01 * (last - first);
    }

    /** Shows what lies between two moments, and follows no more. */
    public void show(double from, double to) {
        following = false;
        span = clampSpan(to - from);
        end = (from + to) / 2 + span / 2;
        keepInside();
    }

    public double from() {
        return end - span;
    }

    public double to() {
        return end;
    }

    public double span() {
        return span;
    }

    public boolean following() {
        return following;
    }

    /** Follows the newest sample, with so many seconds in sight. */
    public void follow(double seconds) {
        span = clampSpan(seconds);
        following = true;
        end = last;
    }

    /** Makes the stretch {@code factor} times as long, keeping the moment at the given share of the width in place. */
    public void zoom(double factor, double share) {
        double anchor = from() + share * span;
        double longer = clampSpan(span * factor);
        if (following) {
            span = longer;
            return;
        }
        span = longer;
        end = anchor + (1 - share) * span;
        keepInside();
    }

    /** Moves by a share of what is in sight; forward past the end of a live signal follows it again. */
    public void scroll(double share, boolean live) {
        end += share * span;
        following = false;
        if (live && end >= last) {
            following = true;
            end = last;
        }
        keepInside();
    }

    /** Moves to the oldest moment. */
    public void toStart() {
        following = false;
        end = first + span;
    }

    /** Moves to the newest moment; a live signal is followed from there. */
    public void toEnd(boolean live) {
        following = live;
        end = last;
    }

    private void keepInside() {
        end = Math.max(first + 0.1 * span, Math.min(last + 0.9 * span, end));
    }

    private static double clampSpan(double seconds) {
        return Math.max(SHORTEST, Math.min(LONGEST, seconds));
    }
}
