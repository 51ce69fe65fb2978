package zesty.signal.core.read;

/**
 * Something that happened at a moment or over a stretch.
 *
 * @param kind one of the words that its reader uses
 * @param startSeconds when, or from when
 * @param endSeconds until when; the start again for a moment
 * @param size in the signal's unit; NaN where it has none
 * @param believed whether the reader takes it for what it looks for
 * @param why why not, or what is special about it; empty when nothing is
 * @param values what more there is to say, as its {@link Item.Events} names it
 */
public record Event(
        String kind,
        double startSeconds,
        double endSeconds,
        double size,
        boolean believed,
        String why,
        double... values) {

    /** @return whether it takes time */
    public boolean lasts() {
        return endSeconds > startSeconds;
    }
}
