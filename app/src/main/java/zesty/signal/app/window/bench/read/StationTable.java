package zesty.signal.app.window.bench.read;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import javafx.geometry.HPos;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.Samples;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.parts.Slice;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.app.wording.Wording;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Settings;
import zesty.signal.core.read.cells.Cells;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Snapshot;

/** The stations of a source side by side: what each says now, whether it is silent and since when, and which one is weak and why. */
final class StationTable extends VBox {
    private static final double SECONDS = 900;
    /** Of a shorter record the slope says more of the load than of the battery. */
    private static final double LEAST_SLOPE_SECONDS = 300;

    private static final double AGAIN_SECONDS = 1;
    /** A value stands for so many of its station's periods. */
    private static final double HELD_PERIODS = 3;

    private static final String[] HEADS = {
        Messages.of("bench.read.station"),
        Messages.of("bench.read.now-2"),
        Messages.of("bench.read.mean"),
        Messages.of("bench.read.sag"),
        Messages.of("bench.read.change-an-hour"),
        Messages.of("bench.read.lasts"),
        "",
        ""
    };

    private final Workspace workspace;
    private final GridPane table = new GridPane();
    private final TextField cutoff = new TextField();
    private final Label said = new Label();
    private final Slice slice = new Slice(26);
    private final Label slopes = Bench.small("");
    private double readAt = Double.NEGATIVE_INFINITY;
    private String readOf = "";
    private double readSeconds;
    private Reading reading;
    private List<ChannelSnapshot> heard = List.of();

    StationTable(Workspace workspace) {
        super(10);
        this.workspace = workspace;
        setId("stations");
        table.setId("station-rows");
        table.setHgap(34);
        table.setVgap(12);
        for (int c = 0; c < HEADS.length; c++) {
            ColumnConstraints column = new ColumnConstraints();
            column.setHalignment(c == 0 || c >= 6 ? HPos.LEFT : HPos.RIGHT);
            column.setMinWidth(Region.USE_PREF_SIZE);
            table.getColumnConstraints().add(column);
        }
        cutoff.setId("station-cutoff");
        cutoff.setPrefColumnCount(4);
        cutoff.setPromptText("11.5");
        Tip.on(cutoff, Messages.of("bench.read.the-voltage-at-which-one-counts-as"));
        cutoff.setOnAction(event -> readAt = Double.NEGATIVE_INFINITY);
        said.setId("stations-said");
        said.getStyleClass().add("bench-line");
        said.setWrapText(true);
        said.setMinHeight(USE_PREF_SIZE);
        HBox head = new HBox(8, slice, said);
        head.setAlignment(Pos.CENTER_LEFT);
        HBox empty = new HBox(6, Bench.small(Messages.of("bench.read.counts-as-empty-at")), cutoff, Bench.small("V"));
        empty.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(head, table, slopes, empty);
    }

    /** @return the channels of all stations that send what this one does, in order */
    private static List<ChannelSnapshot> beside(Snapshot snapshot, ChannelSnapshot channel) {
        Rig rig = snapshot.rig();
        int source = channel.stream().source();
        StreamFormat format = rig.sources().get(source).format();
        int own = Stations.indexOf(format, rig.ownName(channel.channel().column()));
        return snapshot.channels().stream()
                .filter(one -> one.stream().source() == source
                        && Stations.indexOf(format, rig.ownName(one.channel().column())) == own)
                .sorted((a, b) ->
                        Double.compare(a.stream().station(), b.stream().station()))
                .toList();
    }

    void show(Snapshot snapshot, ChannelSnapshot channel, Color colour) {
        List<ChannelSnapshot> all = beside(snapshot, channel);
        double now = System.nanoTime() * 1e-9;
        String of = channel.channel().column() + all.size();
        if (now - readAt > AGAIN_SECONDS || !of.equals(readOf)) {
            readAt = now;
            readOf = of;
            read(snapshot, all);
        }
        fill(snapshot, all);
        said.setText(words(snapshot, all));
        slice.show(reading == null ? 0 : reading.quality().segments(), colour);
    }

    private static boolean lost(Snapshot snapshot, ChannelSnapshot one) {
        LinkState state = snapshot.state(one.stream(), System.nanoTime());
        return state == LinkState.LOST || state == LinkState.REFUSED;
    }

    /** Holds those that are heard against each other, over the same moments. */
    private void read(Snapshot snapshot, List<ChannelSnapshot> all) {
        reading = null;
        readSeconds = 0;
        heard = all.stream().filter(one -> !lost(snapshot, one)).toList();
        if (heard.size() < 2) {
            return;
        }
        Span seen = workspace.shown().pictured(snapshot, SECONDS);
        double step = heard.stream().mapToDouble(one -> 1 / one.rateHz()).max().orElse(1);
        double begin = heard.stream()
                .mapToDouble(one -> Math.max(
                        seen.from(),
                        one.stream().times().secondsAt(one.stream().times().start())))
                .max()
                .orElse(seen.from());
        double[][] ports = new double[heard.size()][];
        int rows = (int) Math.max(0, Math.min(20_000, (seen.to() - begin) / step));
        double[] seconds = new double[rows];
        Arrays.setAll(seconds, i -> begin + (i + 1) * step);
        for (int p = 0; p < ports.length; p++) {
            double[] when = Samples.moments(heard.get(p), seen.from(), seen.to());
            double[] value = Samples.cleaned(heard.get(p), seen.from(), seen.to());
            ports[p] = held(when, value, seconds, HELD_PERIODS / heard.get(p).rateHz());
        }
        ReaderKind kind = ReaderKinds.of(Cells.NAME);
        try {
            String empty = cutoff.getText().strip().replace(',', '.');
            Reader reader =
                    kind.reader(Settings.of(kind, empty.isEmpty() ? Map.of() : Map.of("cutoff", empty)), 1 / step);
            reader.named(heard.stream().map(one -> one.channel().name()).toList());
            if (rows > 1) {
                reader.accept(ports, rows, new TimeBase.Explicit(seconds));
                reader.finish();
                reading = reader.reading();
                readSeconds = rows * step;
            }
        } catch (ReaderException e) {
            workspace.trouble(e.getMessage());
            cutoff.setText("");
        }
    }

