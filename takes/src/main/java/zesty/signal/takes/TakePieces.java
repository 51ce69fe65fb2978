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

/** Rows and marks of a take, written into another one piece by piece. */
final class TakePieces {
    private TakePieces() {}

    /**
     * @param from begin and {@code to} end of what is copied, in s from the take's first row, both held
     * @param later by how much its times are later in the other take, in s; what lies between the two is a gap there
     */
    static void copy(Take take, int source, double from, double to, double later, TakeWriter writer)
            throws TakeException {
        int first = take.firstColumn(source);
        int columns = 0;
        for (int c = first; c < take.columns().size() && take.sourceOf(c) == source; c++) {
            columns++;
        }
        if (take.pixelsAreColumns(source)) {
            // Of an older take the pixels go where they belong by now.
            columns = Math.min(columns, writer.columns(source).size());
        }
        List<Gap> gaps = take.gaps(source);
        double before = writer.seconds();
        boolean begins = later > 0;
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
                double[] moved = Arrays.copyOfRange(seconds, begin, end);
                for (int i = 0; i < moved.length; i++) {
                    moved[i] += later;
                }
                double period = take.periodSeconds(source, piece);
                TimeBase time = period > 0 ? new TimeBase.Steady(moved[0], period) : new TimeBase.Explicit(moved);
                List<Gap> own = new ArrayList<>();
                if (begins) {
                    own.add(new Gap(before, moved[0], 0));
                    begins = false;
                }
                for (Gap gap : gaps) {
                    boolean within = gap.endSeconds() >= seconds[begin]
                            && gap.endSeconds() <= seconds[end - 1]
                            && gap.startSeconds() >= from;
                    if (within) {
                        own.add(new Gap(gap.startSeconds() + later, gap.endSeconds() + later, gap.missing()));
                    }
                }
                double[][] frames = take.frameSize(source) == null ? null : new double[end - begin][];
                for (int i = 0; frames != null && i < frames.length; i++) {
                    frames[i] = take.frame(source, take.rowOf(source, piece) + begin + i);
                }
                writer.append(source, new Block(time, values, end - begin, own, frames));
            }
        }
        writer.commit();
    }

    /** As {@link #copy}, of its marks and decisions; a span is cut at the ends. */
    static void marks(Take take, double from, double to, double later, TakeWriter writer) throws TakeException {
        for (Decision one : take.decisions()) {
            if (one.seconds() >= from && one.seconds() <= to) {
                writer.decided(one.later(later));
            }
        }
        for (Mark mark : take.marks()) {
            double until = mark.isSpan() ? mark.untilSeconds() : mark.seconds();
            if (until >= from && mark.seconds() <= to) {
                writer.mark(new Mark(
                        later + Math.max(from, mark.seconds()),
                        mark.isSpan() ? later + Math.min(to, until) : Double.NaN,
                        mark.text()));
            }
        }
    }

    /** Takes away what was begun and is not whole. */
    static void remove(Path out) {
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
