package zesty.signal.engine;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.function.DoublePredicate;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.RecipeException;
import zesty.signal.core.decode.Role;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.read.HandEdit;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.level.Level;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Limits;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.sample.TimeRing;
import zesty.signal.takes.Mark;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/**
 * A stored take worked out again with a rig. What is read runs through the same chains as on the live trail, so that it
 * answers the same; what is drawn is cleaned both ways between the gaps, so that nothing in it is late. Immutable but for
 * {@link #with} and {@link #edited}, which give another. Making one takes time in proportion to the take: not for the
 * window's thread.
 */
public final class StoredTake {
    private static final int PIECE = 1 << 14;
    /** How far the work is when all is read from the disk, and when all readers have read it. */
    private static final double READ_SHARE = 0.4;

    private static final double DRAWN_SHARE = 0.8;
    /** What every channel's own level is kept under, beside the readers that the rig names. */
    private static final String LEVELS = "each channel's ";

    private final Facts facts;
    private final Sight sight;
    private final Map<String, Work> works;

    /** What does not change with the rig. */
    private record Facts(
            String title,
            String mended,
            List<String> damage,
            List<Line> lines,
            List<Mark> marks,
            Map<String, List<HandEdit>> edits) {}

    /** A line of samples in time: all rows, or those of one station. */
    private record Line(Source source, double[][] columns, double[] seconds, StrandSight strand) {
        boolean has(Rig rig, Channel channel) {
            String own = rig.ownName(channel.column());
            return strand.source() == rig.sourceOf(channel.column())
                    && Stations.indexOf(source.format(), own) >= 0
                    && Double.compare(strand.station(), Stations.stationOf(source.format(), own)) == 0;
        }

        int columnOf(Rig rig, Channel channel) {
            return Stations.indexOf(source.format(), rig.ownName(channel.column()));
        }
    }

    /** A reader that has read the take, and the channels as they were. */
    private record Work(ReaderRunner runner, List<Channel> channels) {}

    private StoredTake(Facts facts, Sight sight, Map<String, Work> works) {
        this.facts = facts;
        this.sight = sight;
        this.works = works;
    }

    /** Tells how far the work is; giving it up ends it by a {@link CancellationException}. */
    private static final class Told {
        static final Told NOBODY = new Told(share -> true);
        private final DoublePredicate goOn;
        private double farthest;

        Told(DoublePredicate goOn) {
            this.goOn = goOn;
        }

        /** @param share of one source or line where there are several: what was told is never taken back */
        void at(double share) {
            farthest = Math.max(farthest, share);
            if (!goOn.test(farthest)) {
                throw new CancellationException();
            }
        }
    }

    /** As {@link #load(Take, DoublePredicate)}, to its end. */
    public static StoredTake load(Take take) throws TakeException {
        return load(take, share -> true);
    }

    /**
     * Reads a take into memory (8 bytes a value and column) and works it out with its own rig.
     *
     * @param goOn hears how far it is, 0 … 1, and says whether to go on
     * @throws CancellationException when it said no
     */
    public static StoredTake load(Take take, DoublePredicate goOn) throws TakeException {
        Told told = new Told(goOn);
        if (take.rows() < 2) {
            throw new TakeException(take.file() + " holds " + take.rows() + " rows; there is nothing to draw");
        }
        if (take.rows() > 1 << 28) {
            throw new TakeException(
                    take.file() + " holds " + take.rows() + " rows; up to " + (1 << 28) + " can be shown at once");
        }
        Rig fitted = take.rigOrPlain();
        List<Line> lines = new ArrayList<>();
        for (int s = 0; s < fitted.sources().size(); s++) {
            if (take.rows(s) > 1) {
                fitted = fitted.fittedTo(s, fitted.sources().get(s).format());
                fitted = lines(take, s, fitted, lines, told);
            }
        }
        List<Mark> marks = take.marks();
        Map<String, List<HandEdit>> edits = take.edits();
        return work(new Facts(take.title(), take.mended(), take.damage(), lines, marks, edits), fitted, null, told);
    }

