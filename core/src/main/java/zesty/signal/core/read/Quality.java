package zesty.signal.core.read;

import java.util.List;
import zesty.signal.core.text.Messages;

/**
 * How far to trust a reading.
 *
 * @param share 0 (not at all) to 1 (as good as it gets)
 * @param reasons in words, the most harmful first; empty when there is nothing to say
 */
public record Quality(double share, List<String> reasons) {
    /** How many segments a whole slice has. */
    public static final int SEGMENTS = 8;

    public Quality {
        if (!(share >= 0 && share <= 1)) {
            throw new IllegalArgumentException(Messages.of("read.share-must-be-0-1-was", share));
        }
        reasons = List.copyOf(reasons);
    }

    /** @return 0 to 8 */
    public int segments() {
        return (int) Math.round(share * SEGMENTS);
    }
}
