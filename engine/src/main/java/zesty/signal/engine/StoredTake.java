package zesty.signal.engine;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.function.DoublePredicate;
import java.util.function.Supplier;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.read.HandEdit;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Limits;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Series;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Decision;
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
    private final Facts facts;
    private final Snapshot snapshot;
    private final StoredReaders readers;
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
            List<Decision> decisions,
            Pager pager,
            Take open) {
        Facts edited(Map<String, List<HandEdit>> others) {
            return new Facts(title, mended, damage, lines, marks, others, decisions, pager, open);
        }

        /** What a rig makes of pictures. */
        Facts pictured(Rig rig) {
            List<StoredLine> others =
                    lines.stream().map(line -> line.pictured(rig)).toList();
            return new Facts(title, mended, damage, others, marks, edits, decisions, pager, open);
        }

        Facts marked(List<Mark> others) {
            return new Facts(title, mended, damage, lines, others, edits, decisions, pager, open);
        }

        boolean held() {
            return lines.stream().allMatch(line -> line.rows().held());
        }

        List<HandEdit> edits(String reader) {
            return edits.getOrDefault(reader, List.of());
        }
    }

    private StoredTake(
            Facts facts, Rig rig, StoredReaders readers, Map<String, StoredLine.Drawing> drawings, boolean finished) {
        this.facts = facts;
        this.readers = readers;
        this.drawings = drawings;
        this.finished = finished;
        snapshot = snapshot(facts, rig, readers, drawings);
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
        return load(take, goOn, TakeLines.MOST_HELD);
    }

    /** @param mostHeld up to so many values it is held in memory */
    static StoredTake load(Take take, DoublePredicate goOn, long mostHeld) throws TakeException {
        Progress progress = new Progress(goOn);
        return of(take, null, progress, mostHeld).finish(progress);
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
            Progress progress = new Progress(goOn);
            made = of(take, take, progress, TakeLines.MOST_HELD);
            made = made.facts.held() ? made.finish(progress) : made;
            return made;
        } finally {
            if (made == null || made.facts.held()) {
                take.close();
            }
        }
    }

    private static StoredTake of(Take take, Take owned, Progress progress, long mostHeld) throws TakeException {
        if (take.rows() < 2) {
            throw new TakeException(Messages.of("engine.holds-rows-there-is-nothing-to", take.file(), take.rows()));
        }
        TakeLines.Pages pages = TakeLines.Pages.upTo(mostHeld);
        TakeLines lines = TakeLines.of(take, pages, progress);
        Facts facts = new Facts(
                take.title(),
                take.mended(),
                damage(take, lines.held(), pages.pager()),
                lines.lines(),
                take.marks(),
                take.edits(),
                take.decisions(),
                pages.pager(),
                lines.held() ? null : owned);
        return made(facts, lines.rig(), null, StoredReaders.NONE);
    }

    /** @return what is damaged: all of it is known of a take in memory, of a long one more may be found while it is read */
    private static Supplier<List<String>> damage(Take take, boolean held, Pager pager) {
        if (held) {
            List<String> damage = take.damage();
            return () -> damage;
        }
        return () -> {
            List<String> words = new ArrayList<>();
            synchronized (take) {
                words.addAll(take.damage());
            }
            if (!pager.trouble().isEmpty()) {
                words.add(pager.trouble());
            }
            return words;
        };
    }

    /** @return the same take worked out with a changed rig; what did not change is not worked out again */
    public StoredTake with(Rig changed) {
        Rig fitted = changed;
        for (int source = 0; source < changed.sources().size(); source++) {
            if (changed.sources().get(source).format() instanceof PictureFormat picture) {
                // A part of the picture that is new is a channel.
                fitted = fitted.fittedTo(source, picture);
            }
        }
        StoredTake other = made(facts, fitted, this, readers);
        return facts.held() ? other.finish(Progress.untold()) : other;
    }

    /** @return the same take with other changes made by hand to a reader's events */
    public StoredTake edited(String reader, List<HandEdit> edits) {
        Map<String, List<HandEdit>> others = new HashMap<>(facts.edits());
        others.put(reader, List.copyOf(edits));
        StoredTake other = made(facts.edited(others), snapshot.rig(), this, readers);
        return facts.held() ? other.finish(Progress.untold()) : other;
    }

    /** @return the same take with other marks */
    public StoredTake marked(List<Mark> marks) {
        return new StoredTake(facts.marked(List.copyOf(marks)), snapshot.rig(), readers, drawings, finished);
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
        return finish(new Progress(goOn));
    }

    private StoredTake finish(Progress progress) {
        draw(progress);
        StoredReaders done = readers.reading(snapshot.rig(), facts.lines(), progress);
        progress.at(1);
        return new StoredTake(facts, snapshot.rig(), done, drawings, true);
    }

    /** Works the extremes of all signals out, side by side from the beginning, so that all fill up together. */
    private void draw(Progress progress) {
        List<PagedSeries> all = new ArrayList<>();
        for (ChannelSnapshot channel : snapshot.channels()) {
            all.add((PagedSeries) channel.raw());
            all.add((PagedSeries) channel.clean());
        }
        long rows = all.stream().mapToLong(Series::end).sum();
        long done = 0;
        double from = facts.held() ? TakeLines.READ_SHARE : 0;
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
            progress.at(from + (StoredReaders.DRAWN_SHARE - from) * Math.min(1, (double) done / rows));
        }
    }

    /** @param kept what was read before, of which all that still holds is taken over */
    private static StoredTake made(Facts was, Rig rig, StoredTake before, StoredReaders kept) {
        Facts facts = was.pictured(rig);
        // Of other pictures all is worked out anew.
        List<StoredLine> same =
                facts.lines().stream().filter(was.lines()::contains).toList();
        Map<String, StoredLine.Drawing> drawings = new HashMap<>();
        for (StoredLine line : facts.lines()) {
            for (Channel channel : line.channels(rig)) {
                drawings.put(channel.column(), drawing(rig, line, channel, same.contains(line) ? before : null));
            }
        }
        return new StoredTake(facts, rig, kept.keeping(rig, same), drawings, false);
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
            Facts facts, Rig rig, StoredReaders readers, Map<String, StoredLine.Drawing> drawings) {
        List<ChannelSnapshot> channels = new ArrayList<>();
        for (Channel channel : rig.channels()) {
            facts.lines().stream()
                    .filter(line -> line.has(rig, channel))
                    .findFirst()
                    .ifPresent(line ->
                            channels.add(channel(facts, rig, line, channel, readers, drawings.get(channel.column()))));
        }
        LinkHealth health = LinkHealth.IDLE.withState(LinkState.STORED, "");
        List<StreamSnapshot> streams =
                facts.lines().stream().map(StoredLine::stream).toList();
        return new Snapshot(
                Collections.nCopies(rig.sources().size(), health),
                rig,
                streams,
                channels,
                RecordingSnapshot.NONE,
                new ActSnapshot(List.of(), List.of(), "", facts.decisions(), null));
    }

    private static ChannelSnapshot channel(
            Facts facts, Rig rig, StoredLine line, Channel channel, StoredReaders read, StoredLine.Drawing drawing) {
        List<ReaderSnapshot> readers = rig.readersOn(channel.column()).stream()
                .map(setup -> read.seen(setup, facts.edits(setup.id())))
                .toList();
        LevelNow now = read.level(channel);
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
        return facts.edits(reader);
    }

    /** @return whether it is too long for memory, so that its file stays open and {@link #close} is due */
    public boolean isLong() {
        return !facts.held();
    }

    /** Lets its file go, for all forms of it. What was not read by then is missing from then on. */
    @Override
    public void close() {
        facts.pager().close();
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
