package zesty.signal.core.decode;

import java.util.List;
import java.util.Set;
import zesty.signal.core.text.Messages;

/**
 * One JSON object a line.
 *
 * @param paths where each column's number is, such as {@code air.temperature} or {@code axes[0]}
 */
public record JsonFormat(List<String> paths, List<Column> columns, BoardClock clock) implements StreamFormat {
    public JsonFormat {
        paths = List.copyOf(paths);
        columns = Columns.checked(columns, clock);
        if (paths.size() != columns.size() || Set.copyOf(paths).size() != paths.size()) {
            throw new IllegalArgumentException(Messages.of("decode.each-column-needs-a-path-of-its", paths));
        }
    }

    @Override
    public String kind() {
        return "json";
    }

    @Override
    public String words() {
        return Messages.of("decode.one-json-object-a-line");
    }

    @Override
    public JsonFormat with(List<Column> others, BoardClock ticking) {
        return new JsonFormat(paths, others, ticking);
    }

    @Override
    public StreamDecoder decoder(RejectedLines rejectedLines) {
        return new JsonDecoder(this, rejectedLines);
    }
}