    /** Adds the lines of samples of a source. @return the rig with the stations that turned up */
    private static Rig lines(Take take, int index, Rig rig, List<Line> lines, Told told) throws TakeException {
        Source source = rig.sources().get(index);
        double[][] columns = new double[source.format().columns().size()][];
        int first = take.firstColumn(index);
        for (int c = 0; c < columns.length; c++) {
            columns[c] = take.column(first + c);
            told.at(READ_SHARE * (c + 1) / columns.length);
        }
        double[] seconds = take.times(index);
        int stationColumn = source.format().indexOf(Role.STATION);
        if (stationColumn < 0) {
            lines.add(line(source, index, Double.NaN, columns, seconds, SampleRate.of(seconds), take.gaps(index)));
            return rig;
        }
        Rig fitted = rig;
        Block all = new Block(new TimeBase.Explicit(seconds), columns, seconds.length, List.of());
        for (Map.Entry<Double, Block> part : Stations.part(all, stationColumn).entrySet()) {
            Block block = part.getValue();
            double[] own = ((TimeBase.Explicit) block.time()).seconds();
            if (own.length > 1) {
                double rate = SampleRate.of(own);
                lines.add(line(source, index, part.getKey(), block.columns(), own, rate, ownGaps(own, rate)));
                fitted = fitted.withStation(index, part.getKey());
            }
        }
        return fitted;
    }

    private static Line line(
            Source source,
            int index,
            double station,
            double[][] columns,
            double[] seconds,
            double rateHz,
            List<Gap> gaps) {
        TimeRing times = new TimeRing(new Series(seconds.length).capacity());
        times.append(new TimeBase.Explicit(seconds), seconds.length);
        long lost = gaps.stream().mapToLong(Gap::missing).sum();
        double last = seconds[seconds.length - 1];
        StrandSight strand = new StrandSight(index, station, rateHz, times, last, 0, gaps, lost);
        return new Line(source, columns, seconds, strand);
    }

    private static List<Gap> ownGaps(double[] seconds, double rateHz) {
        List<Gap> gaps = new ArrayList<>();
        for (int i = 1; i < seconds.length; i++) {
            double step = seconds[i] - seconds[i - 1];
            if (step > Gap.PERIODS / rateHz) {
                gaps.add(new Gap(seconds[i - 1], seconds[i], Math.max(0, Math.round(step * rateHz) - 1)));
            }
        }
        return gaps;
    }

    /** @return the same take worked out with a changed rig; what did not change is not worked out again */
    public StoredTake with(Rig changed) {
        return work(facts, changed, this, Told.NOBODY);
    }

    /** @return the same take with other changes made by hand to a reader's events */
    public StoredTake edited(String reader, List<HandEdit> edits) {
        Map<String, List<HandEdit>> others = new HashMap<>(facts.edits());
        others.put(reader, List.copyOf(edits));
        Work done = works.get(reader);
        if (done != null) {
            done.runner().edited(edits);
        }
        return work(
                new Facts(facts.title(), facts.mended(), facts.damage(), facts.lines(), facts.marks(), others),
                sight.rig(),
                this,
                Told.NOBODY);
    }

    private static StoredTake work(Facts facts, Rig rig, StoredTake before, Told told) {
        Map<String, Work> works = new HashMap<>();
        List<ChannelSight> channels = new ArrayList<>();
        for (Line line : facts.lines()) {
            List<Channel> own =
                    rig.channels().stream().filter(c -> line.has(rig, c)).toList();
            List<ReaderSetup> wanted = new ArrayList<>(rig.readers());
            read(facts, rig, line, own, wanted, before, works, "", told);
            List<ReaderSetup> levels = own.stream()
                    .map(channel -> ReaderSetup.on(channel.column(), Level.NAME, Map.of()))
                    .toList();
            read(facts, rig, line, own, levels, before, works, LEVELS, told);
            for (Channel channel : own) {
                channels.add(channel(rig, line, channel, before, works));
                told.at(DRAWN_SHARE
                        + (1 - DRAWN_SHARE) * channels.size() / rig.channels().size());
            }
        }
        LinkHealth health = LinkHealth.IDLE.withState(LinkState.STORED, "");
        List<StrandSight> strands = facts.lines().stream().map(Line::strand).toList();
        List<ChannelSight> inOrder = new ArrayList<>();
        for (Channel channel : rig.channels()) {
            channels.stream().filter(c -> c.channel().equals(channel)).forEach(inOrder::add);
        }
        return new StoredTake(
                facts,
                new Sight(
                        Collections.nCopies(rig.sources().size(), health), rig, strands, inOrder, RecordingSight.NONE),
                works);
    }

