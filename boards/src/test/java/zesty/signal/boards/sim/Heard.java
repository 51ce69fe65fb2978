package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Settings;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.sample.TimeBase;

/** What a board sent in a while: its columns, and its truths after each frame. */
record Heard(double rate, Map<String, double[]> columns, List<Map<String, Double>> truths) {
    double[] of(String column) {
        return columns.get(column);
    }

    double[] truth(String name) {
        return truths.stream().mapToDouble(one -> one.get(name)).toArray();
    }

    static Heard hear(String board, long seed, double seconds, Map<Double, String> orders) {
        SimulatedBoard made = SimulatedBoards.create(board, seed);
        List<double[]> rows = new ArrayList<>();
        List<Map<String, Double>> truths = new ArrayList<>();
        ByteArrayOutputStream ignored = new ByteArrayOutputStream();
        int frames = (int) Math.round(seconds * made.framesPerSecond());
        for (int i = 0; i < frames; i++) {
            double t = i / made.framesPerSecond();
            orders.forEach((at, order) -> {
                if (at >= t && at < t + 1 / made.framesPerSecond()) {
                    made.receive(order);
                }
            });
            made.next(ignored);
            ignored.reset();
            rows.addAll(Arrays.asList(made.newest()));
            truths.add(made.truth());
        }
        Map<String, double[]> columns = new HashMap<>();
        for (int c = 0; c < made.columns().size(); c++) {
            int at = c;
            columns.put(
                    made.columns().get(c).name(),
                    rows.stream().mapToDouble(row -> row[at]).toArray());
        }
        return new Heard(made.rowsPerSecond(), columns, truths);
    }

    static Heard hear(String board, long seed, double seconds) {
        return hear(board, seed, seconds, Map.of());
    }

    static Reading read(String kind, double rate, Map<String, String> set, double[]... ports) {
        ReaderKind known = ReaderKinds.of(kind);
        Reader reader = known.reader(Settings.of(known, set), rate);
        reader.accept(ports, ports[0].length, new TimeBase.Steady(0, 1 / rate));
        reader.finish();
        return reader.reading();
    }
}
