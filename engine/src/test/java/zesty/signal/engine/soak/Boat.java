package zesty.signal.engine.soak;

import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.engine.LinkHealth;
import zesty.signal.engine.RecordingLimit;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.Trail;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/**
 * Five boards at once, recorded, for as long as one likes, with a plan of faults: plugs pulled, stalls, floods, strange
 * bytes, a disk that is full and has room again, a computer that sleeps. What is watched is that memory, threads and
 * handles stay as they are, and that no row is lost uncounted.
 */
public final class Boat {
    private static final double[] RATES = {200, 500, 100, 50, 10};
    private static final int FAULTS = 6;
    /** Rows of this long fit on the small disk. */
    private static final double TAKE_SECONDS = 1200;

    /** How the process stands. */
    private record Stand(double hours, long heapKb, int threads, long handles, long residentKb) {}

    private final Path folder;
    private final double seconds;
    private final double pace;
    private final Random random;
    private final List<Stand> stands = new ArrayList<>();
    private final List<String> wrong = new ArrayList<>();
    private int faults;
    private int recordings;
    private long kept;

    private Boat(Path folder, double seconds, double pace, int seed) {
        this.folder = folder;
        this.seconds = seconds;
        this.pace = pace;
        random = new Random(seed);
    }

    /**
     * @param arguments how long, as 8h, 10min or 30s; then a folder for the takes, where a full disk is wanted a small one;
     *     then how many times as fast as its own time the boat sails: as many rows and faults, in a part of the night
     */
    public static void main(String[] arguments) throws Exception {
        String text = arguments[0];
        double number = Double.parseDouble(text.replaceAll("[a-z]+$", ""));
        double seconds = number * (text.endsWith("h") ? 3600 : text.endsWith("min") ? 60 : 1);
        Path folder = arguments.length > 1 ? Path.of(arguments[1]) : Files.createTempDirectory("zesty-boat");
        double pace = arguments.length > 2 ? Double.parseDouble(arguments[2]) : 1;
        List<String> wrong = sail(folder, seconds, pace);
        wrong.forEach(one -> System.out.println("wrong: " + one));
        System.exit(wrong.isEmpty() ? 0 : 1);
    }

    /** @return what was not as it should be; nothing where all is well */
    private static List<String> sail(Path folder, double seconds, double pace) throws Exception {
        Boat boat = new Boat(folder, seconds, pace, 7);
        boat.sail();
        return boat.wrong;
    }

    private void sail() throws Exception {
        List<NumberedBoard> boards = new ArrayList<>();
        for (int b = 0; b < RATES.length; b++) {
            boards.add(new NumberedBoard(pace * RATES[b], b + 1));
        }
        Rig rig = Rig.blank("boat", boards.get(0).address());
        for (int b = 1; b < boards.size(); b++) {
            rig = rig.joined("board " + (b + 1), SourceSetup.at(boards.get(b).address()));
        }
        // A fault lasts about a second of the clock on the wall, so that one has gone by before the next one comes.
        double every = Math.max(1.2 * pace, Math.min(20, seconds / 12));
        long began = System.nanoTime();
        double nextFault = 3 * pace;
        double nextStand = Math.min(60, seconds / 5);
        try (Trail trail = Trail.start(rig)) {
            for (double now = 0; now < seconds; now = (System.nanoTime() - began) * 1e-9 * pace) {
                TimeUnit.MILLISECONDS.sleep(100);
                record(trail, now);
                if (now >= nextFault && now < seconds - 2 * every) {
                    nextFault = now + every;
                    fault(boards, trail);
                }
                if (now >= nextStand) {
                    nextStand = now + Math.max(2 * pace, seconds / 40);
                    stand(now);
                }
            }
            if (trail.recording()) {
                count(trail.stopRecording().file());
            }
            // What a board measures while nobody hears it is told of by the row after it: each is heard before it
            // rests.
            heardAgain(trail);
            boards.forEach(NumberedBoard::rest);
            settle(trail);
            judge(trail.snapshot(System.nanoTime()), boards);
        }
        boards.forEach(NumberedBoard::close);
    }

    /** A recording runs whenever there is room for one; each is cut after a fifth of the way or {@link #TAKE_SECONDS}, and looked at. */
    private void record(Trail trail, double now) throws Exception {
        if (trail.recording()) {
            return;
        }
        Path last = trail.snapshot(System.nanoTime()).recording().file();
        if (last != null && Files.exists(last) && recordings > 0) {
            count(last);
        }
        Snapshot snapshot = trail.snapshot(System.nanoTime());
        if (snapshot.hasSamples() && snapshot.channels().size() >= 2 * RATES.length) {
            try {
                trail.record(
                        folder.resolve("take" + recordings + ".zest"),
                        "boat " + recordings,
                        RecordingLimit.ofSeconds(Math.max(2, Math.min(TAKE_SECONDS, seconds / 5) / pace)),
                        Instant.now());
                recordings++;
            } catch (Exception e) {
                // No room: said by the engine, tried again.
                TimeUnit.MILLISECONDS.sleep(200);
            }
        }
    }

    /** What a take holds is read back, and then goes: the disk is for the next one. */
    private void count(Path take) throws Exception {
        if (take == null || !Files.exists(take)) {
            return;
        }
        try (Take opened = open(take)) {
            opened.verify();
            kept += opened.rows();
            // A full disk may end a take early; what it holds is whole all the same.
            opened.damage().forEach(one -> wrong.add(take.getFileName() + ": " + one));
            if (opened.columns().isEmpty()) {
                wrong.add(take.getFileName() + " holds no column");
            }
        }
        try (Stream<Path> files = Files.list(folder)) {
            for (Path one : files.filter(f -> f.getFileName()
                            .toString()
                            .startsWith(take.getFileName().toString()))
                    .toList()) {
                Files.deleteIfExists(one);
            }
        }
    }

