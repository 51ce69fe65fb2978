package zesty.signal.engine;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.picture.PictureSetup;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.Segments;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.SeriesRing;
import zesty.signal.core.sample.TimeRing;

/** A line of samples with the channels made of it: all of a source, or one of its stations. Trail's thread only. Longer than others: what is made of a row, from bytes to a snapshot, is one order. */
final class SampleStream {
    private static final int KEPT_GAPS = 512;
    private static final double HISTORY_SECONDS = 900;
    private static final int MOST_HISTORY = 1 << 20;
    private static final int LEAST_HISTORY = 1 << 12;
    /** Of the memory there is, what the histories of all channels together may take, before rounding up. */
    private static final double HISTORY_SHARE = 0.12;
    /** Raw and cleaned, each with its pyramid, and the time. */
    private static final double BYTES_A_SAMPLE = 20;

    /** After so many rows, and again whenever there are four times as many, it is looked how often columns come. */
    private static final int FIRST_LOOK = 16;
    /** So much off is worth beginning a channel anew. */
    private static final double OTHER_RATE = 0.15;

    private static final int PIECE = 4096;
    /** Rows that tell a station's own rate. */
    private static final int RATE_ROWS = 5;

    private final String sourceName;
    private final double station;
    private final StreamPictures pictures;
    private final double warmUpSeconds;
    private final RowsCame rowsCame;
    private final List<ChannelRunner> runners = new ArrayList<>();
    private final List<Block> early = new ArrayList<>();
    private final ArrayDeque<Gap> gaps = new ArrayDeque<>();
    private TimeRing times;
    private final StreamPace pace = new StreamPace();
    private double lastSeconds = Double.NaN;
    private long lastArrivalNanos;
    private long lostRows;
    private List<ReaderRunner> readers = List.of();
    private boolean over;
    private Map<ReaderRunner, ReaderSnapshot> answers = Map.of();
    private Segments segments;
    private Rig inForce;
    private int capacity;
    /** Of each column how many rows had a value: a column may come with some of them only. */
    private long[] valuesSeen = {};

    private long nextLook = FIRST_LOOK;

    /** Hears of rows when they have gone through all channels. */
    @FunctionalInterface
    interface RowsCame {
        void rows(SampleStream stream, double[] seconds, long arrivalNanos);
    }

    /**
     * @param sourceName of its source in the rig
     * @param station NaN for a source without stations
     */
    SampleStream(String sourceName, double station, StreamFormat format, double warmUpSeconds, RowsCame rowsCame) {
        this.rowsCame = rowsCame;
        this.sourceName = sourceName;
        this.station = station;
        pictures = new StreamPictures(sourceName, format);
        this.warmUpSeconds = warmUpSeconds;
    }

    /** @return how fast its rows come */
    StreamPace pace() {
        return pace;
    }

    /** The first rows tell a rate roughly: where it turns out to be another, all that is at hand is worked out again by it. */
    void refine() {
        if (pictures.format().clock() == null ? pace.refinedByArrival() : pace.refined()) {
            workAtOtherRate();
        }
        readers.forEach(reader -> reader.rateOffBy(pace.offBy()));
    }

    private void workAtOtherRate() {
        segments.rate(pace.hz());
        renew(inForce, new HashSet<>(runners), Map.of());
    }

    /** The rate is known: the channels of the rig that belong here begin. @param first rows that are at hand already */
    void begin(double rate, Rig rig, Block first) {
        pictures.begin(rig);
        double room = Runtime.getRuntime().maxMemory()
                * HISTORY_SHARE
                / BYTES_A_SAMPLE
                / Math.max(1, rig.channels().size());
        double history = Math.max(LEAST_HISTORY, Math.min(Math.min(MOST_HISTORY, room), HISTORY_SECONDS * rate));
        capacity = new SeriesRing((long) history).capacity();
        times = new TimeRing(capacity);
        pace.begin(rate, times);
        segments = new Segments(rate, warmUpSeconds);
        inForce = rig;
        valuesSeen = new long[pictures.format().columns().size()];
        pictures.keep(first, capacity);
        Block whole = pictures.whole(first);
        for (Channel channel : rig.channels()) {
            int index = columnOf(rig, channel);
            if (index >= 0) {
                double each =
                        whole.rows() < FIRST_LOOK ? 1 : ChannelChain.rowsEach(whole.columns()[index], 0, whole.rows());
                ChannelRunner runner =
                        new ChannelRunner(capacity, new ChannelChain(rig, channel, index, pace.hz(), each));
                runner.waiting(rig.waits(channel));
                runners.add(runner);
            }
        }
        readers = readers(rig, Map.of());
    }

