package zesty.signal.engine;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.decode.PacketFormat;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.decode.TextForm;

/** Gathers a stream's first bytes until they tell its format. The source's thread, unless said otherwise. */
final class FormatSearch {
    /** A stream is looked at for so long at the most before the best guess is taken. */
    private static final long RECOGNISE_NANOS = 5_000_000_000L;
    /** So many rows tell a format, however soon they came. */
    private static final int RECOGNISE_ROWS = 24;
    /** Where they come slowly, fewer have to do, once they were waited for. */
    private static final int FEW_ROWS = 4;

    private static final long FEW_ROWS_NANOS = 900_000_000L;
    /** Packets say nowhere where a number ends: of fewer than so many one in a hundred is parted wrongly. */
    private static final int FEW_PACKETS = 12;

    /** For a recording a slow board's first rows are taken as they are: what is not on disk can be lost. */
    private static final int EAGER_ROWS = 2;

    private static final long EAGER_NANOS = 1_000_000_000L;
    private static final double SURE = 0.6;
    /** The rig's own format is taken where it makes sense of so much: a maker's own word goes before any guess. */
    private static final double OWN_SURE = 0.5;

    private static final int OWN_ROWS = 2;
    private static final int WIDE = 12;
    private static final long WIDE_NANOS = 2_000_000_000L;
    /** Of pictures of so many pixels two tell the format: more of them may be longer than what is looked at. */
    private static final int LARGE_PIXELS = 2048;

    /** So many bytes that make no sense are worth a word. */
    private static final int PUZZLING_BYTES = 4096;

    /** Bytes that make no sense yet are kept for when they do, so many at most. */
    private static final int MOST_KEPT = 8 << 20;
    /** A stream is looked at anew only so often. */
    private static final long TRY_NANOS = 100_000_000;

    /** … and while nothing comes only so often. */
    private static final long IDLE_NANOS = 500_000_000;

    private final StreamFormat own;
    private boolean eager;
    private byte[] gathered = new byte[1 << 12];
    private int length;
    /** What came before makes no sense by itself; it is read all the same once what follows does. */
    private int lookedFrom;
    /** The same as UTF-8 with line feeds. */
    private byte[] plain = new byte[0];

    private TextForm form = TextForm.of(gathered, 0);

    private long firstByteNanos;
    private long triedNanos;
    private boolean guessed;
    private volatile byte[] sample = {};
    private volatile List<Recogniser.Proposal> proposals = List.of();

    /** @param own the format that the rig states; null for none */
    FormatSearch(StreamFormat own) {
        this.own = own;
    }

    /** A slow board's first rows are not waited with; before the first byte. */
    void eager() {
        eager = true;
    }

    /** @return the format, once it is known */
    Optional<StreamFormat> saw(byte[] buffer, int count, long now) {
        if (length == 0) {
            firstByteNanos = now;
        }
        if (length + count > gathered.length) {
            gathered = Arrays.copyOf(gathered, 2 * (length + count));
        }
        System.arraycopy(buffer, 0, gathered, length, count);
        length += count;
        return now - triedNanos < TRY_NANOS ? Optional.empty() : look(now, false);
    }

    /** Nothing came just now: what was not looked at yet, or was too little a moment ago, is looked at again. */
    Optional<StreamFormat> idle(long now) {
        boolean waits = length > 0 && now - firstByteNanos < RECOGNISE_NANOS + 2 * IDLE_NANOS;
        return waits && now - triedNanos >= IDLE_NANOS ? look(now, false) : Optional.empty();
    }

    /** @return the best guess there is, now that no more comes */
    Optional<StreamFormat> last(long now) {
        return length == 0 ? Optional.empty() : look(now, true);
    }

