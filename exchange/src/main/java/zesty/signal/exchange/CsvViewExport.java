package zesty.signal.exchange;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import zesty.signal.takes.NumberRows;

/** One source as CSV: {@code t} first, then its columns with their units; a missing value is an empty cell. */
public final class CsvViewExport {
    private CsvViewExport() {}

    public static void write(TakeView view, int source, OutputStream out) throws IOException {
        TakeView.Source of = view.sources().get(source);
        List<String> headers = new ArrayList<>(List.of("t"));
        for (TakeView.Column column : of.columns()) {
            // The time has that name already.
            String name = column.name().equals("t") ? "t_board" : column.name();
            headers.add(column.unit().isEmpty() ? name : name + " [" + column.unit() + "]");
        }
        StringWriter first = new StringWriter();
        try (CsvWriter csv = CsvWriter.builder().lineDelimiter(LineDelimiter.LF).build(first)) {
            csv.writeRecord(headers);
        }
        out.write(first.toString().getBytes(StandardCharsets.UTF_8));
        NumberRows rows = new NumberRows(out);
        view.read(source, IntStream.range(0, of.columns().size()).toArray(), (seconds, values) -> {
            for (int row = 0; row < seconds.length; row++) {
                rows.add(seconds[row]);
                for (double[] one : values) {
                    rows.add(one[row]);
                }
                rows.end();
            }
        });
        rows.flush();
    }
}