    /** @return index of a channel's column in this stream; −1 when it belongs to another */
    private int columnOf(Rig rig, Channel channel) {
        String column = channel.column();
        boolean mine = rig.sources().get(rig.sourceOf(column)).name().equals(sourceName);
        String own = rig.ownName(column);
        int index = mine ? Stations.indexOf(pictures.format(), own) : -1;
        return index >= 0 && Double.compare(Stations.stationOf(pictures.format(), own), station) == 0 ? index : -1;
    }

    /** The readers of the rig whose channels are all here; those given are kept. */
    private List<ReaderRunner> readers(Rig rig, Map<ReaderSetup, ReaderRunner> kept) {
        List<ReaderRunner> made = new ArrayList<>();
        for (ReaderSetup setup : rig.readers()) {
            List<ChannelChain> chains = new ArrayList<>();
            for (String column : setup.columns()) {
                runner(column).map(ChannelRunner::chain).ifPresent(chains::add);
            }
            if (!chains.isEmpty() && chains.size() == setup.columns().size()) {
                ReaderRunner old = kept.get(setup);
                made.add(old != null ? old : new ReaderRunner(setup, rig.bandsOn(setup.id()), chains));
            }
        }
        return made;
    }

    private Optional<ChannelRunner> runner(String column) {
        return runners.stream().filter(r -> r.channel().column().equals(column)).findFirst();
    }

    /** Takes rows of a station, whose rate and gaps are told by its own times. */
    void acceptOfStation(Block block, long arrivalNanos, Rig rig) {
        lastArrivalNanos = arrivalNanos;
        if (!pace.known()) {
            early.add(block);
            Block all = Block.join(early);
            if (all.rows() < RATE_ROWS) {
                return;
            }
            early.clear();
            begin(StreamPace.ofFirst(all), rig, all);
            accept(withGaps(all), arrivalNanos);
            return;
        }
        accept(withGaps(block), arrivalNanos);
        if (pace.refinedByTimes()) {
            workAtOtherRate();
        }
    }

    private Block withGaps(Block block) {
        double[] seconds = new double[block.rows()];
        for (int row = 0; row < seconds.length; row++) {
            seconds[row] = block.time().secondsAt(row);
        }
        List<Gap> found = Gap.between(lastSeconds, seconds, pace.hz());
        return new Block(block.time(), block.columns(), block.rows(), found, block.frames());
    }

    void accept(Block came, long arrivalNanos) {
        int rows = came.rows();
        if (rows == 0) {
            return;
        }
        Block block = pictures.whole(came);
        pictures.append(came);
        double[] seconds = new double[rows];
        for (int i = 0; i < rows; i++) {
            seconds[i] = block.time().secondsAt(i);
        }
        for (ChannelRunner runner : runners) {
            runner.arrived(block.columns()[runner.chain().column()], rows);
        }
        SegmentRun.run(segments, runners, readers, c -> block.columns()[c], seconds);
        times.append(block.time(), rows);
        for (Gap gap : block.gaps()) {
            if (gaps.size() == KEPT_GAPS) {
                gaps.removeFirst();
            }
            gaps.addLast(gap);
            lostRows += gap.missing();
        }
        lastSeconds = block.lastSeconds();
        lastArrivalNanos = arrivalNanos;
        rowsCame.rows(this, seconds, arrivalNanos);
        lookAtRates(block);
    }

    /** @return the column of the channel of that column or name; null where it has none */
    String columnCalled(String name) {
        return runners.stream()
                .map(ChannelRunner::channel)
                .filter(channel -> Decider.isCalled(channel, name))
                .map(Channel::column)
                .findFirst()
                .orElse(null);
    }

    /** @return samples a second of a channel of its own */
    double rateOf(String column) {
        return runner(column).map(one -> one.chain().rateHz()).orElse(pace.hz());
    }

