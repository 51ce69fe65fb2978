package zesty.signal.engine;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.act.Band;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.HandEdit;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Reading;
import zesty.signal.core.rig.BandSetup;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.text.Messages;

/**
 * A reader at work on the channels of one line of samples: brings several of them in line by what their cleaning delays,
 * takes that delay off the times, and moves the bands on its numbers with the stream, so that a take replays the same
 * decisions. One thread.
 */
final class ReaderRunner {
    /** Bands are looked at so often on the stream's own time. */
    private static final double TICK_SECONDS = 0.5;

    private static final int MOST_DECISIONS = 4096;
    /** So many looks are kept: forty minutes of them. */
    private static final int MOST_LOOKS = 4800;

    private final ReaderSetup setup;
    private final List<ChannelChain> chains;
    private final ReaderKind kind;
    private final Reader reader;
    private final String trouble;
    private final double delaySeconds;
    /** What each port waits for the latest one, and the values on their way. */
    private final double[][] waiting;

    private final int[] held;
    /** Holes of the values on their way: how long each is, 0 for a value that was measured. */
    private final double[] holesWaiting;

    private int holesAt;
    private int holesWithin;
    private final double longestHoleSeconds;
    private final FilledShare filled;
    private final OffPace pace;
    private final RateDoubt rate;
    private final CutShort cuts = new CutShort();
    private final List<Watched> bands = new ArrayList<>();
    private double nextTick = Double.NaN;
    private double lastSeconds = Double.NaN;
    /** What of the stream the reader gets; its channels are cleaned from the beginning. */
    private double firstSeconds = Double.NEGATIVE_INFINITY;

    private double lastToRead = Double.POSITIVE_INFINITY;

    private static final class Watched {
        final BandSetup setup;
        final List<BandSnapshot.Decision> decisions = new ArrayList<>();
        Band.Side side = Band.Side.UNKNOWN;
        final double[] seconds = new double[MOST_LOOKS];
        final double[] values = new double[MOST_LOOKS];
        int looks;

        Watched(BandSetup setup) {
            this.setup = setup;
        }

        void look(double at, double value) {
            seconds[looks % MOST_LOOKS] = at;
            values[looks++ % MOST_LOOKS] = value;
        }

        private double[] inOrder(double[] ring) {
            int n = Math.min(looks, MOST_LOOKS);
            double[] straight = new double[n];
            for (int i = 0; i < n; i++) {
                straight[i] = ring[(looks - n + i) % MOST_LOOKS];
            }
            return straight;
        }

        BandSnapshot snapshot() {
            return new BandSnapshot(setup, side, decisions, inOrder(seconds), inOrder(values));
        }
    }

    /** @param chains of its ports in their order, of one stream */
    ReaderRunner(ReaderSetup setup, List<BandSetup> watch, List<ChannelChain> chains) {
        this.setup = setup;
        this.chains = List.copyOf(chains);
        kind = setup.readerKind();
        double rateHz = chains.get(0).rateHz();
        double latest = 0;
        for (ChannelChain chain : chains) {
            latest = Math.max(latest, chain.delaySeconds());
        }
        delaySeconds = latest;
        waiting = new double[chains.size()][];
        held = new int[chains.size()];
        for (int p = 0; p < waiting.length; p++) {
            waiting[p] = new double[(int) Math.round((latest - chains.get(p).delaySeconds()) * rateHz)];
        }
        holesWaiting = new double[(int) Math.round(latest * rateHz)];
        filled = new FilledShare(rateHz);
        pace = new OffPace(rateHz);
        rate = new RateDoubt(kind);
        Reader made = null;
        double bridged = 0;
        String wrong = "";
        try {
            boolean oneRate = chains.stream().allMatch(c -> c.rateHz() == rateHz);
            if (!oneRate) {
                throw new ReaderException(Messages.of(
                        "engine.needs-columns-that-come-with-the",
                        setup.kind(),
                        String.join(Messages.of("engine.and"), setup.columns())));
            }
            made = kind.reader(setup.checked(), rateHz);
            made.named(chains.stream().map(ChannelChain::name).toList());
            bridged = kind.longestHoleSeconds(setup.checked());
        } catch (ReaderException e) {
            wrong = e.getMessage();
        }
        reader = made;
        trouble = wrong;
        longestHoleSeconds = bridged;
        watch.forEach(band -> bands.add(new Watched(band)));
    }

