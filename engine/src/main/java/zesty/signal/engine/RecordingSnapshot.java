package zesty.signal.engine;

import java.nio.file.Path;
import java.util.List;

/**
 * How the recording is doing.
 *
 * @param file the take, or the last one recorded; null before the first
 * @param seconds and rows recorded so far
 * @param lostRows rows that could not be written because the disk was too slow
 * @param bytes the file takes now
 * @param freeBytes left on its disk; −1 when unknown
 * @param share of the limit reached, 0 … 1; NaN without a limit
 * @param problem why it stopped by itself, in words; empty when it did not
 * @param waitsFor what it waits for to begin, in words; empty where it has begun
 * @param made the takes it has completed, of those that begin and end on cue
 */
public record RecordingSnapshot(
        boolean running,
        Path file,
        double seconds,
        long rows,
        long lostRows,
        long bytes,
        long freeBytes,
        double share,
        String problem,
        String waitsFor,
        List<Made> made) {
    public static final RecordingSnapshot NONE =
            new RecordingSnapshot(false, null, 0, 0, 0, 0, -1, Double.NaN, "", "", List.of());

    /** A take that is whole. */
    public record Made(Path file, long rows, double seconds) {}
}