    /** @return at each moment the newest value that is not older than so much; NaN without one */
    private static double[] held(double[] when, double[] value, double[] moments, double longest) {
        double[] held = new double[moments.length];
        int n = Math.min(when.length, value.length);
        int at = -1;
        for (int i = 0; i < moments.length; i++) {
            while (at + 1 < n && when[at + 1] <= moments[i] + 1e-9) {
                at++;
            }
            held[i] = at >= 0 && moments[i] - when[at] <= longest ? value[at] : Double.NaN;
        }
        return held;
    }

    private List<Object> row(ChannelSnapshot one) {
        int at = heard.stream()
                .map(c -> c.channel().column())
                .toList()
                .indexOf(one.channel().column());
        List<List<Object>> rows = reading == null
                ? List.of()
                : reading.items().stream()
                        .filter(item -> item.key().equals("cells"))
                        .map(item -> ((Item.Rows) item).rows())
                        .findFirst()
                        .orElse(List.of());
        return at >= 0 && at < rows.size() ? rows.get(at) : List.of();
    }

    private void fill(Snapshot snapshot, List<ChannelSnapshot> all) {
        List<Node> cells = new ArrayList<>();
        boolean known = readSeconds >= LEAST_SLOPE_SECONDS;
        slopes.setText(
                known || reading == null
                        ? ""
                        : Messages.of("bench.read.the-change-an-hour-and-how-long", Digits.fixed(readSeconds, 0)));
        for (int c = 0; c < HEADS.length; c++) {
            cells.add(at(Bench.small(HEADS[c]), c, 0));
        }
        for (int r = 0; r < all.size(); r++) {
            ChannelSnapshot one = all.get(r);
            String unit = " " + one.channel().scaling().unit();
            boolean silent = lost(snapshot, one);
            List<Object> row = row(one);
            Label name = new Label(one.channel().name());
            name.getStyleClass().add("station-name");
            boolean night = workspace.view().night().get();
            name.setStyle("-fx-text-fill: "
                    + Palette.of(snapshot.rig(), one.channel().column(), night)
                            .toString()
                            .replace("0x", "#") + ";");
            cells.add(at(name, 0, r + 1));
            cells.add(at(cell(silent ? "—" : Digits.fixed(one.latestClean(), 2) + unit), 1, r + 1));
            cells.add(at(cell(number(row, 1, 2, unit)), 2, r + 1));
            cells.add(at(cell(number(row, 2, 3, unit)), 3, r + 1));
            cells.add(at(cell(known ? number(row, 3, 2, unit) : "—"), 4, r + 1));
            cells.add(at(cell(known ? lasts(row) : "—"), 5, r + 1));
            boolean weak = !row.isEmpty() && row.get(5) instanceof Boolean is && is;
            Label state = new Label(
                    silent
                            ? Wording.state(snapshot, one.stream())
                            : weak
                                    ? Messages.of("bench.read.weak")
                                    : workspace.shown().isLive() ? Messages.of("bench.read.live") : "");
            state.setId("station-" + Digits.of(one.stream().station()));
            state.getStyleClass().add(silent || weak ? "station-bad" : "station-good");
            cells.add(at(state, 6, r + 1));
        }
        table.getChildren().setAll(cells);
    }

    private static Label cell(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("station-number");
        return label;
    }

    private static Node at(Node node, int column, int row) {
        GridPane.setConstraints(node, column, row);
        return node;
    }

    private static String number(List<Object> row, int at, int decimals, String unit) {
        return row.isEmpty() || !(row.get(at) instanceof Double value) || Double.isNaN(value)
                ? "—"
                : Digits.fixed(value, decimals) + unit;
    }

    private static String lasts(List<Object> row) {
        return row.isEmpty() || !(row.get(4) instanceof Double left) || Double.isNaN(left)
                ? "—"
                : left > 5400 ? Digits.fixed(left / 3600, 1) + " h" : Digits.fixed(left / 60, 0) + " min";
    }

    private String words(Snapshot snapshot, List<ChannelSnapshot> all) {
        List<String> silent = all.stream()
                .filter(one -> lost(snapshot, one))
                .map(one -> one.channel().name())
                .toList();
        String lost = silent.isEmpty()
                ? ""
                : Messages.of(
                        "bench.read.silent",
                        String.join(Messages.of("bench.read.and"), silent)
                                + (silent.size() == 1 ? Messages.of("bench.read.is") : Messages.of("bench.read.are")));
        if (reading == null) {
            return Messages.of("bench.read.two-stations-at-least-have-to-be", lost);
        }
        String weakest = reading.word("weakest");
        double weak = reading.scalar("weak");
        String which = weak > 0
                ? Messages.of("bench.read.is-weak-it-sags-or-falls-by-more", weakest)
                : weakest.isEmpty() ? "" : Messages.of("bench.read.none-stands-out");
        String doubt = reading.quality().reasons().isEmpty()
                ? ""
                : Messages.of("bench.read.in-doubt", reading.quality().reasons().get(0));
        return lost + which + doubt;
    }
}