    /** Reads only what lies between two moments, both held, in s; before the first part. */
    void readOnly(double from, double to) {
        firstSeconds = from;
        lastToRead = to;
    }

    ReaderSetup setup() {
        return setup;
    }

    List<ChannelChain> chains() {
        return chains;
    }

    /** @return whether it watches just these bands */
    boolean watchesOnly(List<BandSetup> others) {
        return bands.stream().map(watched -> watched.setup).toList().equals(others);
    }

    /** Watches these bands from here on; those it watched before go on as they are. */
    void watch(List<BandSetup> others) {
        List<Watched> before = List.copyOf(bands);
        bands.clear();
        for (BandSetup other : others) {
            bands.add(before.stream()
                    .filter(watched -> watched.setup.equals(other))
                    .findFirst()
                    .orElseGet(() -> new Watched(other)));
        }
    }

    /** @param share by how much the rate of its channels may be off by now, as a share of it */
    void rateOffBy(double share) {
        rate.offBy(share);
    }

    /** Takes what came out of its channels for the same rows, with no row missing within. */
    void part(List<ChannelChain.Part> parts) {
        if (parts.stream().anyMatch(part -> part.cut)) {
            gap();
        }
        // A channel that fills a hole beside one that begins anew after it has more values than that.
        int n = parts.stream().mapToInt(part -> part.values.length).min().orElse(0);
        if (reader == null || n == 0) {
            return;
        }
        double[][] ports = new double[parts.size()][];
        for (int p = 0; p < ports.length; p++) {
            ports[p] = delayed(p, tail(parts.get(p).values, n));
        }
        double[] holes = holes(parts, n);
        double[] seconds = tail(parts.get(0).seconds, n);
        if (delaySeconds > 0) {
            seconds = seconds.clone();
            for (int i = 0; i < n; i++) {
                seconds[i] -= delaySeconds;
            }
        }
        if (holes == null) {
            lastSeconds = seconds[n - 1];
            accept(ports, seconds, null, 0, n);
            return;
        }
        boolean[] made = new boolean[n];
        int from = 0;
        for (int i = 0; i < n; i++) {
            if (holes[i] > longestHoleSeconds) {
                accept(ports, seconds, made, from, i);
                from = i + 1;
                reader.gap();
                cuts.cut();
            } else if (holes[i] > 0) {
                made[i] = true;
                filled.add(seconds[i]);
            }
        }
        accept(ports, seconds, made, from, n);
    }

    private static double[] tail(double[] values, int n) {
        return values.length == n ? values : Arrays.copyOfRange(values, values.length - n, values.length);
    }

    /** @return how long the hole of each value is, brought in line with the ports; null where all were measured */
    private double[] holes(List<ChannelChain.Part> parts, int n) {
        double[] longest = null;
        for (ChannelChain.Part part : parts) {
            if (part.holes != null) {
                longest = longest == null ? new double[n] : longest;
                double[] own = tail(part.holes, n);
                for (int i = 0; i < n; i++) {
                    longest[i] = Math.max(longest[i], own[i]);
                }
            }
        }
        if (holesWaiting.length == 0 || longest == null && holesWithin == 0) {
            return longest;
        }
        double[] out = new double[n];
        for (int i = 0; i < n; i++) {
            double in = longest == null ? 0 : longest[i];
            out[i] = holesWaiting[holesAt];
            holesWaiting[holesAt] = in;
            holesAt = (holesAt + 1) % holesWaiting.length;
            holesWithin += (in > 0 ? 1 : 0) - (out[i] > 0 ? 1 : 0);
        }
        return out;
    }

    /** Hands a part on to the reader, and decides where the bands are due. */
    private void accept(double[][] ports, double[] seconds, boolean[] made, int from, int to) {
        if (to > from) {
            lastSeconds = seconds[to - 1];
        }
        int begin = from;
        for (int i = from; i < to && !bands.isEmpty(); i++) {
            if (!(seconds[i] < nextTick)) {
                hand(ports, seconds, made, begin, i + 1);
                begin = i + 1;
                if (!Double.isNaN(nextTick)) {
                    decide(seconds[i]);
                }
                nextTick = (Math.floor(seconds[i] / TICK_SECONDS) + 1) * TICK_SECONDS;
            }
        }
        hand(ports, seconds, made, begin, to);
    }

