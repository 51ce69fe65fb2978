package zesty.signal.exchange.foreign;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.function.DoublePredicate;
import java.util.stream.IntStream;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Columns;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.decode.Role;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.text.Messages;
import zesty.signal.exchange.TakeView;
import zesty.signal.takes.DiskWords;
import zesty.signal.takes.Mark;
import zesty.signal.takes.TakeException;
import zesty.signal.takes.TakeWriter;

/** Makes a take of a file from elsewhere. A take that could not be finished is not left behind. */
public final class TakeImport {
    private static final int ROWS = 1 << 14;
    /** Steps that differ by less than this share of the period are steady ones. */
    private static final double STEADY = 1e-6;

    private TakeImport() {}

    /**
     * @param from where it came from, for the rig
     * @param started when it began
     * @param rateHz rows a second; NaN to go by the file's own times
     * @return rows of all sources
     * @throws TakeException when it cannot be read or written
     */
    public static long write(ForeignFile view, Path out, String title, String from, Instant started, double rateHz)
            throws TakeException {
        return write(view, out, title, from, started, rateHz, share -> true);
    }

    /**
     * As the other, with progress.
     *
     * @param goOn hears how far it is, 0 … 1, and says whether to go on
     * @throws CancellationException when it said no; nothing is left behind then
     */
    public static long write(
            ForeignFile view, Path out, String title, String from, Instant started, double rateHz, DoublePredicate goOn)
            throws TakeException {
        Rig rig = rig(view, title, from);
        boolean done = false;
        TakeWriter writer = TakeWriter.create(out, title, rig, started);
        try (writer) {
            for (int s = 0; s < view.sources().size(); s++) {
                source(view, s, rateHz, writer, goOn);
            }
            for (Mark mark : view.marks()) {
                writer.mark(mark);
            }
            writer.finish();
            done = true;
            return writer.rows();
        } catch (TakeException e) {
            throw e;
        } catch (IOException e) {
            throw new TakeException(Messages.of("foreign.cannot-be-read-2", from, DiskWords.of(e)), e);
        } finally {
            if (!done) {
                remove(out);
            }
        }
    }

    private static void remove(Path out) {
        for (String tail : List.of("", "-wal", "-shm")) {
            try {
                Files.deleteIfExists(out.resolveSibling(out.getFileName() + tail));
            } catch (IOException e) {
                // It is told that the import failed; the file says the same when it is opened.
            }
        }
    }

    private static Rig rig(ForeignFile view, String title, String from) {
        List<Source> sources = new ArrayList<>();
        for (TakeView.Source one : view.sources()) {
            List<String> names = Columns.distinct(
                    one.columns().stream().map(TakeView.Column::name).toList());
            List<Column> columns = new ArrayList<>();
            for (int c = 0; c < names.size(); c++) {
                columns.add(new Column(names.get(c), one.columns().get(c).unit(), Role.VALUE, true));
            }
            sources.add(new Source(
                    one.name(),
                    SourceSetup.at("file:" + from),
                    new DelimitedFormat(',', false, false, "", columns, null)));
        }
        Rig rig = new Rig(title, sources, List.of(), List.of(), List.of(), Set.of());
        for (int s = 0; s < sources.size(); s++) {
            rig = rig.fittedTo(s, sources.get(s).format());
        }
        return rig;
    }

    private static void source(ForeignFile view, int source, double rateHz, TakeWriter writer, DoublePredicate goOn)
            throws IOException {
        List<TakeView.Source> sources = view.sources();
        int[] all = IntStream.range(0, sources.get(source).columns().size()).toArray();
        double rate = rateHz > 0 ? rateHz : sources.get(source).rateHz();
        double total =
                Math.max(1, sources.stream().mapToLong(TakeView.Source::rows).sum());
        double[] before = {Double.NaN};
        long[] row = {0};
        view.read(source, all, (seconds, values) -> {
            for (int from = 0; from < seconds.length; from += ROWS) {
                int to = Math.min(seconds.length, from + ROWS);
                double[] times = Arrays.copyOfRange(seconds, from, to);
                if (rateHz > 0) {
                    long first = row[0];
                    Arrays.setAll(times, i -> (first + i) / rateHz);
                }
                row[0] += times.length;
                int begin = from;
                double[][] part = to - from == seconds.length
                        ? values
                        : Arrays.stream(values)
                                .map(one -> Arrays.copyOfRange(one, begin, to))
                                .toArray(double[][]::new);
                List<Gap> gaps = Gap.between(before[0], times, rate);
                writer.append(source, new Block(base(times, rate), part, times.length, gaps));
                before[0] = times[times.length - 1];
            }
            writer.commit();
            if (!goOn.test(Math.min(1, writer.rows() / total))) {
                throw new CancellationException(Messages.of("foreign.import-given-up"));
            }
        });
    }

    /** Steady times take no room in the take. */
    private static TimeBase base(double[] times, double rateHz) {
        double period = 1 / rateHz;
        for (int i = 1; i < times.length; i++) {
            if (!(Math.abs(times[i] - times[0] - i * period) < STEADY * period)) {
                return new TimeBase.Explicit(times);
            }
        }
        return new TimeBase.Steady(times[0], period);
    }
}