    private Optional<StreamFormat> look(long now, boolean over) {
        triedNanos = now;
        byte[] newest = Arrays.copyOfRange(gathered, lookedFrom, length);
        form = TextForm.of(newest, newest.length);
        plain = form.plain(newest, newest.length);
        Optional<StreamFormat> stated = known();
        guessed = stated.isEmpty();
        Optional<StreamFormat> found = stated.or(() -> guess(now, over));
        if (found.isPresent()) {
            sample = Arrays.copyOf(plain, Math.min(plain.length, Recogniser.LOOK));
            plain = withOlder(plain);
        } else if (newest.length >= Recogniser.LOOK) {
            // Keep looking at what comes, not at what came: a board may start up late.
            lookedFrom += newest.length / 2;
            if (lookedFrom > MOST_KEPT) {
                System.arraycopy(gathered, lookedFrom, gathered, 0, length - lookedFrom);
                length -= lookedFrom;
                lookedFrom = 0;
            }
        }
        return found;
    }

    private byte[] withOlder(byte[] newest) {
        byte[] older = Arrays.copyOf(gathered, lookedFrom);
        older = TextForm.of(older, older.length).plain(older, older.length);
        byte[] all = Arrays.copyOf(older, older.length + newest.length);
        System.arraycopy(newest, 0, all, older.length, newest.length);
        return all;
    }

    private Optional<StreamFormat> known() {
        if (own == null) {
            return Optional.empty();
        }
        Recogniser.Proposal tried = Recogniser.propose(own, plain, plain.length);
        return tried.rows() >= OWN_ROWS && tried.confidence() >= OWN_SURE ? Optional.of(own) : Optional.empty();
    }

    private Optional<StreamFormat> guess(long now, boolean over) {
        long waited = now - firstByteNanos;
        proposals = Recogniser.recognise(plain, plain.length);
        if (proposals.isEmpty()) {
            return Optional.empty();
        }
        Recogniser.Proposal best = proposals.get(0);
        boolean large = best.format() instanceof PictureFormat one
                && !one.perLine()
                && one.rows() * one.width() >= LARGE_PIXELS
                && best.rows() >= 2;
        int fewest = best.format() instanceof PacketFormat packets
                        && packets.header().isEmpty()
                ? FEW_PACKETS
                : 0;
        boolean enough = best.rows() >= RECOGNISE_ROWS
                || large
                || eager && best.rows() >= Math.max(fewest, EAGER_ROWS) && waited >= EAGER_NANOS
                || best.rows() >= Math.max(fewest, FEW_ROWS) && waited >= FEW_ROWS_NANOS
                || waited >= RECOGNISE_NANOS
                || over;
        if (best.format() instanceof DelimitedFormat wide
                && wide.columns().size() >= WIDE
                && wide.header().isEmpty()
                && waited < WIDE_NANOS) {
            // Many numbers a line and no names: it takes some blocks of lines to tell a picture from columns.
            enough = over;
        }
        if (best.format() instanceof PictureFormat picture
                && picture.perLine()
                && waited < WIDE_NANOS
                && length < Recogniser.LOOK / 8 * 7) {
            // It may be a line of a larger picture.
            enough = over;
        }
        boolean sure = best.confidence() >= SURE || waited >= RECOGNISE_NANOS / 2 || over;
        return enough && sure ? Optional.of(best.format()) : Optional.empty();
    }

    /** @return whether much has come that makes no sense */
    boolean puzzled() {
        return length >= PUZZLING_BYTES && proposals.isEmpty();
    }

    /** @return what was gathered, as UTF-8 with line feeds; it is let go */
    byte[] takePlain() {
        byte[] taken = plain;
        plain = new byte[0];
        gathered = new byte[0];
        length = 0;
        lookedFrom = 0;
        return taken;
    }

    /** @return whether the format found is a guess, not what the rig states */
    boolean guessed() {
        return guessed;
    }

    /** @return how the stream's bytes become that */
    TextForm form() {
        return form;
    }

    long firstByteNanos() {
        return firstByteNanos;
    }

    /** Any thread. @return the bytes from which the format was recognised; empty before that */
    byte[] sample() {
        return sample;
    }

    /** Any thread. @return what the recogniser made of them, best first; empty when the rig's own format was taken */
    List<Recogniser.Proposal> proposals() {
        return proposals;
    }
}
