package zesty.signal.app.window.bench.read;

import java.util.List;
import java.util.TreeSet;
import javafx.scene.control.Button;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.Samples;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.hits.Tuning;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;

/**
 * The true hits, tapped along by hand while they come or pointed at on the picture of a take: how many were found, missed or
 * invented, and which threshold, release and dead time would do best.
 */
final class HitsGuide extends Guide {
    /** A hand is late by no more than this, in s. */
    private static final double WITHIN_SECONDS = 0.3;

    private static final int FEWEST = 3;
    private static final double MOST_SECONDS = 60;

    private final Button tap = Bench.button(
            "tap", Messages.of("bench.read.tap-along"), Messages.of("bench.read.press-at-each-true-hit-or-point-at"));
    private final Button tune = Bench.button(
            "tune-hits",
            Messages.of("bench.read.find-the-best-threshold"),
            Messages.of("bench.read.the-threshold-release-and-dead"));
    private final Button clear = Bench.button(
            "clear-taps", Messages.of("bench.read.forget-the-taps"), Messages.of("bench.read.begins-the-tapping-anew"));
    private final TreeSet<Double> taps = new TreeSet<>();
    private ChannelSnapshot channel;
    private ReaderSetup setup;
    private String told = "";

    HitsGuide(Workspace workspace) {
        super(workspace, "hits-guide");
        tap.setOnAction(event -> tapped(newest()));
        tune.setOnAction(event -> tune());
        clear.setOnAction(event -> {
            taps.clear();
            told = "";
        });
        row(tap, tune, clear);
    }

    /** @return the time of the newest sample at this moment, not at the last look */
    private double newest() {
        return channel == null
                ? Double.NaN
                : workspace
                        .shown()
                        .snapshot(System.nanoTime())
                        .channel(channel.channel().column())
                        .map(now -> now.stream().lastSeconds())
                        .orElse(Double.NaN);
    }

    /** @return moments of the taps, rising, in s */
    double[] taps() {
        return taps.stream().mapToDouble(Double::doubleValue).toArray();
    }

    void tapped(double seconds) {
        if (seconds == seconds) {
            taps.add(seconds);
            told = "";
        }
    }

    void show(ChannelSnapshot now, ReaderSetup reader, List<Event> hits, double late) {
        if (setup != null && !setup.columns().equals(reader.columns())) {
            taps.clear();
        }
        channel = now;
        setup = reader;
        while (workspace.shown().isLive()
                && !taps.isEmpty()
                && now.stream().lastSeconds() - taps.first() > MOST_SECONDS) {
            taps.pollFirst();
        }
        tap.setDisable(!workspace.shown().isLive());
        tune.setDisable(taps.size() < FEWEST);
        clear.setDisable(taps.isEmpty());
        says.setText(!told.isEmpty() ? told : taps.isEmpty() ? nothing() : counted(hits, late));
    }

    private String nothing() {
        return !workspace.shown().isLive()
                ? Messages.of("bench.read.point-at-each-true-hit-on-the")
                : Messages.of("bench.read.tap-along-with-the-true-hits-then");
    }

    /** Each tap takes the nearest hit that no other took. */
    private String counted(List<Event> hits, double late) {
        double first = taps.first() - WITHIN_SECONDS;
        double last = taps.last() + WITHIN_SECONDS;
        double[] there = hits.stream()
                .mapToDouble(hit -> hit.startSeconds() + late)
                .filter(t -> t >= first && t <= last)
                .toArray();
        boolean[] taken = new boolean[there.length];
        int found = 0;
        for (double one : taps) {
            int best = -1;
            for (int i = 0; i < there.length; i++) {
                boolean near = !taken[i] && Math.abs(there[i] - one) <= WITHIN_SECONDS;
                best = near && (best < 0 || Math.abs(there[i] - one) < Math.abs(there[best] - one)) ? i : best;
            }
            if (best >= 0) {
                taken[best] = true;
                found++;
            }
        }
        return Messages.of(
                "bench.read.tapped-found-missed-false",
                taps.size(),
                found,
                (taps.size() - found),
                (there.length - found));
    }

    private void tune() {
        double first = taps.first() - 1;
        double last = Math.min(taps.last() + 1, channel.stream().lastSeconds());
        double[] x = Samples.cleaned(channel, first, last);
        double[] seconds = Samples.moments(channel, first, last);
        double[] truth = taps();
        String id = setup.id();
        told = Messages.of("bench.read.trying-thresholds");
        workspace
                .tasks()
                .fetch(
                        Messages.of("bench.read.the-threshold-could-not-be-tuned"),
                        () -> Tuning.of(x, seconds, truth, WITHIN_SECONDS),
                        best -> {
                            if (!(best.f1() > 0)) {
                                told = Messages.of("bench.read.no-threshold-tells-these-hits-is");
                                return;
                            }
                            told = Messages.of(
                                    "bench.read.best-threshold-found-missed",
                                    Digits.about(best.threshold(), 3),
                                    best.found(),
                                    best.missed(),
                                    best.invented(),
                                    Digits.about(best.low(), 3),
                                    Digits.about(best.high(), 3));
                            workspace.change(rig -> rig.readers().stream()
                                    .filter(one -> one.id().equals(id))
                                    .findFirst()
                                    .map(one -> rig.withReader(
                                            one.with("direction", best.release() > best.threshold() ? "fall" : "rise")
                                                    .with("threshold", written(best.threshold()))
                                                    .with("release", written(best.release()))
                                                    .with("dead", written(best.deadSeconds()))))
                                    .orElse(rig));
                        });
    }

    private static String written(double value) {
        return Digits.exact(Digits.rounded(value, 6));
    }
}
