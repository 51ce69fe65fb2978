package zesty.signal.engine;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.decode.StreamDecoder;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.text.Messages;

/**
 * Notices that a stream has changed its shape for good: not one line is understood any more, and what comes instead makes
 * rows of another format. Source's thread.
 */
final class NewShape {
    /** Bytes are decoded in pieces no longer than this, so that lines which are not understood are found among them. */
    static final int PIECE = 2048;

    /** So many rejected in a row are no accident. */
    private static final int REJECTS = 24;
    /** Of a slow board fewer have to do, once they were waited for. */
    private static final int FEW_REJECTS = 6;

    private static final long FEW_NANOS = 5_000_000_000L;
    private static final double SURE = 0.8;
    private static final int RECENT = 1 << 16;
    /** More columns than these are not told by name. */
    private static final int NAMED = 8;

    private final byte[] recent = new byte[2 * RECENT];
    private int length;
    private long rejectsBefore;
    private int nextTry = FEW_REJECTS;
    private long sinceNanos;

    /** A format found, the bytes that are of it, and how many rejects of the old one these are. */
    record Found(StreamFormat format, byte[] bytes, long rejects) {}

    /** Looks at what became of bytes just decoded. @param format in force. @return the new format once it is clear */
    Optional<Found> saw(byte[] bytes, int from, int count, StreamDecoder decoder, StreamFormat format, long now) {
        if (length + count > recent.length) {
            System.arraycopy(recent, length - RECENT, recent, 0, RECENT);
            length = RECENT;
        }
        System.arraycopy(bytes, from, recent, length, count);
        length += count;
        long rejects = decoder.rejectedLines().count();
        if (rejects == rejectsBefore) {
            return Optional.empty();
        }
        rejectsBefore = rejects;
        int run = run(decoder);
        if (run < FEW_REJECTS) {
            nextTry = REJECTS;
            sinceNanos = now;
            return Optional.empty();
        }
        if (run < nextTry && (run >= REJECTS || now - sinceNanos < FEW_NANOS)) {
            return Optional.empty();
        }
        // Neither known nor new: it is looked at again when as much has come again.
        nextTry = Math.max(REJECTS, 2 * run);
        byte[] strange = newest(run);
        return Recogniser.recognise(strange, strange.length).stream()
                .filter(one -> one.confidence() >= SURE && one.rows() >= FEW_REJECTS)
                .findFirst()
                .map(one -> adapted(format, one.format()))
                .filter(other -> !other.equals(format))
                .map(other -> new Found(other, strange, run));
    }

    /** @return how many of the newest lines were rejected one after the other */
    private static int run(StreamDecoder decoder) {
        List<RejectedLines.Item> items = decoder.rejectedLines().items();
        long line = decoder.lines();
        int run = 0;
        while (run < items.size() && items.get(items.size() - 1 - run).line() == line - run) {
            run++;
        }
        return run;
    }

    /** @return the newest lines and what has come of the next one; where there are none, all that is at hand */
    private byte[] newest(int lines) {
        int at = length;
        int ends = 0;
        while (at > 0 && ends <= lines) {
            at--;
            ends += recent[at] == '\n' ? 1 : 0;
        }
        return Arrays.copyOfRange(recent, ends > lines ? at + 1 : 0, length);
    }

    /** A field more or less, of lines parted as before, leaves the others what they were. */
    private static StreamFormat adapted(StreamFormat was, StreamFormat found) {
        if (!(was instanceof DelimitedFormat old
                && found instanceof DelimitedFormat fresh
                && old.delimiter() == fresh.delimiter()
                && fresh.header().isEmpty()
                && (old.clock() == null
                        || old.clock().column() < fresh.columns().size()))) {
            return found;
        }
        List<Column> columns = new ArrayList<>();
        Set<String> names = new HashSet<>();
        for (int c = 0; c < fresh.columns().size(); c++) {
            Column column = c < old.columns().size()
                    ? old.columns().get(c)
                    : fresh.columns().get(c);
            String name = column.name();
            for (int n = c + 1; !names.add(name); n++) {
                name = "column" + n;
            }
            columns.add(column.withName(name));
        }
        return new DelimitedFormat(
                fresh.delimiter(), fresh.decimalComma(), fresh.trailingDelimiter(), "", columns, old.clock());
    }

    /** @return what its columns are called, the first of them */
    static String names(StreamFormat format) {
        List<Column> columns = format.columns();
        return columns.stream().limit(NAMED).map(Column::name).collect(Collectors.joining(", "))
                + (columns.size() > NAMED ? Messages.of("engine.and-more", (columns.size() - NAMED)) : "");
    }
}
