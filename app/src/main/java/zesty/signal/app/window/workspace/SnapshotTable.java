package zesty.signal.app.window.workspace;

import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Columns;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.SpanNumbers;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.sample.Times;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;
import zesty.signal.takes.TakeException;
import zesty.signal.takes.TakeWriter;

/**
 * One press takes every shown channel's steady value with its noise into a table that grows: how one probe measures at eight places. Each
 * row is in a take of its own at once, so that a table outlives the window. JavaFX thread only, but for the writing.
 */
public final class SnapshotTable {
    /** A value is the mean of so long. */
    private static final double STEADY_SECONDS = 1;

    private static final Logger LOG = LoggerFactory.getLogger(SnapshotTable.class);

    private final Workspace workspace;
    private final ObservableList<Row> rows = FXCollections.observableArrayList();
    private List<Head> head = List.of();
    private Instant began;
    /** Of the worker only; null before the first row and once the table is complete. */
    private TakeWriter writer;

    /** A channel of the table. */
    public record Head(String column, String name, String unit) {}

    /**
     * A row of the table.
     *
     * @param seconds since the first
     * @param means and {@code deviations} one a channel; NaN where it had nothing new
     */
    public record Row(double seconds, String remark, double[] means, double[] deviations) {}

    SnapshotTable(Workspace workspace) {
        this.workspace = workspace;
    }

    /** @return the rows so far */
    public ObservableList<Row> rows() {
        return rows;
    }

    /** @return the channels of the table; none before the first row */
    public List<Head> head() {
        return head;
    }

    /** Takes a row. @param remark where or what it is; empty for none */
    public void take(String remark) {
        Snapshot now = workspace.live().snapshot(System.nanoTime());
        List<ChannelSnapshot> shown =
                now.channels().stream().filter(one -> one.channel().shown()).toList();
        if (shown.isEmpty() || !workspace.live().connected()) {
            workspace.trouble(Messages.of("workspace.nothing-to-take-a-snapshot-of"));
            return;
        }
        boolean first = rows.isEmpty();
        if (first) {
            began = Instant.now();
            head = shown.stream()
                    .map(one -> new Head(
                            one.channel().column(),
                            one.channel().name(),
                            one.channel().unit()))
                    .toList();
        }
        double[] means = new double[head.size()];
        double[] deviations = new double[head.size()];
        for (int c = 0; c < means.length; c++) {
            String column = head.get(c).column();
            Optional<SpanNumbers> steady = shown.stream()
                    .filter(one -> one.channel().column().equals(column))
                    .findFirst()
                    .map(SnapshotTable::steady);
            means[c] = steady.map(SpanNumbers::mean).orElse(Double.NaN);
            deviations[c] = steady.map(SpanNumbers::deviation).orElse(Double.NaN);
        }
        double seconds = java.time.Duration.between(began, Instant.now()).toNanos() * 1e-9;
        Row row = new Row(first ? 0 : seconds, remark, means, deviations);
        rows.add(row);
        Rig rig = now.rig();
        Path file = workspace.takes().freshFile(LocalDateTime.now(ZoneId.systemDefault()));
        List<Head> columns = head;
        Instant started = began;
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-snapshot-could-not-be-kept"),
                        () -> keep(row, file, rig, columns, started),
                        () -> {});
    }

    /** Mean and spread of the newest second, cleaned, in the unit that is shown. */
    private static SpanNumbers steady(ChannelSnapshot channel) {
        Times times = channel.stream().times();
        long end = Math.min(times.end(), channel.clean().end() - channel.lateSamples());
        long start = end;
        double newest = end > times.start() ? times.secondsAt(end - 1) : 0;
        while (start > Math.max(times.start(), channel.clean().start())
                && times.secondsAt(start - 1) > newest - STEADY_SECONDS) {
            start--;
        }
        int n = (int) (end - start);
        double[] values = new double[n];
        double[] seconds = new double[n];
        for (int i = 0; i < n; i++) {
            seconds[i] = times.secondsAt(start + i);
            values[i] = channel.channel().display().apply(channel.clean().value(start + i + channel.lateSamples()));
        }
        return SpanNumbers.of(values, seconds);
    }

    /** On the worker: what stands in the table stands on the disk. */
    private void keep(Row row, Path file, Rig rig, List<Head> columns, Instant started) throws TakeException {
        if (writer == null) {
            List<String> names = new ArrayList<>();
            for (Head one : columns) {
                names.add(one.name());
                names.add(one.name() + " noise");
            }
            List<String> once = Columns.distinct(names);
            List<Column> fields = new ArrayList<>();
            for (int c = 0; c < once.size(); c++) {
                fields.add(new Column(once.get(c), columns.get(c / 2).unit()));
            }
            Rig table = Rig.blank("Snapshots, " + rig.name(), "stdin")
                    .fittedTo(new DelimitedFormat(',', false, false, "", fields, null));
            writer = TakeWriter.create(file, "Snapshots, " + rig.name(), table, started);
        }
        double[][] values = new double[2 * columns.size()][1];
        for (int c = 0; c < columns.size(); c++) {
            values[2 * c][0] = row.means()[c];
            values[2 * c + 1][0] = row.deviations()[c];
        }
        writer.append(new Block(new TimeBase.Explicit(new double[] {row.seconds()}), values, 1, List.of()));
        if (!row.remark().isEmpty()) {
            writer.mark(row.seconds(), row.remark());
        }
        writer.commit();
    }

    /** Completes the table: it stands in the logbook, and the next press begins another. */
    public void done() {
        if (rows.isEmpty()) {
            return;
        }
        int count = rows.size();
        rows.clear();
        head = List.of();
        workspace.tasks().later(Messages.of("workspace.the-snapshots-could-not-be-kept"), this::finish, () -> {
            workspace.say(Messages.of(
                    "workspace.snapshots-kept-a-take-of-their-own",
                    count,
                    (count == 1 ? Messages.of("workspace.row") : Messages.of("workspace.rows"))));
            workspace.takes().list();
        });
    }

    /** On the worker, when all ends: the table is a whole take. */
    void complete() {
        try {
            finish();
        } catch (TakeException e) {
            LOG.warn("the snapshots could not be completed: {}", e.getMessage());
        }
    }

    private void finish() throws TakeException {
        if (writer == null) {
            return;
        }
        try (TakeWriter whole = writer) {
            writer = null;
            whole.finish();
        }
    }
}