    private void hand(double[][] ports, double[] seconds, boolean[] made, int begin, int end) {
        int from = begin;
        int to = end;
        while (from < to && seconds[from] < firstSeconds) {
            from++;
        }
        while (to > from && seconds[to - 1] > lastToRead) {
            to--;
        }
        if (to <= from) {
            return;
        }
        double[][] some = ports;
        double[] when = seconds;
        boolean[] which = made;
        if (from > 0 || to < seconds.length) {
            some = new double[ports.length][];
            for (int p = 0; p < some.length; p++) {
                some[p] = Arrays.copyOfRange(ports[p], from, to);
            }
            when = Arrays.copyOfRange(seconds, from, to);
            which = made == null ? null : Arrays.copyOfRange(made, from, to);
        }
        filled.came(when[0], when[to - from - 1]);
        cuts.came(when[0], when[to - from - 1]);
        pace.came(when, to - from);
        reader.accept(some, to - from, new TimeBase.Explicit(when), which);
    }

    private double[] delayed(int port, double[] values) {
        double[] line = waiting[port];
        if (line.length == 0) {
            return values;
        }
        double[] out = new double[values.length];
        for (int i = 0; i < values.length; i++) {
            int cell = held[port] % line.length;
            out[i] = held[port] < line.length ? Double.NaN : line[cell];
            line[cell] = values[i];
            held[port]++;
        }
        return out;
    }

    private void decide(double seconds) {
        for (Watched band : bands) {
            double value = reader.scalar(band.setup.scalar(), seconds - kind.windowSeconds(), seconds);
            band.look(seconds, value);
            Band.Side next = band.setup.band().next(band.side, value);
            if (next != band.side) {
                if (band.decisions.size() == MOST_DECISIONS) {
                    band.decisions.remove(0);
                }
                band.decisions.add(new BandSnapshot.Decision(seconds, next, value));
                band.side = next;
            }
        }
    }

    void gap() {
        if (reader != null) {
            reader.gap();
            cuts.cut();
        }
        Arrays.fill(held, 0);
        Arrays.fill(holesWaiting, 0);
        holesWithin = 0;
    }

    void finish() {
        if (reader != null) {
            reader.finish();
        }
    }

    void edited(List<HandEdit> edits) {
        if (reader != null) {
            reader.edited(edits);
        }
    }

    /** @return one number of a stretch, as far as it has come; NaN where there is none */
    double scalar(String key, double from, double to) {
        return reader == null ? Double.NaN : reader.scalar(key, from, to);
    }

    /** @return what there is to see of it now: of the last stretch of the length that its kind speaks of */
    ReaderSnapshot recent() {
        if (reader == null) {
            return new ReaderSnapshot(setup, null, List.of(), snapshots(), delaySeconds, trouble);
        }
        Reading reading = said(
                reader.reading(lastSeconds - kind.windowSeconds(), lastSeconds),
                lastSeconds - kind.windowSeconds(),
                lastSeconds);
        List<Event> events = kind.eventSeconds() > kind.windowSeconds()
                ? reader.reading(lastSeconds - kind.eventSeconds(), lastSeconds).events()
                : reading.events();
        return new ReaderSnapshot(setup, reading, events, snapshots(), delaySeconds, trouble);
    }

    /** @return what there is to see of all of it */
    ReaderSnapshot whole() {
        if (reader == null) {
            return new ReaderSnapshot(setup, null, List.of(), snapshots(), 0, trouble);
        }
        Reading reading = said(reader.reading(), Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY);
        return new ReaderSnapshot(setup, reading, reading.events(), snapshots(), 0, trouble);
    }

    private Reading said(Reading reading, double from, double to) {
        return rate.said(cuts.said(pace.said(filled.said(reading, from, to), from, to), from, to));
    }

    private List<BandSnapshot> snapshots() {
        return bands.stream().map(Watched::snapshot).toList();
    }
}
