package zesty.signal.engine;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.concurrent.locks.LockSupport;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import zesty.signal.boards.link.Link;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.link.LinkException;
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
import zesty.signal.core.text.Messages;

/**
 * The thread of one source: opens the link, reads, recognises the format, decodes and dates. When the link breaks it is
 * opened again after growing pauses, and the silence becomes a gap.
 *
 * <p>Longer than others: the life of a link from opening to end, which is one story, with its parts in classes of their own.
 */
final class SourceReader implements Runnable {
    private static final Logger LOG = LoggerFactory.getLogger(SourceReader.class);
    private static final int BUFFER = 1 << 16;
    /** Blocks are handed on at most this often: small enough for the eye, large enough to be worth it. */
    private static final long HAND_ON_NANOS = 15_000_000;

    private static final int HAND_ON_ROWS = 8192;
    private static final long FIRST_PAUSE_NANOS = 250_000_000;
    private static final long LONGEST_PAUSE_NANOS = 4_000_000_000L;
    private static final long STOP_MS = 1000;
    private static final long STOP_AT_WORK_MS = 15_000;

    private final LinkAddress address;
    private final RowReceiver receiver;
    private final ByteTail tail = new ByteTail(1 << 20);
    private final RejectedLines rejectedLines = new RejectedLines(RejectedLines.KEPT);
    private final Link link;
    private final Thread thread;
    private volatile boolean stopping;
    private volatile boolean inLink;

    private final LinkMeter meter;
    private final FormatSearch search;
    private final RowDating dating;
    private final SentLog sent = new SentLog();
    private final NewShape newShape = new NewShape();
    private volatile StreamFormat ordered;
    private StreamDecoder decoder;
    private boolean linkBroke;
    private volatile boolean openedBefore;
    private boolean atEnd;
    private long handedOnNanos;
    private long waitedNanos;
    private double silenceSeconds;

    SourceReader(LinkAddress address, Link link, Source source, RowReceiver receiver) {
        this.address = address;
        this.link = link;
        this.receiver = receiver;
        meter = new LinkMeter(link, tail, rejectedLines);
        search = new FormatSearch(source.format());
        dating = new RowDating(source.setup().statedRateHz(), link.unpaced());
        rejectedLines.passOver(source.setup().passOver());
        thread = new Thread(this, "source " + address.text());
        thread.setDaemon(true);
    }

    void start() {
        thread.start();
    }

    /** Any thread. @return what a station of its stream is called; empty for its number */
    String stationName(double station) {
        return link.stationName(station);
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
        return meter.legend();
    }

    /** Any thread. @return seconds from row to row as arrival has told by now; NaN where something else tells */
    double arrivalPeriodSeconds() {
        return meter.arrivalPeriodSeconds();
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
        search.eager();
        dating.eager();
    }

    /** @return the bytes from which the format was recognised; empty before that */
    byte[] sample() {
        return search.sample();
    }

    /** @return what the recogniser made of them, best first; empty when the rig's own format was taken */
    List<Recogniser.Proposal> proposals() {
        return search.proposals();
    }

    /** A watchdog is to hold the link too: one that is open already is opened anew for it. Any thread. */
    void share() {
        if (link.share() && openedBefore) {
            link.close();
        }
    }

    /** Any thread. @return how often it was opened anew */
    int reconnects() {
        return meter.reconnects();
    }

    /** Any thread. Waits for the link. @return the line as it went out. @throws LinkException when it takes none */
    SentLine send(String line, LineEnding ending) throws LinkException {
        // Known before it goes out: a quick board's answer may be read before this thread comes back.
        SentLine mine = sent.sent(line, System.nanoTime());
        try {
            link.write((line + ending.text()).getBytes(StandardCharsets.UTF_8));
        } catch (LinkException e) {
            sent.forget(mine);
            throw e;
        }
        return mine;
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
        meter.overran(count);
    }

    /** Any thread. */
    LinkHealth health(long now) {
        return meter.health(now, search.proposals());
    }

    @Override
    public void run() {
        try {
            work();
        } catch (Throwable fault) {
            // Whatever it is: what is at hand is handed on if it can be, and who waits for this source must hear of it.
            atEnd = true;
            try {
                complete(System.nanoTime());
            } catch (Throwable again) {
                LOG.error("{}: what was at hand is lost", address.text(), again);
            }
            LOG.error("{}: reading ended", address.text(), fault);
            meter.is(LinkState.REFUSED, address.words() + ": " + Faults.words(fault));
        }
    }

    private void work() {
        long pause = FIRST_PAUSE_NANOS;
        while (!stopping) {
            try {
                if (meter.state() != LinkState.LOST) {
                    meter.is(LinkState.CONNECTING, "");
                }
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
                if (stopping) {
                    break;
                }
                if (!link.listens()) {
                    link.close();
                }
                meter.is(e.hopeless() ? LinkState.REFUSED : LinkState.LOST, e.getMessage());
                if (e.hopeless()) {
                    LOG.info("{}: {}", address.text(), e.getMessage());
                    return;
                }
                LockSupport.parkNanos(pause);
                pause = Math.min(LONGEST_PAUSE_NANOS, pause * 2);
            }
        }
        link.close();
        complete(System.nanoTime());
        meter.is(LinkState.IDLE, "");
    }

    /** It is to end: what has come is handed on, recognised or not yet dated as it may be. */
    private void complete(long now) {
        if (decoder == null) {
            search.last(now).ifPresent(found -> begin(found, now));
        }
        flush(now);
    }

