package zesty.signal.core.read.kinds;

import java.util.Arrays;
import java.util.Map;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Settings;
import zesty.signal.core.sample.TimeBase;

/** Asks a reader of a whole signal. */
final class Asked {
    private Asked() {}

    static Reading of(String kind, double rate, Map<String, String> settings, double[]... ports) {
        ReaderKind known = ReaderKinds.of(kind);
        Reader reader = known.reader(Settings.of(known, settings), rate);
        int n = ports[0].length;
        for (int at = 0; at < n; at += 777) {
            int from = at;
            int length = Math.min(777, n - at);
            double[][] part = Arrays.stream(ports)
                    .map(port -> Arrays.copyOfRange(port, from, from + length))
                    .toArray(double[][]::new);
            reader.accept(part, length, new TimeBase.Steady(at / rate, 1 / rate));
        }
        reader.finish();
        return reader.reading();
    }

    /** Of samples that came at these times, whatever the rate. */
    static Reading at(String kind, double rate, double[] seconds, double[]... ports) {
        ReaderKind known = ReaderKinds.of(kind);
        Reader reader = known.reader(Settings.of(known, Map.of()), rate);
        reader.accept(ports, seconds.length, new TimeBase.Explicit(seconds));
        reader.finish();
        return reader.reading();
    }

    static Reading of(String kind, double rate, double[]... ports) {
        return of(kind, rate, Map.of(), ports);
    }
}
