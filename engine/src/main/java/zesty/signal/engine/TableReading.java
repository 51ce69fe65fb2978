package zesty.signal.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.Reading;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.sample.Segments;

/** Reads an answer out of columns of numbers as they are, the way a take is read. */
public final class TableReading {
    private TableReading() {}

    /**
     * @param columns one array a port, aligned; NaN is a missing value
     * @param seconds the time of each row, never falling
     * @throws ReaderException when that cannot be read, saying what would do
     */
    public static Reading of(
            String kind, Map<String, String> settings, double[][] columns, double[] seconds, double rateHz) {
        List<String> names = new ArrayList<>();
        for (int c = 0; c < columns.length; c++) {
            names.add("column " + (c + 1));
        }
        return of(kind, settings, names, columns, seconds, rateHz);
    }

    /** As the other, of columns that have names, each its own. */
    public static Reading of(
            String kind,
            Map<String, String> settings,
            List<String> names,
            double[][] columns,
            double[] seconds,
            double rateHz) {
        List<ChannelChain> chains = new ArrayList<>();
        for (int c = 0; c < columns.length; c++) {
            chains.add(ChannelChain.plain(names.get(c), c, rateHz));
        }
        ReaderRunner reader = new ReaderRunner(new ReaderSetup(kind, names, settings), List.of(), chains);
        List<SegmentRun.Lane> lanes = chains.stream().map(SegmentRun.Lane::of).toList();
        SegmentRun.run(new Segments(rateHz, 0), lanes, List.of(reader), c -> columns[c], seconds);
        reader.finish();
        ReaderSnapshot seen = reader.whole();
        if (seen.reading() == null) {
            throw new ReaderException(seen.trouble());
        }
        return seen.reading();
    }
}