    /** @return what came out of a channel for the newest rows, NaN where nothing did */
    double[] newestOf(String column, int rows) {
        double[] values = runner(column).map(ChannelRunner::cameOut).orElseGet(() -> new double[0]);
        double[] nothing = new double[rows];
        Arrays.fill(nothing, Double.NaN);
        return values.length == rows ? values : nothing;
    }

    /** @return how long nothing came of it, in s, and NaN before the first row */
    double silentSeconds(long nanos) {
        return lastArrivalNanos == 0 ? Double.NaN : Math.max(0, (nanos - lastArrivalNanos) * 1e-9);
    }

    double lastSeconds() {
        return lastSeconds;
    }

    /** The stream came to its end: what readers still waited to hear is decided without it. */
    void over() {
        over = true;
        readers.forEach(ReaderRunner::finish);
    }

    /** Now and then: does a column come with other rows than it was taken to? Then its channel begins anew. */
    private void lookAtRates(Block block) {
        pace.came(block.rows());
        for (int c = 0; c < valuesSeen.length; c++) {
            for (int i = 0; i < block.rows(); i++) {
                valuesSeen[c] += Double.isNaN(block.columns()[c][i]) ? 0 : 1;
            }
        }
        if (pace.rows() < nextLook) {
            return;
        }
        nextLook = 4 * pace.rows();
        Set<ChannelRunner> other = new HashSet<>();
        for (ChannelRunner runner : runners) {
            double now = rowsEach(runner.chain().column());
            double was = pace.hz() / runner.chain().rateHz();
            if (Math.abs(now / was - 1) > OTHER_RATE) {
                other.add(runner);
            }
        }
        if (!other.isEmpty()) {
            renew(inForce, other, Map.of());
        }
    }

    private double rowsEach(int column) {
        return ChannelChain.rowsEach(pace.rows(), valuesSeen[column]);
    }

    /** Takes a changed rig into force. */
    void change(Rig changed) {
        Set<ChannelRunner> other = new HashSet<>(pictured(changed));
        for (ChannelRunner runner : runners) {
            for (Channel channel : changed.channels()) {
                if (!channel.column().equals(runner.channel().column())) {
                    continue;
                }
                runner.waiting(changed.waits(channel));
                ChannelChain would = chain(changed, channel, runner);
                boolean same = channel.scaling().equals(runner.channel().scaling())
                        && channel.recipe().equals(runner.channel().recipe())
                        && would.sameExtraInputs(runner.chain());
                if (!same) {
                    other.add(runner);
                }
                runner.rename(channel);
            }
        }
        Map<ReaderSetup, ReaderRunner> kept = new HashMap<>();
        for (ReaderRunner reader : readers) {
            reader.watch(changed.bandsOn(reader.setup().id()));
            boolean same = changed.readers().contains(reader.setup())
                    && other.stream().noneMatch(r -> reader.chains().contains(r.chain()));
            if (same) {
                kept.put(reader.setup(), reader);
            }
        }
        // A reader that begins anew has its channels run again from the same start.
        for (ReaderSetup setup : changed.readers()) {
            if (!kept.containsKey(setup)) {
                setup.columns().forEach(column -> runner(column).ifPresent(other::add));
            }
        }
        kept.values()
                .removeIf(reader -> other.stream().anyMatch(r -> reader.chains().contains(r.chain())));
        renew(changed, other, kept);
    }

    /** Takes into force what is made of pictures by now, as far back as these are at hand. @return the channels that are others by it */
    private List<ChannelRunner> pictured(Rig changed) {
        PictureSetup was = pictures.setup();
        if (!pictures.change(changed)) {
            return List.of();
        }
        PictureSetup is = pictures.setup();
        valuesSeen = Arrays.copyOf(valuesSeen, pictures.format().columns().size());
        double[][] columns = pictures.history();
        List<ChannelRunner> other = new ArrayList<>();
        List<ChannelRunner> all = new ArrayList<>();
        for (Channel channel : changed.channels()) {
            int index = columnOf(changed, channel);
            if (index < 0) {
                continue;
            }
            ChannelRunner runner = runner(channel.column()).orElse(null);
            boolean same = runner != null
                    && was.mend().equals(is.mend())
                    && (index < PictureFormat.SUMMARIES
                            || was.regions().contains(is.regions().get(index - PictureFormat.SUMMARIES)));
            if (runner == null) {
                runner = new ChannelRunner(capacity, new ChannelChain(changed, channel, index, pace.hz(), 1));
                runner.waiting(changed.waits(channel));
            }
            all.add(runner);
            valuesSeen[index] = pace.rows();
            if (!same) {
                runner.history(times.end(), columns[index]);
            }
            if (!same || runner.chain().column() != index) {
                runner.begin(new ChannelChain(
                        changed,
                        channel,
                        index,
                        pace.hz(),
                        pace.hz() / runner.chain().rateHz()));
                other.add(runner);
            }
        }
        readers = readers.stream()
                .filter(reader ->
                        all.stream().map(ChannelRunner::chain).toList().containsAll(reader.chains()))
                .toList();
        runners.clear();
        runners.addAll(all);
        return other;
    }