    /** The recorder lets go of its file a moment after it has said that it ended. */
    private static Take open(Path take) throws Exception {
        for (int i = 0; ; i++) {
            try {
                return Take.open(take);
            } catch (TakeException e) {
                if (i == 50) {
                    throw e;
                }
                TimeUnit.MILLISECONDS.sleep(100);
            }
        }
    }

    private void fault(List<NumberedBoard> boards, Trail trail) throws Exception {
        NumberedBoard board = boards.get(random.nextInt(boards.size()));
        switch (faults++ % FAULTS) {
            case 0 -> board.unplug(0.5 + random.nextDouble());
            case 1 -> board.stall(1);
            case 2 -> board.flood(1);
            case 3 -> board.rubbish(200 + random.nextInt(800));
            case 4 -> fill();
            default -> sleep();
        }
    }

    /** The disk is full for a moment, where it is a small one. */
    private void fill() throws IOException, InterruptedException {
        if (folder.toFile().getTotalSpace() > 256L << 20) {
            return;
        }
        Path filler = folder.resolve("filler");
        try {
            byte[] block = new byte[1 << 16];
            try (var out = Files.newOutputStream(filler)) {
                while (true) {
                    out.write(block);
                }
            }
        } catch (IOException e) {
            TimeUnit.MILLISECONDS.sleep(1500);
        } finally {
            Files.deleteIfExists(filler);
        }
    }

    /** The computer sleeps: this process stands still, the boards in it as well, and goes on. */
    private static void sleep() throws IOException, InterruptedException {
        long self = ProcessHandle.current().pid();
        new ProcessBuilder("sh", "-c", "kill -STOP " + self + "; sleep 1.5; kill -CONT " + self)
                .start()
                .waitFor();
    }

    private void stand(double now) throws IOException {
        System.gc();
        Runtime machine = Runtime.getRuntime();
        long heap = (machine.totalMemory() - machine.freeMemory()) >> 10;
        int threads = ManagementFactory.getThreadMXBean().getThreadCount();
        long handles;
        try (Stream<Path> open = Files.list(Path.of("/proc/self/fd"))) {
            handles = open.count();
        }
        long resident = Files.readAllLines(Path.of("/proc/self/status")).stream()
                .filter(line -> line.startsWith("VmRSS"))
                .mapToLong(line -> Long.parseLong(line.replaceAll("\\D", "")))
                .findFirst()
                .orElse(0);
        Stand stand = new Stand(now / 3600, heap, threads, handles, resident);
        stands.add(stand);
        System.out.printf(
                Locale.ROOT,
                "%.3f h: heap %d kB, %d threads, %d handles, resident %d kB, %d faults, %d takes%n",
                stand.hours(),
                heap,
                threads,
                handles,
                resident,
                faults,
                recordings);
    }

    private static void heardAgain(Trail trail) throws InterruptedException {
        long[] before = new long[RATES.length];
        int heard = 0;
        for (int i = 0; i < 300 && heard < RATES.length; i++) {
            Snapshot snapshot = trail.snapshot(System.nanoTime());
            heard = 0;
            for (int s = 0; s < RATES.length; s++) {
                before[s] = before[s] == 0 ? snapshot.health(s).rows() : before[s];
                heard += snapshot.health(s).rows() > before[s] ? 1 : 0;
            }
            TimeUnit.MILLISECONDS.sleep(100);
        }
    }

    /** Waits until nothing has come for a while: rows are held back for a moment, in case others overtook them. */
    private static void settle(Trail trail) throws InterruptedException {
        long before = -1;
        int quiet = 0;
        for (int i = 0; i < 600 && quiet < 50; i++) {
            long rows = 0;
            Snapshot snapshot = trail.snapshot(System.nanoTime());
            for (int s = 0; s < RATES.length; s++) {
                rows += snapshot.health(s).rows();
            }
            quiet = rows == before ? quiet + 1 : 0;
            before = rows;
            TimeUnit.MILLISECONDS.sleep(100);
        }
    }

    private void judge(Snapshot last, List<NumberedBoard> boards) {
        for (int s = 0; s < RATES.length; s++) {
            LinkHealth link = last.health(s);
            System.out.printf(
                    Locale.ROOT,
                    "source %d: %d rows, %d lost in %d gaps, %d rejected, %d reconnects, %d were due%n",
                    s + 1,
                    link.rows(),
                    link.lostRows(),
                    link.gaps(),
                    link.rejectedLines(),
                    link.reconnects(),
                    boards.get(s).due());
            long told = link.rows() + link.lostRows();
            if (told != boards.get(s).due()) {
                wrong.add("source " + (s + 1) + ": " + told + " rows received or counted as lost, "
                        + boards.get(s).due() + " were due");
            }
        }
        if (kept == 0) {
            wrong.add("no take holds a row");
        }
        Stand first = stands.get(stands.size() / 4);
        Stand end = stands.get(stands.size() - 1);
        if (end.threads() > first.threads() + 3) {
            wrong.add("threads grew from " + first.threads() + " to " + end.threads());
        }
        if (end.handles() > first.handles() + 12) {
            wrong.add("handles grew from " + first.handles() + " to " + end.handles());
        }
        if (end.heapKb() > 1.3 * first.heapKb() + 30_000) {
            wrong.add("memory grew from " + first.heapKb() + " to " + end.heapKb() + " kB");
        }
    }
}