    private void opened() {
        if (openedBefore) {
            meter.reconnected();
        }
        openedBefore = true;
        if (decoder != null) {
            decoder.restart(link.joinsMidStream());
            dating.relink();
        }
        meter.is(decoder == null ? LinkState.WARMING_UP : LinkState.HELD, "");
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
                ended(now);
                return true;
            }
            if (count > 0) {
                received(buffer, count, now);
            } else if (decoder == null) {
                search.idle(now).ifPresent(found -> begin(found, now));
            }
            meter.measureSpeed(now);
            boolean due = dating.timestamper() == null || now - handedOnNanos >= HAND_ON_NANOS || count == Link.NOTHING;
            if (decoder != null && decoder.waiting() > 0 && (due || decoder.waiting() >= HAND_ON_ROWS)) {
                flush(now);
            }
        }
        return false;
    }

    private void ended(long now) {
        atEnd = true;
        complete(now);
        receiver.over();
        // Who sees that it is over may rely on all rows having been handed on.
        String said = decoder == null
                ? Messages.of("engine.it-ended-without-a-line-of-numbers")
                : dating.assumesRate()
                        ? Messages.of("engine.it-has-ended", LinkHealth.ASSUMED)
                        : Messages.of("engine.it-has-ended-2");
        meter.is(LinkState.OVER, meter.changed().isEmpty() ? said : meter.changed() + "; " + said);
        link.close();
    }

    private void received(byte[] buffer, int count, long now) {
        tail.append(buffer, count, now);
        meter.received(now);
        silenceSeconds = Math.max(silenceSeconds, waitedNanos * 1e-9);
        waitedNanos = 0;
        long asideBefore = rejectedLines.count();
        if (decoder == null) {
            search.saw(buffer, count, now).ifPresentOrElse(found -> begin(found, now), () -> {
                if (search.puzzled()) {
                    meter.because(Messages.of("engine.bytes-come-but-make-no-sense-a"));
                }
            });
            sent.rejected(rejectedLines, asideBefore, now);
            return;
        }
        StreamFormat other = ordered;
        if (other != null) {
            ordered = null;
            switchTo(other, now);
        }
        TextForm form = search.form();
        byte[] plain = form.isAsItIs() ? buffer : form.plain(buffer, count);
        decode(plain, form.isAsItIs() ? count : plain.length, now);
        tellWords();
        sent.rejected(rejectedLines, asideBefore, now);
        if (meter.state() != LinkState.LIVE && decoder.waiting() > 0 && dating.timestamper() != null) {
            meter.is(LinkState.LIVE, "");
        }
    }

    private void decode(byte[] bytes, int count, long now) {
        for (int at = 0; at < count; at += NewShape.PIECE) {
            int n = Math.min(NewShape.PIECE, count - at);
            decoder.feed(bytes, at, n);
            newShape.saw(bytes, at, n, decoder, dating.format(), now).ifPresent(found -> reshape(found, now));
        }
    }

    /** Tells of words that became numbers. */
    private void tellWords() {
        String now = search.form().legend();
        if (meter.legend(now)) {
            receiver.words(now);
        }
    }

    private void begin(StreamFormat format, long now) {
        byte[] plain = search.takePlain();
        decoder = format.decoder(rejectedLines);
        decoder.restart(link.joinsMidStream()
                || format instanceof DelimitedFormat delimited
                        && DelimitedFinder.startsMidLine(plain, plain.length, delimited));
        dating.begin(format, search.guessed());
        if (!dating.looksForClock()) {
            receiver.format(format);
        }
        tellWords();
        decoder.feed(plain, 0, plain.length);
        meter.because("");
        flush(now);
    }

    /** Where neither a clock nor the maker tells the rate, arrival does, once there was enough of it. */
    private boolean rateKnown(long now) {
        if (dating.timestamper() != null) {
            return true;
        }
        boolean ending = atEnd || linkBroke || stopping;
        boolean untold = dating.looksForClock();
        if (!dating.known(decoder, search.firstByteNanos(), now, ending)) {
            meter.because(Messages.of("engine.measuring-the-rate"));
            return false;
        }
        if (untold) {
            receiver.format(dating.format());
        }
        meter.is(LinkState.LIVE, "");
        return true;
    }

    private void flush(long now) {
        handedOnNanos = now;
        if (decoder != null && decoder.waiting() > 0 && rateKnown(now)) {
            handOn(dating.date(decoder, now, silenceSeconds), now);
            silenceSeconds = 0;
        }
        Timestamper timestamper = dating.timestamper();
        if (timestamper != null && timestamper.holds() && (atEnd || linkBroke || stopping)) {
            handOn(timestamper.rest(), now);
        }
    }

    private void handOn(Block block, long now) {
        meter.dated(dating.timestamper(), block.rows());
        if (block.rows() > 0) {
            receiver.block(block, meter.rateHz(), meter.rateUncertainty(), now);
        }
    }

    private void switchTo(StreamFormat format, long now) {
        flush(now);
        dating.switchTo(format, meter.rateHz());
        decodeWith(format, true);
    }

    private void decodeWith(StreamFormat format, boolean midStream) {
        decoder = format.decoder(rejectedLines);
        decoder.restart(midStream);
        receiver.format(format);
    }

    /** The stream goes on in another shape; what came of it already is read with it. */
    private void reshape(NewShape.Found found, long now) {
        flush(now);
        StreamFormat was = dating.format();
        rejectedLines.takeBack(found.rejects());
        dating.reshape(found.format(), meter.rateHz());
        decodeWith(found.format(), false);
        String changed =
                LinkHealth.CHANGED + ": now " + NewShape.names(found.format()) + "; before " + NewShape.names(was);
        meter.changed(changed);
        LOG.info("{}: {}", address.text(), changed);
        decoder.feed(found.bytes(), 0, found.bytes().length);
    }
}
