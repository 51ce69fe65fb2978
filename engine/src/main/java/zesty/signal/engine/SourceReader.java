package zesty.signal.engine;

import java.util.Arrays;
import java.util.Optional;
import java.util.concurrent.locks.LockSupport;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import zesty.signal.boards.link.Link;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.link.LinkException;
import zesty.signal.core.decode.DelimitedDecoder;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.decode.FormatFinder;
import zesty.signal.core.decode.SetAside;
import zesty.signal.core.decode.Timekeeper;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;

/**
 * The thread of one source: opens the link, reads, recognises the format, decodes and dates. When the link breaks it is
 * opened again after growing pauses, and the silence becomes a gap.
 */
final class SourceReader implements Runnable {
    /** Receives what the source gives, on the source's thread. */
    interface Receiver {
        /** The format is known; blocks of that many columns follow. */
        void format(DelimitedFormat format);

        /** @param arrivalNanos when its last row arrived */
        void block(Block block, double rateHz, long arrivalNanos);
    }

    private static final Logger LOG = LoggerFactory.getLogger(SourceReader.class);
    private static final int BUFFER = 1 << 16;
    /** Blocks are handed on at most this often: small enough for the eye, large enough to be worth it. */
    private static final long HAND_ON_NANOS = 15_000_000;

    private static final int HAND_ON_ROWS = 8192;
    private static final long RECOGNISE_NANOS = 300_000_000;
    /** So many lines tell a format, however soon they came. */
    private static final int RECOGNISE_LINES = 24;

    /** A stream that makes no sense is looked at anew only so often. */
    private static final long TRY_NANOS = 50_000_000;

    private static final long FIRST_PAUSE_NANOS = 250_000_000;
    private static final long LONGEST_PAUSE_NANOS = 4_000_000_000L;
    /** What a file without a clock is read at, unless the rig states a rate. */
    private static final double ASSUMED_RATE_HZ = 100;

    private static final double HELD_SECONDS = 0.4;
    private static final double LOST_SECONDS = 3;

    private final LinkAddress address;
    private final Rig rig;
    private final Receiver receiver;
    private final ByteTail tail = new ByteTail(1 << 16);
    private final SetAside setAside = new SetAside(SetAside.KEPT);
    private final Link link;
    private final Thread thread;
    private volatile boolean stopping;

    private volatile LinkState state = LinkState.CONNECTING;
    private volatile String reason = "";
    private volatile long lastByteNanos;
    private volatile long rows;
    private volatile int reconnects;
    private volatile double bytesPerSecond;
    private volatile double driftPpm = Double.NaN;
    private volatile double rateHz = Double.NaN;
    private volatile long lostRows;
    private volatile long gaps;
    private volatile long overrun;

    private DelimitedDecoder decoder;
    private Timekeeper timekeeper;
    private byte[] unrecognised = new byte[0];
    private long firstByteNanos;
    private long triedNanos;
    private boolean openedBefore;
    private boolean assumedRate;
    private long handedOnNanos;
    private long waitedNanos;
    private double silenceSeconds;
    private long speedNanos;
    private long speedBytes;

    SourceReader(LinkAddress address, Link link, Rig rig, Receiver receiver) {
        this.address = address;
        this.link = link;
        this.rig = rig;
        this.receiver = receiver;
        thread = new Thread(this, "source " + address.text());
        thread.setDaemon(true);
    }

    void start() {
        thread.start();
    }