    /**
     * Reads one answer out of a take, of channels scaled and cleaned as its rig says.
     *
     * @param columns of the channels to read, or the names that the maker gave these
     * @throws ReaderException when that cannot be read, saying what would do
     */
    public static Reading read(Take take, String kind, List<String> columns, Map<String, String> settings)
            throws TakeException {
        Rig rig = take.rigOrPlain();
        for (int s = 0; s < rig.sources().size(); s++) {
            rig = take.rows(s) > 1 ? rig.fittedTo(s, rig.sources().get(s).format()) : rig;
        }
        int source = -1;
        List<String> own = new ArrayList<>();
        for (String column : columns) {
            String found = columnOf(take, rig, column);
            if (source >= 0 && rig.sourceOf(found) != source) {
                throw new ReaderException("the columns of one reader come from one board; "
                        + String.join(" and ", columns) + " come from several");
            }
            source = rig.sourceOf(found);
            own.add(found);
        }
        List<Line> lines = new ArrayList<>();
        Rig fitted = lines(take, source, rig, lines, Told.NOBODY);
        ReaderSetup setup = new ReaderSetup(kind, own, settings);
        Facts facts = new Facts("", "", List.of(), lines, List.of(), take.edits());
        for (Line line : lines) {
            Map<String, Work> works = new HashMap<>();
            List<Channel> channels =
                    fitted.channels().stream().filter(c -> line.has(fitted, c)).toList();
            read(facts, fitted, line, channels, List.of(setup), null, works, "", Told.NOBODY);
            Work work = works.get(setup.id());
            if (work != null) {
                ReaderSight seen = work.runner().whole();
                for (ChannelChain chain : work.runner().chains()) {
                    if (!chain.trouble().isEmpty()) {
                        throw new ReaderException(chain.trouble());
                    }
                }
                if (seen.reading() == null) {
                    throw new ReaderException(seen.trouble());
                }
                return seen.reading();
            }
        }
        throw new ReaderException(
                "the columns of one reader come with the same rows; " + String.join(" and ", columns) + " do not");
    }

    private static String columnOf(Take take, Rig rig, String asked) {
        return rig.channels().stream()
                .filter(c -> c.column().equals(asked) || c.name().equals(asked))
                .map(Channel::column)
                .findFirst()
                .orElseThrow(() -> new ReaderException(take.file() + " has no column '" + asked + "'; it has "
                        + String.join(
                                ", ",
                                rig.channels().stream().map(Channel::column).toList())));
    }

    /** Runs the readers of a line that were not there before, each over channels that begin with it. */
    private static void read(
            Facts facts,
            Rig rig,
            Line line,
            List<Channel> own,
            List<ReaderSetup> wanted,
            StoredTake before,
            Map<String, Work> works,
            String of,
            Told told) {
        Map<Channel, ChannelChain> chains = new IdentityHashMap<>();
        List<ReaderRunner> fresh = new ArrayList<>();
        for (ReaderSetup setup : wanted) {
            List<Channel> ports = new ArrayList<>();
            for (String column : setup.columns()) {
                own.stream().filter(c -> c.column().equals(column)).forEach(ports::add);
            }
            if (ports.isEmpty() || ports.size() < setup.columns().size()) {
                continue;
            }
            Work kept = before == null ? null : before.works.get(of + setup.id());
            boolean same = kept != null
                    && kept.runner().setup().equals(setup)
                    && kept.channels().equals(ports)
                    && kept.runner().watchesOnly(rig.bandsOn(setup.id()))
                    && ports.stream().allMatch(c -> c.scaling().columns().isEmpty());
            if (same) {
                works.put(of + setup.id(), kept);
                continue;
            }
            List<ChannelChain> through = ports.stream()
                    .map(c -> chains.computeIfAbsent(c, key -> chain(rig, line, key)))
                    .toList();
            ReaderRunner runner = new ReaderRunner(setup, rig.bandsOn(setup.id()), through);
            runner.edited(facts.edits().getOrDefault(setup.id(), List.of()));
            fresh.add(runner);
            works.put(of + setup.id(), new Work(runner, ports));
        }
        if (!fresh.isEmpty()) {
            run(line, chains, fresh, told);
        }
    }

    private static ChannelChain chain(Rig rig, Line line, Channel channel) {
        int column = line.columnOf(rig, channel);
        double[] values = line.columns()[column];
        return new ChannelChain(
                rig, channel, column, line.strand().rateHz(), ChannelChain.rowsEach(values, 0, values.length));
    }

    private static void run(Line line, Map<Channel, ChannelChain> chains, List<ReaderRunner> readers, Told told) {
        double[] seconds = line.seconds();
        Stretches stretches =
                new Stretches(line.strand().rateHz(), line.source().setup().warmUpSeconds());
        for (int from = 0; from < seconds.length; from += PIECE) {
            int to = Math.min(seconds.length, from + PIECE);
            told.at(READ_SHARE + (DRAWN_SHARE - READ_SHARE) * from / seconds.length);
            for (Stretches.Stretch stretch : stretches.part(seconds, from, to)) {
                if (stretch.afterGap()) {
                    chains.values().forEach(ChannelChain::gap);
                    readers.forEach(ReaderRunner::gap);
                }
                if (stretch.cold()) {
                    continue;
                }
                Map<ChannelChain, ChannelChain.Part> parts = new IdentityHashMap<>();
                for (ChannelChain chain : chains.values()) {
                    parts.put(chain, chain.part(c -> line.columns()[c], stretch.from(), stretch.to(), seconds));
                }
                for (ReaderRunner reader : readers) {
                    reader.part(reader.chains().stream().map(parts::get).toList());
                }
            }
        }
        readers.forEach(ReaderRunner::finish);
    }

