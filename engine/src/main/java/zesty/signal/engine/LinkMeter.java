package zesty.signal.engine;

import java.util.List;
import zesty.signal.boards.link.Link;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.decode.Timestamper;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** What is told of one source: its state, its counts, how well it keeps time. Written by the source's thread, read by any. */
final class LinkMeter {
    private static final double HELD_SECONDS = 0.4;
    private static final double LOST_SECONDS = 3;
    /** The same in periods, for a board that is slow. */
    private static final double HELD_PERIODS = 3;

    private static final double LOST_PERIODS = 10;
    /** After so long without a byte the last speed says nothing. */
    private static final double SPEED_HOLDS_SECONDS = 1.5;

    private static final double SPEED_OVER_SECONDS = 0.5;
    private static final double SPEED_ANEW_SECONDS = 5;

    private final Link link;
    private final ByteTail tail;
    private final RejectedLines rejectedLines;

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
    private volatile long repeatedRows;
    private volatile long overrun;
    private volatile double jitterSeconds;
    private volatile double rateUncertainty;
    private volatile double arrivalPeriod = Double.NaN;
    private volatile String changed = "";
    private volatile String legend = "";
    private long speedNanos;
    private long speedBytes;

    LinkMeter(Link link, ByteTail tail, RejectedLines rejectedLines) {
        this.link = link;
        this.tail = tail;
        this.rejectedLines = rejectedLines;
    }

    LinkState state() {
        return state;
    }

    /** What the state is, and why; the reason stands before whoever sees the state. */
    void is(LinkState now, String why) {
        reason = why;
        state = now;
    }

    void because(String why) {
        reason = why;
    }

    void reconnected() {
        reconnects++;
    }

    int reconnects() {
        return reconnects;
    }

    /** @param count rows that there was no room for */
    void overran(int count) {
        overrun += count;
    }

    /** @param how in which way the stream has changed its shape */
    void changed(String how) {
        changed = how;
    }

    String changed() {
        return changed;
    }

    /** @return whether the legend is another one than before */
    boolean legend(String now) {
        boolean fresh = !now.equals(legend);
        legend = now;
        return fresh;
    }

    String legend() {
        return legend;
    }

    double rateHz() {
        return rateHz;
    }

    double rateUncertainty() {
        return rateUncertainty;
    }

    double arrivalPeriodSeconds() {
        return arrivalPeriod;
    }

    void received(long now) {
        lastByteNanos = now;
    }

    void dated(Timestamper timestamper, int count) {
        rows += count;
        rateHz = timestamper.nominalRateHz();
        lostRows = timestamper.lostRows();
        gaps = timestamper.gapCount();
        wrongStamps = timestamper.wrongStamps();
        lateRows = timestamper.lateRows();
        repeatedRows = timestamper.repeatedRows();
        driftPpm = link.unpaced() ? Double.NaN : timestamper.driftPpm();
        jitterSeconds = timestamper.jitterSeconds();
        rateUncertainty = timestamper.rateUncertainty();
        arrivalPeriod = link.unpaced() ? Double.NaN : timestamper.arrivalPeriodSeconds();
    }

    void measureSpeed(long now) {
        double elapsed = (now - speedNanos) * 1e-9;
        if (speedNanos == 0 || elapsed > SPEED_ANEW_SECONDS) {
            speedNanos = now;
            speedBytes = tail.count();
        } else if (elapsed >= SPEED_OVER_SECONDS) {
            double speed = (tail.count() - speedBytes) / elapsed;
            bytesPerSecond = bytesPerSecond == 0 ? speed : 0.5 * (bytesPerSecond + speed);
            speedNanos = now;
            speedBytes = tail.count();
        }
    }

    /** Any thread. @param proposals what the bytes may be, while that is not known yet */
    LinkHealth health(long now, List<Recogniser.Proposal> proposals) {
        LinkState seen = state;
        String why = reason;
        double silence = (now - lastByteNanos) * 1e-9;
        double period = 1 / rateHz;
        if (seen == LinkState.LIVE && silence > Math.max(LOST_SECONDS, LOST_PERIODS * period)) {
            seen = LinkState.LOST;
            why = Messages.of("engine.silent-for-s", Digits.fixed(silence, 0));
        } else if (seen == LinkState.LIVE && silence > Math.max(HELD_SECONDS, HELD_PERIODS * period)) {
            seen = LinkState.HELD;
            why = Messages.of("engine.no-new-data");
        } else if (seen == LinkState.LIVE && why.isEmpty()) {
            why = changed.isEmpty() && !legend.isEmpty() ? Messages.of("engine.words-as-numbers", legend) : changed;
        } else if (seen == LinkState.WARMING_UP && why.isEmpty()) {
            long came = tail.count();
            why = came == 0
                    ? silence()
                    : soFar(came, proposals.isEmpty() ? 0 : proposals.get(0).rows());
        }
        return new LinkHealth(
                seen,
                why,
                tail.count(),
                silence > SPEED_HOLDS_SECONDS ? 0 : bytesPerSecond,
                rows,
                rejectedLines.count(),
                lostRows + overrun,
                gaps,
                wrongStamps,
                lateRows,
                repeatedRows,
                link.turnedAway(),
                link.old(),
                reconnects,
                driftPpm,
                jitterSeconds,
                rateUncertainty,
                Double.NaN,
                rejectedLines.items());
    }

    private String silence() {
        return link.listens()
                ? Messages.of("engine.waiting-to-be-called-no-bytes-yet")
                : Messages.of("engine.open-no-bytes-yet");
    }

    private static String soFar(long came, int rowsSeen) {
        return Messages.of(
                "engine.bytes",
                came,
                (rowsSeen == 0
                        ? Messages.of("engine.no-line-of-numbers-yet")
                        : Messages.of(
                                "engine.so-far-waiting-for-more-to-tell",
                                rowsSeen + (rowsSeen == 1 ? Messages.of("engine.row") : Messages.of("engine.rows")))));
    }
}
