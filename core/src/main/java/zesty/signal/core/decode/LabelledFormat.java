package zesty.signal.core.decode;

import java.util.List;
import java.util.Set;
import zesty.signal.core.text.Messages;

/**
 * Numbers with their names before them: {@code name: value unit}, {@code name=value}, one or several a line.
 *
 * @param columns a column for each label, called like it, in the order of the stream
 * @param overLines whether a row is spread over several lines, its first label beginning the next one
 * @param decimalComma whether 1,5 is one and a half
 */
public record LabelledFormat(
        List<String> labels, List<Column> columns, boolean overLines, boolean decimalComma, BoardClock clock)
        implements StreamFormat {
    public LabelledFormat {
        labels = List.copyOf(labels);
        columns = Columns.checked(columns, clock);
        if (labels.size() != columns.size() || Set.copyOf(labels).size() != labels.size()) {
            throw new IllegalArgumentException(
                    Messages.of("decode.each-column-needs-a-label-of-its", labels, columns.size()));
        }
    }

    @Override
    public String kind() {
        return "labelled";
    }

    @Override
    public String words() {
        return Messages.of("decode.labelled-text", (overLines ? Messages.of("decode.a-row-over-several-lines") : ""));
    }

    @Override
    public LabelledFormat with(List<Column> others, BoardClock ticking) {
        return new LabelledFormat(labels, others, overLines, decimalComma, ticking);
    }

    @Override
    public StreamDecoder decoder(RejectedLines rejectedLines) {
        return new LabelledDecoder(this, rejectedLines);
    }
}
