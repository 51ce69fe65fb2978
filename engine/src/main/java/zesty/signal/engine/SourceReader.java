package zesty.signal.engine;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import zesty.signal.boards.link.Link;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.link.LinkException;
import zesty.signal.core.decode.ArrivalClockFit;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFinder;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.decode.StreamDecoder;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.decode.TextForm;
import zesty.signal.core.decode.Timestamper;
import zesty.signal.core.rig.Source;
import zesty.signal.core.sample.Block;

/**
 * The thread of one source: opens the link, reads, recognises the format, decodes and dates. When the link breaks it is
 * opened again after growing pauses, and the silence becomes a gap.
 */
final class SourceReader implements Runnable {
    /** Receives what the source gives, on the source's thread. */
    interface Receiver {
        /** The format is known; blocks of that many columns follow. */
        void format(StreamFormat format);

        /** @param arrivalNanos when its last row arrived */
        void block(Block block, double rateHz, long arrivalNanos);

        /** Words of the stream are numbers in its rows: what they stand for, told anew when there is a new one. */
        void words(String legend);

        /** The stream came to its end: no block follows. */
        void over();
    }

    private static final Logger LOG = LoggerFactory.getLogger(SourceReader.class);
    private static final int BUFFER = 1 << 16;
    /** Blocks are handed on at most this often: small enough for the eye, large enough to be worth it. */
    private static final long HAND_ON_NANOS = 15_000_000;

    private static final int HAND_ON_ROWS = 8192;
    /** A stream is looked at for so long at the most before the best guess is taken. */
    private static final long RECOGNISE_NANOS = 5_000_000_000L;
    /** So many rows tell a format, however soon they came. */
    private static final int RECOGNISE_ROWS = 24;
    /** Where they come slowly, fewer have to do, once they were waited for. */
    private static final int FEW_ROWS = 4;

    private static final long FEW_ROWS_NANOS = 900_000_000L;
    /** For a recording a slow board's first rows are taken as they are: what is not on disk can be lost. */
    private static final int EAGER_ROWS = 2;

    private static final long EAGER_NANOS = 1_000_000_000L;
    /** Slower than this a board's rows are not kept waiting until their rate is known well. */
    private static final double SLOW_HZ = 2.2;
    /** While a rate is measured no more rows than these wait: what comes so fast has told enough. */
    private static final int MOST_WAITING = 100_000;

    private static final double SURE = 0.6;
    private static final int WIDE = 12;
    private static final long WIDE_NANOS = 2_000_000_000L;
    /** So many bytes that make no sense are worth a word. */
    private static final int PUZZLING_BYTES = 4096;

    /** A stream is looked at anew only so often. */
    private static final long TRY_NANOS = 100_000_000;

    private static final long FIRST_PAUSE_NANOS = 250_000_000;
    private static final long LONGEST_PAUSE_NANOS = 4_000_000_000L;
    /** What a file without a clock is read at, unless the rig states a rate. */
    private static final double ASSUMED_RATE_HZ = 100;

    private static final long STOP_MS = 1000;
    private static final long STOP_AT_WORK_MS = 15_000;

    /** More columns than these are not told by name. */
    private static final int NAMED = 8;

    private static final double HELD_SECONDS = 0.4;
    private static final double LOST_SECONDS = 3;

    private final LinkAddress address;
    private final Source source;
    private final Receiver receiver;
    private final ByteTail tail = new ByteTail(1 << 20);
    private final RejectedLines rejectedLines = new RejectedLines(RejectedLines.KEPT);
    private final Link link;
    private final Thread thread;
    private volatile boolean stopping;
    private volatile boolean inLink;

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
    private volatile long wrongStamps;
    private volatile long lateRows;
    private volatile long overrun;
    private volatile double jitterSeconds;
    private volatile double rateUncertainty;
    private volatile double arrivalPeriod = Double.NaN;
    private volatile byte[] sample = {};
    private volatile List<Recogniser.Proposal> proposals = List.of();
    private final SentLog sent = new SentLog();
    private volatile StreamFormat ordered;
    private boolean linkBroke;
    private final NewShape newShape = new NewShape();
    private volatile String changed = "";
    private volatile String legend = "";

