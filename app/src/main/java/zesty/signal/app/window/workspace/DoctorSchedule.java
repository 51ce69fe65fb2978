package zesty.signal.app.window.workspace;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.stream.LongStream;
import javafx.application.Platform;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.Step;
import zesty.signal.core.doctor.Doctor;
import zesty.signal.core.doctor.Examined;
import zesty.signal.core.doctor.Finding;
import zesty.signal.core.read.Nature;
import zesty.signal.core.sample.Times;
import zesty.signal.core.scale.Converter;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/**
 * The signal doctor's rounds: one channel after the other is examined, on a thread of its own, and what is found is kept
 * until the next time. What comes and goes is not told: live, a thing is told once it was found twice running. JavaFX
 * thread only.
 */
public final class DoctorSchedule implements AutoCloseable {
    private static final double EVERY_SECONDS = 0.5;
    /** More samples than these tell no more. */
    private static final int MOST_SAMPLES = 100_000;
    /** A channel of less than this share of its stream's rate comes with some of the rows only. */
    private static final double SOME_ROWS = 0.8;

    private final Workspace workspace;
    private final ExecutorService doctor = Executors.newSingleThreadExecutor(task -> {
        Thread thread = new Thread(task, "signal doctor");
        thread.setDaemon(true);
        return thread;
    });
    private final Map<String, List<Finding>> newest = new HashMap<>();
    private final Map<String, List<Finding>> told = new HashMap<>();
    private double nextSeconds = Double.NEGATIVE_INFINITY;
    private boolean under;
    private int turn;
    private Shown of;

    DoctorSchedule(Workspace workspace) {
        this.workspace = workspace;
    }

    /** @return what is wrong with a channel, the worst first; empty when nothing is known to be */
    public List<Finding> of(String column) {
        return told.getOrDefault(column, List.of());
    }

    /** @return whether a channel was examined, so that silence means that it is well */
    public boolean seen(String column) {
        return told.containsKey(column);
    }

    /** Goes on with the rounds, when it is time. @param now in s, of the window's own clock */
    public void go(Snapshot snapshot, double now) {
        if (of != workspace.shown()) {
            of = workspace.shown();
            newest.clear();
            told.clear();
        }
        List<ChannelSnapshot> shown =
                snapshot.channels().stream().filter(c -> c.channel().shown()).toList();
        if (doctor.isShutdown() || under || now < nextSeconds || shown.isEmpty() || !snapshot.hasSamples()) {
            return;
        }
        nextSeconds = now + EVERY_SECONDS;
        // Whoever looks at a channel is told of that one soonest.
        ChannelSnapshot next = turn % 2 == 0
                ? snapshot.channel(workspace.view().focus().get()).orElse(shown.get(turn % shown.size()))
                : shown.get(turn / 2 % shown.size());
        turn++;
        under = true;
        double to = Math.min(workspace.shown().window().to(), next.stream().lastSeconds());
        Shown once = of;
        doctor.execute(() -> {
            List<Finding> found = List.of();
            try {
                found = Doctor.examine(examined(snapshot, next, to - Doctor.SECONDS, to));
            } finally {
                List<Finding> said = found;
                Platform.runLater(() -> keep(next.channel().column(), said, once));
            }
        });
    }

    private void keep(String column, List<Finding> found, Shown once) {
        under = false;
        if (once != of) {
            return;
        }
        List<Finding> before = newest.put(column, found);
        List<Finding> kept = new ArrayList<>(found);
        if (once.isLive()) {
            kept.removeIf(
                    one -> before == null || before.stream().noneMatch(other -> other.diagnosis() == one.diagnosis()));
        }
        told.put(column, List.copyOf(kept));
    }

    private static Examined examined(Snapshot snapshot, ChannelSnapshot channel, double from, double to) {
        Times times = channel.stream().times();
        long last = Math.min(times.firstAtOrAfter(to), channel.raw().end());
        long first = Math.max(Math.max(times.firstAtOrAfter(from), channel.raw().start()), last - MOST_SAMPLES);
        int n = (int) Math.max(0, last - first);
        // A column that comes with some rows only is a channel of its own rate: the other rows are none of its losses.
        boolean some = channel.rateHz() < SOME_ROWS * channel.stream().rateHz();
        long[] rows = LongStream.range(first, first + n)
                .filter(row -> !some || !Double.isNaN(channel.raw().value(row)))
                .toArray();
        double[] seconds = Arrays.stream(rows).mapToDouble(times::secondsAt).toArray();
        Map<String, double[]> others = new HashMap<>();
        for (ChannelSnapshot other : snapshot.channels()) {
            if (other != channel && other.stream().key().equals(channel.stream().key())) {
                others.put(other.channel().name(), values(other, rows));
            }
        }
        Converter converter = channel.channel().scaling().converter();
        return new Examined(
                values(channel, rows),
                seconds,
                converter == null ? Double.NaN : converter.lowestCode(),
                converter == null ? Double.NaN : converter.highestCode(),
                channel.reader().map(r -> r.setup().readerKind().nature()).orElse(Nature.LEVEL),
                others);
    }

    private static double[] values(ChannelSnapshot channel, long[] rows) {
        return Arrays.stream(rows).mapToDouble(channel.raw()::value).toArray();
    }

    /** Puts the steps of a finding's recipe before the channel's others, as one change that can be undone. */
    public void take(String column, Finding finding) {
        workspace.change(rig -> rig.withChannel(column, channel -> {
            List<Step> steps = new ArrayList<>(Recipe.parse(finding.recipe()).steps());
            steps.addAll(channel.recipe().steps());
            return channel.withRecipe(new Recipe(steps));
        }));
    }

    /** @return whether the steps of a finding's recipe are there already */
    public static boolean taken(Recipe recipe, Finding finding) {
        return recipe.steps().containsAll(Recipe.parse(finding.recipe()).steps());
    }

    @Override
    public void close() {
        doctor.shutdownNow();
    }
}