    private ChannelChain chain(Rig rig, Channel channel, ChannelRunner runner) {
        int column = runner.chain().column();
        return new ChannelChain(rig, channel, column, pace.hz(), rowsEach(column));
    }

    /** Begins some channels anew, and all readers but those kept, and works the samples at hand out again. */
    private void renew(Rig rig, Set<ChannelRunner> other, Map<ReaderSetup, ReaderRunner> kept) {
        inForce = rig;
        List<ChannelRunner> again = runners.stream().filter(other::contains).toList();
        again.forEach(runner -> runner.begin(chain(rig, runner.channel(), runner)));
        Map<ReaderSetup, ReaderRunner> still = new HashMap<>(kept);
        readers = readers(rig, still);
        List<ReaderRunner> fresh =
                readers.stream().filter(reader -> !kept.containsValue(reader)).toList();
        if (!again.isEmpty()) {
            workAgain(again, fresh);
            if (over) {
                fresh.forEach(ReaderRunner::finish);
            }
            again.forEach(ChannelRunner::settleReadings);
        }
    }

    private void workAgain(List<ChannelRunner> again, List<ReaderRunner> fresh) {
        Segments anew = new Segments(pace.hz(), 0);
        List<SegmentRun.Lane> lanes = again.stream().map(ChannelRunner::again).toList();
        long end = times.end();
        long row = again.get(0).raw().start();
        while (row < end) {
            long stop = Math.min(end, row + PIECE);
            for (ChannelRunner runner : again) {
                stop = runner.nextEdge(row, stop);
            }
            int n = (int) (stop - row);
            double[] seconds = new double[n];
            for (int i = 0; i < n; i++) {
                seconds[i] = times.secondsAt(row + i);
            }
            long from = row;
            SegmentRun.run(anew, lanes, fresh, c -> copied(c, from, n), seconds);
            row = stop;
        }
    }

    private double[] copied(int column, long first, int n) {
        double[] values = new double[n];
        Series series = runners.stream()
                .filter(runner -> runner.chain().column() == column)
                .map(ChannelRunner::raw)
                .findFirst()
                .orElse(null);
        for (int i = 0; i < n; i++) {
            values[i] = series == null ? Double.NaN : series.value(first + i);
        }
        return values;
    }

    /** @return what there is to see of its channels and their readers. @param one the stream itself as seen now */
    List<ChannelSnapshot> channels(StreamSnapshot one) {
        List<ChannelSnapshot> seen = new ArrayList<>();
        for (ChannelRunner runner : runners) {
            List<ReaderSnapshot> own = new ArrayList<>();
            for (ReaderRunner reader : readers) {
                if (reader.chains().get(0) == runner.chain()) {
                    ReaderSnapshot settled = answers.get(reader);
                    own.add(settled != null ? settled : reader.recent());
                }
            }
            seen.add(runner.snapshot(one, own));
        }
        return seen;
    }

    /** Works the readings out anew; a few times a second is enough. */
    void settleReadings() {
        runners.forEach(ChannelRunner::settleReadings);
        Map<ReaderRunner, ReaderSnapshot> now = new IdentityHashMap<>();
        readers.forEach(reader -> now.put(reader, reader.recent()));
        answers = now;
    }

    /** @param source where its source stands in the rig by now */
    StreamSnapshot snapshot(int source) {
        return new StreamSnapshot(
                source,
                station,
                pace.measuredHz(),
                times,
                lastSeconds,
                lastArrivalNanos,
                List.copyOf(gaps),
                lostRows,
                pictures.film());
    }
}