    private ArrivalClockFit arrivals;
    private StreamDecoder decoder;
    private Timestamper timestamper;
    private byte[] unrecognised = new byte[0];
    /** The same as UTF-8 with line feeds. */
    private byte[] plain = new byte[0];

    private TextForm form = TextForm.of(unrecognised, 0);
    private long firstByteNanos;
    private long triedNanos;
    private boolean openedBefore;
    private boolean assumedRate;
    private boolean eager;
    private boolean atEnd;
    private long handedOnNanos;
    private long waitedNanos;
    private double silenceSeconds;
    private long speedNanos;
    private long speedBytes;

    SourceReader(LinkAddress address, Link link, Source source, Receiver receiver) {
        this.address = address;
        this.link = link;
        this.source = source;
        this.receiver = receiver;
        rejectedLines.passOver(source.setup().passOver());
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
            thread.join(STOP_MS);
            if (!inLink) {
                // It is not the link that hangs: what it has at hand is on its way to the disk.
                thread.join(STOP_AT_WORK_MS);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    ByteTail tail() {
        return tail;
    }

    /** Any thread. @return what numbers of its rows stand for that are words in the stream; empty for none */
    String legend() {
        return legend;
    }

    /** Any thread. @return seconds from row to row as arrival has told by now; NaN where something else tells */
    double arrivalPeriodSeconds() {
        return arrivalPeriod;
    }

    boolean unpaced() {
        return link.unpaced();
    }

    /** @return whether it may be made to wait without losing anything */
    boolean holdsUp() {
        return link.holdsUp();
    }

    boolean listens() {
        return link.listens();
    }

    /** Rows are handed on as soon as can be, also before their rate is known well; before {@link #start()}. */
    void eager() {
        eager = true;
    }

    /** @return the bytes from which the format was recognised; empty before that */
    byte[] sample() {
        return sample;
    }

    /** @return what the recogniser made of them, best first; empty when the rig's own format was taken */
    List<Recogniser.Proposal> proposals() {
        return proposals;
    }

    /** Any thread. Waits for the link. @throws LinkException when it takes none */
    void send(String line, LineEnding ending) throws LinkException {
        // Known before it goes out: a quick board's answer may be read before this thread comes back.
        SentLine mine = sent.sent(line, System.nanoTime());
        try {
            link.write((line + ending.text()).getBytes(StandardCharsets.UTF_8));
        } catch (LinkException e) {
            sent.forget(mine);
            throw e;
        }
    }

    List<SentLine> sent() {
        return sent.lines();
    }

    /** Takes the shapes of lines to pass over into force. Any thread. */
    void passOver(List<String> shapes) {
        rejectedLines.passOver(shapes);
    }

    /** Reads the stream with another format from the next bytes on. Any thread. */
    void reformat(StreamFormat format) {
        ordered = format;
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
            why = "no new data";
        } else if (seen == LinkState.LIVE && why.isEmpty()) {
            why = changed.isEmpty() && !legend.isEmpty() ? "words as numbers: " + legend : changed;
        } else if (seen == LinkState.WARMING_UP && why.isEmpty()) {
            long came = tail.count();
            why = came == 0 ? silence() : soFar(came);
        }
        double speed = silence > 1.5 ? 0 : bytesPerSecond;
        return new LinkHealth(
                seen,
                why,
                tail.count(),
                speed,
                rows,
                rejectedLines.count(),
                lostRows + overrun,
                gaps,
                wrongStamps,
                lateRows,
                link.turnedAway(),
                reconnects,
                driftPpm,
                jitterSeconds,
                rateUncertainty,
                Double.NaN,
                rejectedLines.items());
    }

    private String silence() {
        return link.listens() ? "waiting to be called, no bytes yet" : "open, no bytes yet";
    }

    private String soFar(long came) {
        List<Recogniser.Proposal> seen = proposals;
        int rowsSeen = seen.isEmpty() ? 0 : seen.get(0).rows();
        return came + " bytes, "
                + (rowsSeen == 0
                        ? "no line of numbers yet"
                        : rowsSeen + (rowsSeen == 1 ? " row" : " rows")
                                + " so far, waiting for more to tell its format");
    }

    @Override
    public void run() {
        try {
            work();
        } catch (Throwable fault) {
            // Whatever it is: what is at hand is handed on if it can be, and who waits for this source must hear of it.
            atEnd = true;
            handOn();
            LOG.error("{}: reading ended", address.text(), fault);
            reason = address.words() + ": " + Faults.words(fault);
            state = LinkState.REFUSED;
        }
    }

    private void handOn() {
        try {
            complete(System.nanoTime());
        } catch (Throwable again) {
            LOG.error("{}: what was at hand is lost", address.text(), again);
        }
    }

    private void work() {
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
                inLink = false;
                linkBroke = true;
                flush(System.nanoTime());
                linkBroke = false;
                if (stopping || !link.listens()) {
                    link.close();
                }
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
        complete(System.nanoTime());
        state = LinkState.IDLE;
        reason = "";
    }

    /** It is to end: what has come is handed on, recognised or not yet dated as it may be. */
    private void complete(long now) {
        if (decoder == null && unrecognised.length > 0) {
            recognise(now, true);
        }
        flush(now);
    }

    private void opened() {
        if (openedBefore) {
            reconnects++;
        }
        openedBefore = true;
        if (decoder != null) {
            decoder.restart(link.joinsMidStream());
            if (timestamper != null) {
                timestamper.relink();
            }
        }
        reason = "";
        state = decoder == null ? LinkState.WARMING_UP : LinkState.HELD;
    }

    /** @return whether the stream came to its end */
    private boolean readUntilOver() throws LinkException {
        byte[] buffer = new byte[BUFFER];
        while (!stopping) {
            long asked = System.nanoTime();
            inLink = true;
            int count = link.read(buffer);
            inLink = false;
            long now = System.nanoTime();
            waitedNanos += now - asked;
            if (count == Link.OVER) {
                if (decoder == null) {
                    recognise(now, true);
                }
                atEnd = true;
                flush(now);
                receiver.over();
                // Who sees that it is over may rely on all rows having been handed on.
                String said = decoder == null
                        ? "it ended without a line of numbers"
                        : assumedRate ? "it has ended; " + LinkHealth.ASSUMED : "it has ended";
                reason = changed.isEmpty() ? said : changed + "; " + said;
                state = LinkState.OVER;
                link.close();
                return true;
            }
            if (count > 0) {
                received(buffer, count, now);
            }
            measureSpeed(now);
            boolean due = timestamper == null || now - handedOnNanos >= HAND_ON_NANOS || count == Link.NOTHING;
            if (decoder != null && decoder.waiting() > 0 && (due || decoder.waiting() >= HAND_ON_ROWS)) {
                flush(now);
            }
        }
        return false;
    }

    private void received(byte[] buffer, int count, long now) {
        tail.append(buffer, count, now);
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
        StreamFormat other = ordered;
        if (other != null) {
            ordered = null;
            switchTo(other, now);
        }
        long asideBefore = rejectedLines.count();
        byte[] plain = form.isAsItIs() ? buffer : form.plain(buffer, count);
        decode(plain, form.isAsItIs() ? count : plain.length, now);
        tellWords();
        if (rejectedLines.count() > asideBefore && sent.waits(now)) {
            List<RejectedLines.Item> items = rejectedLines.items();
            int fresh = (int) Math.min(items.size(), rejectedLines.count() - asideBefore);
            for (RejectedLines.Item item : items.subList(items.size() - fresh, items.size())) {
                sent.said(item.text(), now);
            }
        }
        if (state != LinkState.LIVE && decoder.waiting() > 0 && timestamper != null) {
            state = LinkState.LIVE;
            reason = "";
        }
    }

    private void decode(byte[] bytes, int count, long now) {
        for (int at = 0; at < count; at += NewShape.PIECE) {
            int n = Math.min(NewShape.PIECE, count - at);
            decoder.feed(bytes, at, n);
            newShape.saw(bytes, at, n, decoder, now).ifPresent(found -> reshape(found, now));
        }
    }

    /** Tells of words that became numbers. */
    private void tellWords() {
        String now = form.legend();
        if (!now.equals(legend)) {
            legend = now;
            receiver.words(now);
        }
    }

    private void recognise(long now, boolean over) {
        if (!over && now - triedNanos < TRY_NANOS) {
            return;
        }
        triedNanos = now;
        form = TextForm.of(unrecognised, unrecognised.length);
        plain = form.plain(unrecognised, unrecognised.length);
        Optional<StreamFormat> found = known().or(() -> guess(now, over));
        if (found.isEmpty()) {
            if (unrecognised.length >= PUZZLING_BYTES && proposals.isEmpty()) {
                reason = "bytes come but make no sense: a wrong speed, or a format not known yet";
            }
            if (unrecognised.length >= Recogniser.LOOK) {
                // Keep looking at what comes, not at what came: a board may start up late.
                unrecognised = Arrays.copyOfRange(unrecognised, unrecognised.length / 2, unrecognised.length);
            }
            return;
        }
        begin(found.get(), now);
    }

    /** @return the rig's own format, where it makes sense of the bytes; a maker's own word goes before any guess */
    private Optional<StreamFormat> known() {
        if (source.format() == null) {
            return Optional.empty();
        }
        Recogniser.Proposal tried = Recogniser.propose(source.format(), plain, plain.length);
        return tried.rows() >= 2 && tried.confidence() >= 0.5 ? Optional.of(source.format()) : Optional.empty();
    }

    private Optional<StreamFormat> guess(long now, boolean over) {
        long waited = now - firstByteNanos;
        proposals = Recogniser.recognise(plain, plain.length);
        if (proposals.isEmpty()) {
            return Optional.empty();
        }
        Recogniser.Proposal best = proposals.get(0);
        boolean enough = best.rows() >= RECOGNISE_ROWS
                || eager && best.rows() >= EAGER_ROWS && waited >= EAGER_NANOS
                || best.rows() >= FEW_ROWS && waited >= FEW_ROWS_NANOS
                || waited >= RECOGNISE_NANOS
                || over;
        if (best.format() instanceof DelimitedFormat wide
                && wide.columns().size() >= WIDE
                && wide.header().isEmpty()
                && waited < WIDE_NANOS) {
            // Many numbers a line and no names: it takes some blocks of lines to tell a picture from columns.
            enough = over;
        }
        boolean sure = best.confidence() >= SURE || waited >= RECOGNISE_NANOS / 2 || over;
        return enough && sure ? Optional.of(best.format()) : Optional.empty();
    }

    private void begin(StreamFormat format, long now) {
        sample = Arrays.copyOf(plain, Math.min(plain.length, Recogniser.LOOK));
        decoder = format.decoder(rejectedLines);
        decoder.restart(link.joinsMidStream()
                || format instanceof DelimitedFormat delimited
                        && DelimitedFinder.startsMidLine(plain, plain.length, delimited));
        receiver.format(format);
        tellWords();
        decoder.feed(plain, 0, plain.length);
        plain = new byte[0];
        assumedRate = link.unpaced()
                && format.clock() == null
                && Double.isNaN(source.setup().statedRateHz());
        arrivals = new ArrivalClockFit();
        unrecognised = new byte[0];
        reason = "";
        flush(now);
    }

    /** Where neither a clock nor the maker tells the rate, arrival does, once there was enough of it. */
    private boolean rateKnown(long now) {
        if (timestamper != null) {
            return true;
        }
        StreamFormat format = decoder.format();
        double stated = assumedRate ? ASSUMED_RATE_HZ : source.setup().statedRateHz();
        boolean told = format.clock() != null || !Double.isNaN(stated) || link.unpaced();
        arrivals.saw(decoder.waiting(), now * 1e-9);
        boolean ending = atEnd || linkBroke || stopping;
        double since = (now - firstByteNanos) * 1e-9;
        boolean slow = eager && decoder.waiting() > 1 && decoder.waiting() < SLOW_HZ * since;
        boolean flood = decoder.waiting() > MOST_WAITING;
        if (!told && !slow && !flood && !arrivals.enough() && !arrivals.quiet(now * 1e-9) && !ending) {
            reason = "measuring the rate";
            return false;
        }
        reason = "";
        double byArrival = slow || flood && Double.isNaN(arrivals.periodSeconds())
                ? (decoder.waiting() - 1) / ((lastByteNanos - firstByteNanos) * 1e-9)
                : 1 / arrivals.periodSeconds();
        timestamper = new Timestamper(
                format.clock(),
                format.sequence(),
                stated,
                byArrival > 0 ? Timestamper.nominal(byArrival, arrivals.uncertainty()) : ASSUMED_RATE_HZ);
        timestamper.goOn(arrivals);
        state = LinkState.LIVE;
        return true;
    }

    private void flush(long now) {
        handedOnNanos = now;
        if (decoder != null && decoder.waiting() > 0 && rateKnown(now)) {
            handOn(timestamper.date(decoder.takeRows(), now * 1e-9, silenceSeconds), now);
            silenceSeconds = 0;
        }
        if (timestamper != null && timestamper.holds() && (atEnd || linkBroke || stopping)) {
            handOn(timestamper.rest(), now);
        }
    }

    private void handOn(Block block, long now) {
        rows += block.rows();
        rateHz = timestamper.nominalRateHz();
        lostRows = timestamper.lostRows();
        gaps = timestamper.gapCount();
        wrongStamps = timestamper.wrongStamps();
        lateRows = timestamper.lateRows();
        driftPpm = link.unpaced() ? Double.NaN : timestamper.driftPpm();
        jitterSeconds = timestamper.jitterSeconds();
        rateUncertainty = timestamper.rateUncertainty();
        arrivalPeriod = link.unpaced() ? Double.NaN : timestamper.arrivalPeriodSeconds();
        if (block.rows() > 0) {
            receiver.block(block, rateHz, now);
        }
    }

    private void switchTo(StreamFormat format, long now) {
        flush(now);
        decoder = format.decoder(rejectedLines);
        decoder.restart(true);
        double rate = rateHz > 0 ? rateHz : ASSUMED_RATE_HZ;
        timestamper = new Timestamper(
                format.clock(), format.sequence(), source.setup().statedRateHz(), rate);
        receiver.format(format);
    }

    /** The stream goes on in another shape; what came of it already is read with it. */
    private void reshape(NewShape.Found found, long now) {
        StreamFormat was = decoder.format();
        flush(now);
        rejectedLines.takeBack(found.rejects());
        Timestamper goesOn = timestamper;
        switchTo(found.format(), now);
        if (Objects.equals(was.clock(), found.format().clock())
                && Objects.equals(was.sequence(), found.format().sequence())) {
            timestamper = goesOn;
        }
        changed = LinkHealth.CHANGED + ": now " + names(found.format()) + "; before " + names(was);
        LOG.info("{}: {}", address.text(), changed);
        decoder.restart(false);
        decoder.feed(found.bytes(), 0, found.bytes().length);
    }

    private static String names(StreamFormat format) {
        List<Column> columns = format.columns();
        return columns.stream().limit(NAMED).map(Column::name).collect(Collectors.joining(", "))
                + (columns.size() > NAMED ? " and " + (columns.size() - NAMED) + " more" : "");
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
