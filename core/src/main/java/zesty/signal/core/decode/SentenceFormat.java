package zesty.signal.core.decode;

import java.util.List;
import java.util.Objects;
import zesty.signal.core.text.Messages;

/**
 * Numbers with fixed words around them, such as {@code locker is at 21.25 C}.
 *
 * @param words the text before the first number, between the numbers, and after the last: one more than there are
 *     columns. Any run of blanks stands for any other
 * @param header a line that is passed over; empty when there is none
 */
public record SentenceFormat(
        List<String> pieces, String header, List<Column> columns, boolean decimalComma, BoardClock clock)
        implements StreamFormat {
    /** What stands for a number in a template. */
    public static final String SLOT = "{}";

    public SentenceFormat {
        Objects.requireNonNull(header, "header");
        pieces = List.copyOf(pieces);
        columns = Columns.checked(columns, clock);
        if (pieces.size() != columns.size() + 1) {
            throw new IllegalArgumentException(
                    Messages.of("decode.a-template-with-numbers-has-one", columns.size(), pieces.size()));
        }
    }

    /** @return the template as a maker writes it, with {} for each number */
    public String template() {
        return String.join(SLOT, pieces);
    }

    @Override
    public String kind() {
        return "sentence";
    }

    @Override
    public String words() {
        return Messages.of("decode.a-sentence", template());
    }

    @Override
    public SentenceFormat with(List<Column> others, BoardClock ticking) {
        return new SentenceFormat(pieces, header, others, decimalComma, ticking);
    }

    @Override
    public StreamDecoder decoder(RejectedLines rejectedLines) {
        return new SentenceDecoder(this, rejectedLines);
    }
}