    /** Ends it. Waits a moment for the thread, but not for a link that hangs. */
    void stop() {
        stopping = true;
        LockSupport.unpark(thread);
        link.close();
        try {
            thread.join(1000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    ByteTail tail() {
        return tail;
    }

    boolean unpaced() {
        return link.unpaced();
    }

    /** Tells of rows that the trail had no room for. Source's thread, from the receiver. */
    void overran(int count) {
        overrun += count;
    }

    /** Any thread. */
    LinkHealth health(long now) {
        LinkState seen = state;
        String why = reason;
        double silence = (now - lastByteNanos) * 1e-9;
        double period = 1 / rateHz;
        if (seen == LinkState.LIVE && silence > Math.max(LOST_SECONDS, 10 * period)) {
            seen = LinkState.LOST;
            why = String.format(java.util.Locale.ROOT, "silent for %.0f s", silence);
        } else if (seen == LinkState.LIVE && silence > Math.max(HELD_SECONDS, 3 * period)) {
            seen = LinkState.HELD;
            why = "nothing came just now";
        } else if (seen == LinkState.WARMING_UP && why.isEmpty()) {
            long came = tail.count();
            why = came == 0 ? "open, no bytes yet" : came + " bytes, no line of numbers yet";
        }
        double speed = silence > 1.5 ? 0 : bytesPerSecond;
        return new LinkHealth(
                seen,
                why,
                tail.count(),
                speed,
                rows,
                setAside.count(),
                lostRows + overrun,
                gaps,
                reconnects,
                driftPpm,
                setAside.items());
    }

    @Override
    public void run() {
        long pause = FIRST_PAUSE_NANOS;
        while (!stopping) {
            try {
                state = state == LinkState.LOST ? LinkState.LOST : LinkState.CONNECTING;
                link.open();
                opened();
                pause = FIRST_PAUSE_NANOS;
                if (readUntilOver()) {
                    return;
                }
            } catch (LinkException e) {
                flush(System.nanoTime());
                link.close();
                if (stopping) {
                    break;
                }
                reason = e.getMessage();
                if (e.hopeless()) {
                    state = LinkState.REFUSED;
                    LOG.info("{}: {}", address.text(), e.getMessage());
                    return;
                }
                state = LinkState.LOST;
                LockSupport.parkNanos(pause);
                pause = Math.min(LONGEST_PAUSE_NANOS, pause * 2);
            }
        }
        link.close();
        state = LinkState.IDLE;
        reason = "";
    }

    private void opened() {
        if (openedBefore) {
            reconnects++;
        }
        openedBefore = true;
        if (decoder != null) {
            decoder.restart(link.joinsMidStream());
            timekeeper.relink();
        }
        reason = "";
        state = decoder == null ? LinkState.WARMING_UP : LinkState.HELD;
    }

    /** @return whether the stream came to its end */
    private boolean readUntilOver() throws LinkException {
        byte[] buffer = new byte[BUFFER];
        while (!stopping) {
            long asked = System.nanoTime();
            int count = link.read(buffer);
            long now = System.nanoTime();
            waitedNanos += now - asked;
            if (count == Link.OVER) {
                if (decoder == null) {
                    recognise(now, true);
                }
                flush(now);
                state = LinkState.OVER;
                reason = decoder == null
                        ? "it ended without a line of numbers"
                        : assumedRate
                                ? "it came to its end; it has no clock, so 100 samples/s were assumed"
                                : "it came to its end";
                link.close();
                return true;
            }
            if (count > 0) {
                received(buffer, count, now);
            }
            measureSpeed(now);
            boolean due = now - handedOnNanos >= HAND_ON_NANOS || count == Link.NOTHING;
            if (decoder != null && decoder.waiting() > 0 && (due || decoder.waiting() >= HAND_ON_ROWS)) {
                flush(now);
            }
        }
        return false;
    }

    private void received(byte[] buffer, int count, long now) {
        tail.append(buffer, count);
        lastByteNanos = now;
        silenceSeconds = Math.max(silenceSeconds, waitedNanos * 1e-9);
        waitedNanos = 0;
        if (decoder == null) {
            if (unrecognised.length == 0) {
                firstByteNanos = now;
            }
            int before = unrecognised.length;
            unrecognised = Arrays.copyOf(unrecognised, before + count);
            System.arraycopy(buffer, 0, unrecognised, before, count);
            recognise(now, false);
            return;
        }
        decoder.feed(buffer, 0, count);
        if (state != LinkState.LIVE && decoder.waiting() > 0) {
            state = LinkState.LIVE;
            reason = "";
        }
    }

    private void recognise(long now, boolean over) {
        int lines = 0;
        for (byte b : unrecognised) {
            lines += b == '\n' ? 1 : 0;
        }
        boolean enough = now - firstByteNanos >= RECOGNISE_NANOS || lines >= RECOGNISE_LINES || over;
        if (!enough || !over && now - triedNanos < TRY_NANOS) {
            return;
        }
        triedNanos = now;
        Optional<DelimitedFormat> found = FormatFinder.find(unrecognised, unrecognised.length);
        if (found.isEmpty()) {
            if (unrecognised.length >= 2 * FormatFinder.LOOK) {
                // Keep looking at what comes, not at what came: a board may start up late.
                unrecognised = Arrays.copyOfRange(unrecognised, unrecognised.length / 2, unrecognised.length);
                reason = "bytes come but no lines of numbers: wrong speed, or a format not known yet";
            }
            return;
        }
        DelimitedFormat format = found.get();
        DelimitedFormat known = rig.format();
        if (known != null
                && known.columns().size() == format.columns().size()
                && known.delimiter() == format.delimiter()) {
            format = known;
        }
        decoder = new DelimitedDecoder(format, setAside);
        decoder.restart(link.joinsMidStream() || FormatFinder.startsMidLine(unrecognised, unrecognised.length, format));
        receiver.format(format);
        decoder.feed(unrecognised, 0, unrecognised.length);
        double seconds = Math.max(1e-3, (now - firstByteNanos) * 1e-9);
        double guess = Math.max(0.1, decoder.waiting() / seconds);
        assumedRate = link.unpaced() && format.clock() == null && Double.isNaN(rig.statedRateHz());
        double stated = assumedRate ? ASSUMED_RATE_HZ : rig.statedRateHz();
        timekeeper = new Timekeeper(format.clock(), stated, guess);
        unrecognised = new byte[0];
        state = LinkState.LIVE;
        reason = "";
        flush(now);
    }

    private void flush(long now) {
        handedOnNanos = now;
        if (decoder == null || decoder.waiting() == 0) {
            return;
        }
        Block block = timekeeper.date(decoder.takeRows(), now * 1e-9, silenceSeconds);
        silenceSeconds = 0;
        rows += block.rows();
        rateHz = timekeeper.nominalRateHz();
        lostRows = timekeeper.lostRows();
        gaps = timekeeper.gapCount();
        driftPpm = link.unpaced() ? Double.NaN : timekeeper.driftPpm();
        receiver.block(block, rateHz, now);
    }

    private void measureSpeed(long now) {
        double elapsed = (now - speedNanos) * 1e-9;
        if (speedNanos == 0 || elapsed > 5) {
            speedNanos = now;
            speedBytes = tail.count();
        } else if (elapsed >= 0.5) {
            double speed = (tail.count() - speedBytes) / elapsed;
            bytesPerSecond = bytesPerSecond == 0 ? speed : 0.5 * (bytesPerSecond + speed);
            speedNanos = now;
            speedBytes = tail.count();
        }
    }
}
