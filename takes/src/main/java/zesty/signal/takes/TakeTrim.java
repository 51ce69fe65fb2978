package zesty.signal.takes;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Digits;

/** A part of a take as a take of its own; the one it is taken from stays as it is. */
public final class TakeTrim {
    private TakeTrim() {}

    /**
     * @param from begin and {@code to} end of the part, in s from the take's first row, both held
     * @param out must not exist
     * @return rows of all sources
     * @throws TakeException when no row lies between, or it cannot be written; nothing is left behind then
     */
    public static long write(Take take, double from, double to, Path out) throws TakeException {
        String title = take.title() + ", part";
        boolean done = false;
        long rows;
        TakeWriter writer =
                TakeWriter.create(out, title, take.rigOrPlain(), take.started().plusNanos(Math.round(from * 1e9)));
        try (writer) {
            for (int source = 0; source < take.sources(); source++) {
                source(take, source, from, to, writer);
            }
            rows = writer.rows();
            if (rows == 0) {
                throw new TakeException("no row of " + take.file() + " lies from " + Digits.fixed(from, 3) + " to "
                        + Digits.fixed(to, 3) + " s");
            }
            for (Mark mark : take.marks()) {
                if (mark.seconds() >= from && mark.seconds() <= to) {
                    writer.mark(mark.seconds(), mark.text());
                }
            }
            writer.finish();
            done = true;
        } finally {
            if (!done) {
                remove(out);
            }
        }
        String of = "Cut out of \"" + take.title() + "\", from " + Digits.fixed(from, 3) + " to " + Digits.fixed(to, 3)
                + " s.";
        try (Take made = Take.open(out)) {
            made.write(new LogEntry(
                    null, take.notes().isEmpty() ? of : take.notes() + "\n" + of, take.tags(), List.of(), List.of()));
        }
        return rows;
    }

    private static void source(Take take, int source, double from, double to, TakeWriter writer) throws TakeException {
        int first = take.firstColumn(source);
        int columns = 0;
        for (int c = first; c < take.columns().size() && take.sourceOf(c) == source; c++) {
            columns++;
        }
        List<Gap> gaps = take.gaps(source);
        for (int piece = 0; piece < take.pieces(source); piece++) {
            double[] seconds = take.times(source, piece);
            int begin = 0;
            while (begin < seconds.length && seconds[begin] < from) {
                begin++;
            }
            int end = begin;
            while (end < seconds.length && seconds[end] <= to) {
                end++;
            }
            if (end > begin) {
                double[][] values = new double[columns][];
                for (int c = 0; c < columns; c++) {
                    values[c] = Arrays.copyOfRange(take.values(first + c, piece), begin, end);
                }
                double period = take.periodSeconds(source, piece);
                TimeBase time = period > 0
                        ? new TimeBase.Steady(seconds[begin], period)
                        : new TimeBase.Explicit(Arrays.copyOfRange(seconds, begin, end));
                double start = seconds[begin];
                double last = seconds[end - 1];
                List<Gap> own = new ArrayList<>(gaps);
                own.removeIf(gap -> gap.endSeconds() < start || gap.endSeconds() > last || gap.startSeconds() < from);
                writer.append(source, new Block(time, values, end - begin, own));
            }
        }
        writer.commit();
    }

    private static void remove(Path out) {
        for (String tail : List.of("", "-wal", "-shm")) {
            try {
                Files.deleteIfExists(out.resolveSibling(out.getFileName() + tail));
            } catch (IOException e) {
                // It is told that the part could not be made; what is left of it says the same when it is opened.
                return;
            }
        }
    }
}
