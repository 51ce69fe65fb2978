package zesty.signal.core.decode;

import java.util.Map;
import zesty.signal.core.text.Messages;

/** Decodes JSON lines. A path that a line lacks leaves a missing value. */
final class JsonDecoder extends LineDecoder {
    private final JsonFormat format;
    private final double[] row;

    JsonDecoder(JsonFormat format, RejectedLines rejectedLines) {
        super(format.columns().size(), "", rejectedLines);
        this.format = format;
        row = new double[format.columns().size()];
    }

    @Override
    public JsonFormat format() {
        return format;
    }

    @Override
    String accept(String line) {
        try {
            Map<String, Double> numbers = JsonNumbers.of(line);
            boolean any = false;
            for (int c = 0; c < row.length; c++) {
                row[c] = numbers.getOrDefault(format.paths().get(c), Double.NaN);
                any |= !Double.isNaN(row[c]);
            }
            if (!any) {
                return Messages.of("decode.a-json-object-without-any-of", few(format.paths()));
            }
            rows.add(row);
            return null;
        } catch (JsonNumbers.NoObject e) {
            return e.getMessage();
        }
    }
}
