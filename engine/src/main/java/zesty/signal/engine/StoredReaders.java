package zesty.signal.engine;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import zesty.signal.core.read.HandEdit;
import zesty.signal.core.read.level.Level;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Segments;
import zesty.signal.core.text.Messages;

/**
 * The readers that have gone through a take's lines: those that its rig names, and each channel's own level. Immutable:
 * {@link #keeping} and {@link #reading} give others, which share what was read.
 */
final class StoredReaders {
    static final StoredReaders NONE = new StoredReaders(Map.of());

    /** How far the work is when all is drawn; reading is what is left. */
    static final double DRAWN_SHARE = 0.6;

    private static final int PIECE = 1 << 14;
    /** What every channel's own level is kept under, beside the readers that the rig names. */
    private static final String LEVELS = Messages.of("engine.each-channel-s");

    private final Map<String, Work> all;

    private StoredReaders(Map<String, Work> all) {
        this.all = all;
    }

    /** A reader that has read the take, and the channels as they were. */
    private record Work(ReaderRunner runner, List<Channel> channels) {
        /** Several forms of a take share the runner: what was changed by hand is that of the form that asks. */
        ReaderSnapshot whole(List<HandEdit> edits) {
            synchronized (runner) {
                runner.edited(edits);
                return runner.whole();
            }
        }
    }

    /** What of the time is read, in s, both ends held. */
    private record Extent(double from, double to) {
        static final Extent ALL = new Extent(Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY);
    }

    private static List<ReaderSetup> levels(List<Channel> own) {
        return own.stream()
                .map(channel -> ReaderSetup.on(channel.column(), Level.NAME, Map.of()))
                .toList();
    }

    private static List<Channel> ports(ReaderSetup setup, List<Channel> own) {
        List<Channel> ports = new ArrayList<>();
        for (String column : setup.columns()) {
            own.stream().filter(c -> c.column().equals(column)).forEach(ports::add);
        }
        return ports;
    }

    /** @return those that read the same with the rig */
    StoredReaders keeping(Rig rig, List<StoredLine> lines) {
        Map<String, Work> kept = new HashMap<>();
        for (StoredLine line : lines) {
            List<Channel> own = line.channels(rig);
            keep(rig, own, rig.readers(), "", kept);
            keep(rig, own, levels(own), LEVELS, kept);
        }
        return new StoredReaders(kept);
    }

    private void keep(Rig rig, List<Channel> own, List<ReaderSetup> wanted, String of, Map<String, Work> kept) {
        for (ReaderSetup setup : wanted) {
            List<Channel> ports = ports(setup, own);
            Work work = all.get(of + setup.id());
            boolean same = work != null
                    && work.runner().setup().equals(setup)
                    && work.channels().equals(ports)
                    && work.runner().watchesOnly(rig.bandsOn(setup.id()))
                    && ports.stream().allMatch(c -> c.scaling().columns().isEmpty());
            if (same) {
                kept.put(of + setup.id(), work);
            }
        }
    }

    /** @return with all that the rig names, those that have not read the lines yet doing so */
    StoredReaders reading(Rig rig, List<StoredLine> lines, Progress progress) {
        Map<String, Work> done = new HashMap<>(all);
        for (StoredLine line : lines) {
            List<Channel> own = line.channels(rig);
            read(rig, line, rig.readers(), "", done, Extent.ALL, progress);
            read(rig, line, levels(own), LEVELS, done, Extent.ALL, progress);
        }
        return new StoredReaders(done);
    }

    /**
     * @param from begin and {@code to} end of what it reads, in s, both held
     * @return with one reader that has read a line, where that carries all its columns
     */
    StoredReaders reading(Rig rig, StoredLine line, ReaderSetup setup, double from, double to) {
        Map<String, Work> done = new HashMap<>(all);
        read(rig, line, List.of(setup), "", done, new Extent(from, to), Progress.untold());
        return new StoredReaders(done);
    }

    /** Runs the readers of a line that have not read it yet, each over channels that begin with it. */
    private static void read(
            Rig rig,
            StoredLine line,
            List<ReaderSetup> wanted,
            String of,
            Map<String, Work> done,
            Extent extent,
            Progress progress) {
        List<Channel> own = line.channels(rig);
        Map<Channel, ChannelChain> chains = new IdentityHashMap<>();
        List<ReaderRunner> fresh = new ArrayList<>();
        for (ReaderSetup setup : wanted) {
            List<Channel> ports = ports(setup, own);
            if (ports.isEmpty() || ports.size() < setup.columns().size() || done.containsKey(of + setup.id())) {
                continue;
            }
            List<ChannelChain> through = ports.stream()
                    .map(c -> chains.computeIfAbsent(c, key -> line.chain(rig, key)))
                    .toList();
            ReaderRunner runner = new ReaderRunner(setup, rig.bandsOn(setup.id()), through);
            runner.readOnly(extent.from(), extent.to());
            fresh.add(runner);
            done.put(of + setup.id(), new Work(runner, ports));
        }
        if (!fresh.isEmpty()) {
            run(line, chains, fresh, progress);
        }
    }

    private static void run(
            StoredLine line, Map<Channel, ChannelChain> chains, List<ReaderRunner> readers, Progress progress) {
        Rows rows = line.rows();
        Segments segments = line.segments();
        List<SegmentRun.Lane> lanes =
                chains.values().stream().map(SegmentRun.Lane::of).toList();
        for (long from = 0; from < rows.count(); from += PIECE) {
            long to = Math.min(rows.count(), from + PIECE);
            progress.at(DRAWN_SHARE + (1 - DRAWN_SHARE) * from / rows.count());
            double[] seconds = rows.seconds(from, to);
            SegmentRun.run(segments, lanes, readers, line.columns(from, to), seconds);
        }
        readers.forEach(ReaderRunner::finish);
    }

    boolean has(ReaderSetup setup) {
        return all.containsKey(setup.id());
    }

    /** @param edits what was changed by hand of its events */
    ReaderSnapshot seen(ReaderSetup setup, List<HandEdit> edits) {
        Work work = all.get(setup.id());
        return work == null ? ReaderSnapshot.unread(setup) : work.whole(edits);
    }

    LevelNow level(Channel channel) {
        Work level = all.get(
                LEVELS + ReaderSetup.on(channel.column(), Level.NAME, Map.of()).id());
        return LevelNow.of(level == null ? null : level.whole(List.of()).reading());
    }

    /** @return what was wrong with the cleaning of the channels that it reads; empty for nothing */
    String cleaningTrouble(ReaderSetup setup) {
        return all.get(setup.id()).runner().chains().stream()
                .map(ChannelChain::trouble)
                .filter(trouble -> !trouble.isEmpty())
                .findFirst()
                .orElse("");
    }
}
