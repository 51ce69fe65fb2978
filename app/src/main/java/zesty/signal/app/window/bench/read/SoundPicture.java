package zesty.signal.app.window.bench.read;

import java.util.Arrays;
import java.util.Map;
import java.util.NavigableMap;
import java.util.TreeMap;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.Samples;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.tone.Notes;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/** A sound: its tone on a ladder of notes over time, its wave, and how loud it is as a ribbon. */
final class SoundPicture extends ReaderPicture {
    private static final double SHOWN_SECONDS = 20;
    private static final double WAVE_SECONDS = 0.02;
    private static final double PIECE_SECONDS = 0.125;
    private static final double HALF_STEPS = 24;
    private static final double RIBBON_DB = 60;

    private final Plot ladder = new Plot();
    private final Plot wave = new Plot();
    private final Plot ribbon = new Plot();
    /** What was heard of late, by time: a live reading speaks of a second only. */
    private final NavigableMap<Double, Double> pitches = new TreeMap<>();

    private final NavigableMap<Double, Double> levels = new TreeMap<>();
    private String heard = "";

    SoundPicture(Workspace workspace) {
        super(workspace);
        ladder.setId("ladder");
        VBox left = new VBox(4, Bench.small(Messages.of("bench.read.the-tone-on-the-ladder-of-notes")), ladder);
        VBox right = new VBox(
                4,
                Bench.small(Messages.of("bench.read.the-newest-wave")),
                wave,
                Bench.small(Messages.of("bench.read.how-loud-over-time")),
                ribbon);
        wave.setPrefHeight(120);
        ribbon.setId("ribbon-level");
        sideBySide(left, ladder, right, ribbon);
    }

    @Override
    void show(Snapshot snapshot, ChannelSnapshot channel, ReaderSnapshot reader, Color colour) {
        Reading reading = reader == null ? null : reader.reading();
        boolean stored = !workspace.shown().isLive();
        String now = channel.channel().column() + stored;
        double late = reader == null ? 0 : reader.lateSeconds();
        if (stored || !now.equals(heard)) {
            pitches.clear();
            levels.clear();
            heard = now;
        }
        keep(reading, "pitch", pitches, late);
        keep(reading, "level", levels, late);
        double zero = zero(snapshot);
        Span seen = workspace.shown().pictured(snapshot, SHOWN_SECONDS);
        double from = seen.from();
        double to = seen.to();
        ladder(from - zero, to - zero, zero, colour);
        Samples newest = Samples.of(channel, to - WAVE_SECONDS, to);
        wave(newest, to, channel, colour);
        ribbon(from - zero, to - zero, zero, reading, colour);
    }

    private void wave(Samples newest, double to, ChannelSnapshot channel, Color colour) {
        double[] ms = Arrays.stream(newest.seconds()).map(t -> 1000 * (t - to)).toArray();
        boolean some = newest.high() >= newest.low();
        double room = some ? Math.max(1e-9, 0.1 * (newest.high() - newest.low())) : 1;
        wave.begin(
                workspace.view().night().get(),
                -1000 * WAVE_SECONDS,
                0,
                "ms",
                some ? newest.low() - room : -1,
                some ? newest.high() + room : 1,
                channel.channel().unit());
        wave.line(ms, newest.values(), ms.length, colour, 1.6);
    }

    private void keep(Reading reading, String key, NavigableMap<Double, Double> into, double late) {
        Item.Trace trace = reading == null ? null : reading.trace(key).orElse(null);
        if (trace == null) {
            return;
        }
        for (int i = 0; i < trace.seconds().length; i++) {
            // Looks of a reading that moves on overlap those of the one before.
            double at = trace.seconds()[i] + late;
            Double before = into.isEmpty() ? null : into.lastKey();
            if (!workspace.shown().isLive() || before == null || at > before + 0.1) {
                into.put(at, trace.values()[i]);
            }
        }
        while (workspace.shown().isLive() && into.lastKey() - into.firstKey() > SHOWN_SECONDS) {
            into.pollFirstEntry();
        }
    }

    private void ladder(double from, double to, double zero, Color colour) {
        double[] x = new double[pitches.size()];
        double[] y = new double[pitches.size()];
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        int n = 0;
        for (Map.Entry<Double, Double> one : pitches.entrySet()) {
            x[n] = one.getKey() - zero;
            y[n] = Notes.halfSteps(one.getValue());
            low = y[n] < low ? y[n] : low;
            high = y[n] > high ? y[n] : high;
            n++;
        }
        boolean some = high >= low;
        double middle = some ? Math.rint((low + high) / 2) : 0;
        double half = Math.max(HALF_STEPS / 2, some ? Math.ceil((high - low) / 2 + 2) : 0);
        double step = half > HALF_STEPS ? 12 : half > HALF_STEPS / 2 + 1 ? 3 : 2;
        ladder.begin(
                workspace.view().night().get(),
                from,
                to,
                "s",
                middle - half,
                middle + half,
                some ? Messages.of("bench.read.note") : Messages.of("bench.read.note-no-tone-to-rely-on-yet"),
                step,
                Notes::called);
        for (int i = 0; i < n; i++) {
            if (y[i] == y[i]) {
                ladder.bar(x[i] - 0.12, x[i] + 0.12, y[i] - 0.12, y[i] + 0.12, colour);
            }
        }
    }

    private void ribbon(double from, double to, double zero, Reading reading, Color colour) {
        double high = levels.values().stream()
                .mapToDouble(Double::doubleValue)
                .filter(v -> v == v)
                .max()
                .orElse(0);
        double top = 10 * Math.ceil((high + 3) / 10);
        ribbon.begin(
                workspace.view().night().get(),
                from,
                to,
                "s",
                top - RIBBON_DB,
                top,
                Messages.of("bench.read.db-0-is-an-rms-of-1"));
        double until = Double.NEGATIVE_INFINITY;
        for (Map.Entry<Double, Double> one : levels.entrySet()) {
            double at = one.getKey() - zero;
            // Each eighth of a second from where the last one ends, so that the ribbon has no seams.
            double begin = at - until < 2.2 * PIECE_SECONDS ? until : at - PIECE_SECONDS / 2;
            until = at + PIECE_SECONDS / 2;
            if (one.getValue() > top - RIBBON_DB) {
                ribbon.bar(begin, until, top - RIBBON_DB, one.getValue(), colour.deriveColor(0, 0.6, 1.15, 1));
            }
        }
        double level = reading == null ? Double.NaN : reading.scalar("l50_db");
        if (level == level) {
            ribbon.limit(
                    level,
                    Messages.of("bench.read.half-of-the-time-above-db", Digits.fixed(level, 1)),
                    colour.deriveColor(0, 1, 0.8, 0.9));
        }
    }
}
