package zesty.signal.engine;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.function.DoublePredicate;
import java.util.function.Supplier;
import zesty.signal.core.decode.Role;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.decode.StreamFormat;
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
import zesty.signal.core.sample.Segments;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.takes.Mark;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/**
 * A stored take worked out again with a rig. What is read runs through the same chains as on the live trail, so that it
 * answers the same; what is drawn is cleaned both ways between the gaps, so that nothing in it is late. A take that is small is
 * held in memory and is complete at once. Of a long one pages are read when they are looked at: it can be seen at once,
 * {@link #finish} draws and reads all of it, and it must be closed. Immutable but for {@link #with}, {@link #edited} and
 * {@link #finish}, which give another that shares the rows. Making one is not for the window's thread.
 */
public final class StoredTake implements AutoCloseable {
    private static final int PIECE = 1 << 14;
    /** A take of so many values, times included, is held in memory: 32 MB. */
    private static final long MOST_HELD = 1 << 22;
    /** Pages of so many values are kept: 128 MB. */
    private static final long MOST_PAGED = 1 << 24;
    /** How far the work is when all is read from the disk, and when all is drawn. */
    private static final double READ_SHARE = 0.4;

    private static final double DRAWN_SHARE = 0.6;
    /** What every channel's own level is kept under, beside the readers that the rig names. */
    private static final String LEVELS = "each channel's ";

    private final Facts facts;
    private final Snapshot snapshot;
    private final Map<String, Work> tasks;
    private final Map<String, StoredLine.Drawing> drawings;
    private final boolean finished;

    /** What does not change with the rig. */
    private record Facts(
            String title,
            String mended,
            Supplier<List<String>> damage,
            List<StoredLine> lines,
            List<Mark> marks,
            Map<String, List<HandEdit>> edits,
            Pages pages,
            Take open) {
        Facts edited(Map<String, List<HandEdit>> others) {
            return new Facts(title, mended, damage, lines, marks, others, pages, open);
        }

        boolean held() {
            return lines.stream().allMatch(line -> line.rows().held());
        }
    }

    /** What pages are kept in and made by, and up to how many values need none. */
    private record Pages(PageCache cache, Pager pager, long mostHeld) {}

    /** A reader that has read the take, and the channels as they were. */
    private record Work(ReaderRunner runner, List<Channel> channels) {}