    private static ChannelSight channel(
            Rig rig, Line line, Channel channel, StoredTake before, Map<String, Work> works) {
        ChannelSight old =
                before == null ? null : before.sight().channel(channel.column()).orElse(null);
        List<ReaderSight> readers = new ArrayList<>();
        for (ReaderSetup setup : rig.readersOn(channel.column())) {
            Work work = works.get(setup.id());
            if (work != null) {
                readers.add(work.runner().whole());
            }
        }
        String levelId =
                LEVELS + ReaderSetup.on(channel.column(), Level.NAME, Map.of()).id();
        LevelNow level = LevelNow.of(works.get(levelId).runner().whole().reading());
        boolean sameSignal = old != null
                && old.channel().scaling().equals(channel.scaling())
                && old.channel().recipe().equals(channel.recipe())
                && old.channel().limits().equals(channel.limits())
                && channel.scaling().columns().isEmpty();
        if (sameSignal) {
            return new ChannelSight(
                    channel,
                    line.strand(),
                    old.rateHz(),
                    old.raw(),
                    old.clean(),
                    0,
                    0,
                    old.latestRaw(),
                    old.latestClean(),
                    level,
                    readers,
                    false,
                    old.beyond(),
                    old.scalingNow(),
                    old.trouble());
        }
        return drawn(rig, line, channel, old, level, readers);
    }

    private static ChannelSight drawn(
            Rig rig, Line line, Channel channel, ChannelSight old, LevelNow level, List<ReaderSight> readers) {
        double[] raw = line.columns()[line.columnOf(rig, channel)];
        int n = raw.length;
        Series rawSeries = old == null ? new Series(n) : old.raw();
        if (old == null) {
            rawSeries.append(raw, 0, n);
        }
        // Without its recipe the chain scales only; the recipe runs both ways over what is read of it.
        ChannelChain scaled = chain(rig, line, channel.withRecipe(Recipe.NONE));
        double[] clean = new double[n];
        Arrays.fill(clean, Double.NaN);
        String trouble = scaled.trouble();
        Stretches stretches =
                new Stretches(line.strand().rateHz(), line.source().setup().warmUpSeconds());
        for (Stretches.Stretch stretch : stretches.part(line.seconds(), 0, n)) {
            if (stretch.cold()) {
                continue;
            }
            ChannelChain.Part part = scaled.part(c -> line.columns()[c], stretch.from(), stretch.to(), line.seconds());
            double[] values = part.values.clone();
            try {
                channel.recipe().bothWays(values, scaled.rateHz());
            } catch (RecipeException e) {
                trouble = e.getMessage();
            }
            int next = 0;
            for (int i = 0; i < part.rows.length; i++) {
                boolean there = !scaled.sparse() || !Double.isNaN(part.rows[i]);
                clean[stretch.from() + i] = there ? values[next++] : Double.NaN;
            }
        }
        Series cleanSeries = new Series(n);
        cleanSeries.append(clean, 0, n);
        return new ChannelSight(
                channel,
                line.strand(),
                scaled.rateHz(),
                rawSeries,
                cleanSeries,
                0,
                0,
                latest(raw),
                latest(clean),
                level,
                readers,
                false,
                worstBeyond(channel.limits(), clean),
                channel.scaling().at(scaled.latestOthers()),
                trouble);
    }

    private static double latest(double[] values) {
        for (int i = values.length - 1; i >= 0; i--) {
            if (!Double.isNaN(values[i])) {
                return values[i];
            }
        }
        return Double.NaN;
    }

    private static double worstBeyond(Limits limits, double[] values) {
        double low = Double.NaN;
        double high = Double.NaN;
        for (double value : values) {
            high = value > limits.high() && !(value <= high) ? value : high;
            low = value < limits.low() && !(value >= low) ? value : low;
        }
        return Double.isNaN(high) ? low : high;
    }

    public Sight sight() {
        return sight;
    }

    public String title() {
        return facts.title();
    }

    /** @return what of it did not check and was left out, in words; empty where all did */
    public List<String> damage() {
        return facts.damage();
    }

    /** @return what was mended when it was opened, in words; empty when nothing was */
    public String mended() {
        return facts.mended();
    }

    public List<Mark> marks() {
        return facts.marks();
    }

    /** @return the changes made by hand to a reader's events */
    public List<HandEdit> edits(String reader) {
        return facts.edits().getOrDefault(reader, List.of());
    }
}