    private StoredTake(
            Facts facts,
            Snapshot snapshot,
            Map<String, Work> tasks,
            Map<String, StoredLine.Drawing> drawings,
            boolean finished) {
        this.facts = facts;
        this.snapshot = snapshot;
        this.tasks = tasks;
        this.drawings = drawings;
        this.finished = finished;
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
     * Works all of a take out with its own rig.
     *
     * @param take stays the caller's, and must stay open as long as a long one is looked at
     * @param goOn hears how far it is, 0 … 1, and says whether to go on
     * @throws CancellationException when it said no
     */
    public static StoredTake load(Take take, DoublePredicate goOn) throws TakeException {
        return load(take, goOn, MOST_HELD);
    }

    /** @param mostHeld up to so many values it is held in memory */
    static StoredTake load(Take take, DoublePredicate goOn, long mostHeld) throws TakeException {
        Told told = new Told(goOn);
        return of(take, null, told, mostHeld).finish(told);
    }

    /**
     * Opens a take to look at it with its own rig. One that is small is complete; of a long one {@link #finished} says no.
     *
     * @param goOn hears how far it is, 0 … 1, and says whether to go on
     * @throws CancellationException when it said no
     */
    public static StoredTake open(Path file, DoublePredicate goOn) throws TakeException {
        Take take = Take.open(file);
        StoredTake made = null;
        try {
            Told told = new Told(goOn);
            made = of(take, take, told, MOST_HELD);
            made = made.facts.held() ? made.finish(told) : made;
            return made;
        } finally {
            if (made == null || made.facts.held()) {
                take.close();
            }
        }
    }

    private static StoredTake of(Take take, Take owned, Told told, long mostHeld) throws TakeException {
        if (take.rows() < 2) {
            throw new TakeException(take.file() + " holds " + take.rows() + " rows; there is nothing to draw");
        }
        Rig fitted = take.rigOrPlain();
        Pages pages = new Pages(new PageCache(MOST_PAGED), new Pager(), mostHeld);
        List<StoredLine> lines = new ArrayList<>();
        for (int s = 0; s < fitted.sources().size(); s++) {
            if (take.rows(s) > 1) {
                fitted = fitted.fittedTo(s, fitted.sources().get(s).format());
                fitted = lines(take, s, fitted, lines, pages, told);
            }
        }
        boolean held = lines.stream().allMatch(line -> line.rows().held());
        List<String> damage = held ? take.damage() : List.of();
        Supplier<List<String>> damaged = held
                ? () -> damage
                : () -> {
                    List<String> words = new ArrayList<>();
                    synchronized (take) {
                        words.addAll(take.damage());
                    }
                    if (!pages.pager().trouble().isEmpty()) {
                        words.add(pages.pager().trouble());
                    }
                    return words;
                };
        Facts facts = new Facts(
                take.title(), take.mended(), damaged, lines, take.marks(), take.edits(), pages, held ? null : owned);
        return made(facts, fitted, null, Map.of());
    }

    /** Adds the lines of samples of a source. @return the rig with the stations that turned up */
    private static Rig lines(Take take, int index, Rig rig, List<StoredLine> lines, Pages pages, Told told)
            throws TakeException {
        Source source = rig.sources().get(index);
        int columns = source.format().columns().size();
        int stationColumn = source.format().indexOf(Role.STATION);
        boolean isLong = values(take, rig) > pages.mostHeld();
        if (isLong && stationColumn < 0) {
            lines.add(StoredLine.filed(
                    source,
                    index,
                    new FiledRows(take, index, columns),
                    take.gaps(index),
                    pages.cache(),
                    pages.pager()));
            return rig;
        }
        HeldRows held = held(take, index, columns, told);
        if (stationColumn < 0) {
            lines.add(StoredLine.held(source, index, Double.NaN, held, take.gaps(index), pages.cache(), pages.pager()));
            return rig;
        }
        Rig fitted = rig;
        Block all = new Block(new TimeBase.Explicit(held.times()), held.columns(), held.times().length, List.of());
        for (Map.Entry<Double, Block> part : Stations.part(all, stationColumn).entrySet()) {
            Block block = part.getValue();
            double[] own = ((TimeBase.Explicit) block.time()).seconds();
            if (own.length > 1) {
                HeldRows rows = new HeldRows(block.columns(), own);
                lines.add(StoredLine.held(source, index, part.getKey(), rows, null, pages.cache(), pages.pager()));
                fitted = fitted.withStation(index, part.getKey());
            }
        }
        return fitted;
    }

    /** @return how many values the take has, times included */
    private static long values(Take take, Rig rig) {
        long values = 0;
        for (int s = 0; s < rig.sources().size(); s++) {
            StreamFormat format = rig.sources().get(s).format();
            values += take.rows(s) * (format == null ? 1L : format.columns().size() + 1L);
        }
        return values;
    }

    private static HeldRows held(Take take, int index, int count, Told told) throws TakeException {
        if (take.rows(index) * (count + 1) > MOST_HELD * 16) {
            throw new TakeException(take.file() + " holds " + take.rows(index) + " rows of several stations; up to "
                    + MOST_HELD * 16 / (count + 1) + " can be worked on at once");
        }
        double[][] columns = new double[count][];
        int first = take.firstColumn(index);
        for (int c = 0; c < count; c++) {
            columns[c] = take.column(first + c);
            told.at(READ_SHARE * (c + 1) / count);
        }
        return new HeldRows(columns, take.times(index));
    }

    /** @return the same take worked out with a changed rig; what did not change is not worked out again */
    public StoredTake with(Rig changed) {
        StoredTake other = made(facts, changed, this, tasks);
        return facts.held() ? other.finish(Told.NOBODY) : other;
    }

    /** @return the same take with other changes made by hand to a reader's events */
    public StoredTake edited(String reader, List<HandEdit> edits) {
        Map<String, List<HandEdit>> others = new HashMap<>(facts.edits());
        others.put(reader, List.copyOf(edits));
        Work done = tasks.get(reader);
        if (done != null) {
            done.runner().edited(edits);
        }
        StoredTake other = made(facts.edited(others), snapshot.rig(), this, tasks);
        return facts.held() ? other.finish(Told.NOBODY) : other;
    }

    /** @return whether all of it is drawn and read; else {@link #finish} does the rest */
    public boolean finished() {
        return finished;
    }

    /**
     * Draws what is not drawn yet and reads what is not read yet. Any thread; of a long take meanwhile others may look.
     *
     * @param goOn hears how far it is, 0 … 1, and says whether to go on
     * @throws CancellationException when it said no
     */
    public StoredTake finish(DoublePredicate goOn) {
        return finish(new Told(goOn));
    }

    private StoredTake finish(Told told) {
        draw(told);
        Map<String, Work> done = new HashMap<>(tasks);
        for (StoredLine line : facts.lines()) {
            List<Channel> own = own(snapshot.rig(), line);
            List<ReaderSetup> all = new ArrayList<>(snapshot.rig().readers());
            read(facts, snapshot.rig(), line, own, all, done, "", told);
            read(facts, snapshot.rig(), line, own, levels(own), done, LEVELS, told);
        }
        told.at(1);
        return new StoredTake(facts, snapshot(facts, snapshot.rig(), done, drawings), done, drawings, true);
    }

    /** Works the extremes of all signals out, side by side from the beginning, so that all fill up together. */
    private void draw(Told told) {
        List<PagedSeries> all = new ArrayList<>();
        for (ChannelSnapshot channel : snapshot.channels()) {
            all.add((PagedSeries) channel.raw());
            all.add((PagedSeries) channel.clean());
        }
        long rows = all.stream().mapToLong(Series::end).sum();
        long done = 0;
        double from = facts.held() ? READ_SHARE : 0;
        int[] next = new int[all.size()];
        while (true) {
            int behind = -1;
            double least = 1;
            for (int k = 0; k < next.length; k++) {
                double share = (double) next[k] / all.get(k).pages();
                if (share < least) {
                    least = share;
                    behind = k;
                }
            }
            if (behind < 0) {
                return;
            }
            PagedSeries series = all.get(behind);
            series.sweep(next[behind]++);
            done += series.end() / series.pages();
            told.at(from + (DRAWN_SHARE - from) * Math.min(1, (double) done / rows));
        }
    }

    private static List<Channel> own(Rig rig, StoredLine line) {
        return rig.channels().stream().filter(c -> line.has(rig, c)).toList();
    }

    private static List<ReaderSetup> levels(List<Channel> own) {
        return own.stream()
                .map(channel -> ReaderSetup.on(channel.column(), Level.NAME, Map.of()))
                .toList();
    }

    /** @param kept what was read before, of which all that still holds is taken over */
    private static StoredTake made(Facts facts, Rig rig, StoredTake before, Map<String, Work> kept) {
        Map<String, Work> tasks = new HashMap<>();
        Map<String, StoredLine.Drawing> drawings = new HashMap<>();
        for (StoredLine line : facts.lines()) {
            List<Channel> own = own(rig, line);
            keep(rig, own, rig.readers(), "", kept, tasks);
            keep(rig, own, levels(own), LEVELS, kept, tasks);
            for (Channel channel : own) {
                drawings.put(channel.column(), drawing(rig, line, channel, before));
            }
        }
        return new StoredTake(facts, snapshot(facts, rig, tasks, drawings), tasks, drawings, false);
    }

    private static void keep(
            Rig rig,
            List<Channel> own,
            List<ReaderSetup> wanted,
            String of,
            Map<String, Work> before,
            Map<String, Work> tasks) {
        for (ReaderSetup setup : wanted) {
            List<Channel> ports = ports(setup, own);
            Work work = before.get(of + setup.id());
            boolean same = work != null
                    && work.runner().setup().equals(setup)
                    && work.channels().equals(ports)
                    && work.runner().watchesOnly(rig.bandsOn(setup.id()))
                    && ports.stream().allMatch(c -> c.scaling().columns().isEmpty());
            if (same) {
                tasks.put(of + setup.id(), work);
            }
        }
    }

    private static List<Channel> ports(ReaderSetup setup, List<Channel> own) {
        List<Channel> ports = new ArrayList<>();
        for (String column : setup.columns()) {
            own.stream().filter(c -> c.column().equals(column)).forEach(ports::add);
        }
        return ports;
    }

    private static StoredLine.Drawing drawing(Rig rig, StoredLine line, Channel channel, StoredTake before) {
        ChannelSnapshot old = before == null
                ? null
                : before.snapshot().channel(channel.column()).orElse(null);
        boolean sameSignal = old != null
                && old.channel().scaling().equals(channel.scaling())
                && old.channel().recipe().equals(channel.recipe())
                && channel.scaling().columns().isEmpty();
        return sameSignal ? before.drawings.get(channel.column()) : line.new Drawing(rig, channel);
    }

    private static Snapshot snapshot(
            Facts facts, Rig rig, Map<String, Work> tasks, Map<String, StoredLine.Drawing> drawings) {
        List<ChannelSnapshot> channels = new ArrayList<>();
        for (Channel channel : rig.channels()) {
            facts.lines().stream()
                    .filter(line -> line.has(rig, channel))
                    .findFirst()
                    .ifPresent(
                            line -> channels.add(channel(rig, line, channel, tasks, drawings.get(channel.column()))));
        }
        LinkHealth health = LinkHealth.IDLE.withState(LinkState.STORED, "");
        List<StreamSnapshot> streams =
                facts.lines().stream().map(StoredLine::stream).toList();
        return new Snapshot(
                Collections.nCopies(rig.sources().size(), health), rig, streams, channels, RecordingSnapshot.NONE);
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
        List<StoredLine> lines = new ArrayList<>();
        Pages pages = new Pages(new PageCache(MOST_PAGED), new Pager(), MOST_HELD);
        Rig fitted = lines(take, source, rig, lines, pages, Told.NOBODY);
        ReaderSetup setup = new ReaderSetup(kind, own, settings);
        Facts facts = new Facts("", "", List::of, lines, List.of(), take.edits(), pages, null);
        for (StoredLine line : lines) {
            Map<String, Work> tasks = new HashMap<>();
            read(facts, fitted, line, own(fitted, line), List.of(setup), tasks, "", Told.NOBODY);
            Work work = tasks.get(setup.id());
            if (work != null) {
                ReaderSnapshot seen = work.runner().whole();
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

    /** Runs the readers of a line that have not read it yet, each over channels that begin with it. */
    private static void read(
            Facts facts,
            Rig rig,
            StoredLine line,
            List<Channel> own,
            List<ReaderSetup> wanted,
            Map<String, Work> tasks,
            String of,
            Told told) {
        Map<Channel, ChannelChain> chains = new IdentityHashMap<>();
        List<ReaderRunner> fresh = new ArrayList<>();
        for (ReaderSetup setup : wanted) {
            List<Channel> ports = ports(setup, own);
            if (ports.isEmpty() || ports.size() < setup.columns().size() || tasks.containsKey(of + setup.id())) {
                continue;
            }
            List<ChannelChain> through = ports.stream()
                    .map(c -> chains.computeIfAbsent(c, key -> line.chain(rig, key)))
                    .toList();
            ReaderRunner runner = new ReaderRunner(setup, rig.bandsOn(setup.id()), through);
            runner.edited(facts.edits().getOrDefault(setup.id(), List.of()));
            fresh.add(runner);
            tasks.put(of + setup.id(), new Work(runner, ports));
        }
        if (!fresh.isEmpty()) {
            run(line, chains, fresh, told);
        }
    }

    private static void run(StoredLine line, Map<Channel, ChannelChain> chains, List<ReaderRunner> readers, Told told) {
        Rows rows = line.rows();
        Segments segments = line.segments();
        List<SegmentRun.Lane> lanes =
                chains.values().stream().map(SegmentRun.Lane::of).toList();
        for (long from = 0; from < rows.count(); from += PIECE) {
            long to = Math.min(rows.count(), from + PIECE);
            told.at(DRAWN_SHARE + (1 - DRAWN_SHARE) * from / rows.count());
            double[] seconds = rows.seconds(from, to);
            SegmentRun.run(segments, lanes, readers, line.columns(from, to), seconds);
        }
        readers.forEach(ReaderRunner::finish);
    }

    private static ChannelSnapshot channel(
            Rig rig, StoredLine line, Channel channel, Map<String, Work> tasks, StoredLine.Drawing drawing) {
        List<ReaderSnapshot> readers = new ArrayList<>();
        for (ReaderSetup setup : rig.readersOn(channel.column())) {
            Work work = tasks.get(setup.id());
            readers.add(work != null ? work.runner().whole() : ReaderSnapshot.unread(setup));
        }
        Work level = tasks.get(
                LEVELS + ReaderSetup.on(channel.column(), Level.NAME, Map.of()).id());
        LevelNow now = LevelNow.of(level == null ? null : level.runner().whole().reading());
        return new ChannelSnapshot(
                channel,
                line.stream(),
                drawing.rateHz(),
                line.raw(rig, channel),
                drawing.series(),
                0,
                0,
                drawing.longestHoleSeconds(),
                line.latestRaw(rig, channel),
                drawing.latest(),
                now,
                readers,
                false,
                beyond(channel.limits(), now),
                channel.scaling().at(drawing.latestOthers()),
                drawing.trouble());
    }

    /** @return the value furthest beyond a limit, above before below; NaN when there is none */
    private static double beyond(Limits limits, LevelNow level) {
        return level.highest() > limits.high()
                ? level.highest()
                : level.lowest() < limits.low() ? level.lowest() : Double.NaN;
    }

    public Snapshot snapshot() {
        return snapshot;
    }

    public String title() {
        return facts.title();
    }

    /** @return what of it did not check and was left out, in words; empty where all did */
    public List<String> damage() {
        return facts.damage().get();
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

    /** @return whether it is too long for memory, so that its file stays open and {@link #close} is due */
    public boolean isLong() {
        return !facts.held();
    }

    /** Lets its file go, for all forms of it. What was not read by then is missing from then on. */
    @Override
    public void close() {
        facts.pages().pager().close();
        if (facts.open() != null) {
            try {
                synchronized (facts.open()) {
                    facts.open().close();
                }
            } catch (TakeException e) {
                // It was only read.
            }
        }
    }
}
