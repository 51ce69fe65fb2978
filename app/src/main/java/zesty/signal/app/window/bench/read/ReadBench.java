package zesty.signal.app.window.bench.read;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.DoctorLine;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Port;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.Settings;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.Ports;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/** Read: which reader works on the channel, its settings from the kind's own description, and its picture. */
public final class ReadBench extends Bench {
    private static final int IN_A_ROW = 4;
    /** So much of a signal is tried, so often, while it is asked what to read. */
    private static final double TRIED_SECONDS = 20;

    private static final long TRY_NANOS = 4_000_000_000L;

    private final KindTiles kinds = new KindTiles(kind -> choose(kind.name()));
    private final Answer answer = new Answer();
    private final FlowPane settings = new FlowPane(12, 6);
    private final ToggleButton fold = new ToggleButton("Settings");
    private final Button other = button("read-other", "Read something else", "choose what is read of this channel");
    private final Button back = button("read-back", "Back to the answer", "keep what is read now");
    private final Button nothing =
            button("read-nothing", "Level only", "take the reader away: its mean, range and noise only");
    private final Label words = new Label();
    private final Label error = new Label();
    /** Whether it is asked what to read though something is read. */
    private boolean choosing;

    private String triedColumn = "";
    private long triedNanos;
    private Map<String, String> looks = Map.of();
    private final FlowPane ports = new FlowPane(6, 6);
    private final VBox room = new VBox();
    private final VBox examined = new VBox();
    private final DoctorLine doctor;
    private ReaderPicture picture;
    private String pictureOf = "";
    private ReaderSetup filled;
    private String column = "";
    /** Whether the settings beyond the first ones are in the row. */
    private boolean more;

    public ReadBench(Workspace workspace) {
        super(workspace, Stop.READ);
        doctor = new DoctorLine(workspace, false);
        examined.getChildren().add(doctor);
        fold.setId("settings-fold");
        fold.getStyleClass().setAll("small-button");
        fold.setMinWidth(USE_PREF_SIZE);
        fold.setTooltip(new Tooltip("shows or hides the settings of this reading"));
        other.setOnAction(event -> choosing(true));
        back.setOnAction(event -> choosing(false));
        nothing.setOnAction(event -> choose(""));
        atHead(nothing, back, fold, other);
        words.getStyleClass().add("bench-line");
        words.setWrapText(true);
        words.setMinHeight(USE_PREF_SIZE);
        error.getStyleClass().add("error");
        settings.setAlignment(Pos.CENTER_LEFT);
        VBox.setVgrow(room, Priority.ALWAYS);
        ports.setAlignment(Pos.CENTER_LEFT);
        ports.managedProperty().bind(ports.visibleProperty());
        ports.setVisible(false);
        for (Node node :
                new Node[] {kinds, answer, settings, words, error, room, examined, fold, other, back, nothing}) {
            node.managedProperty().bind(node.visibleProperty());
        }
        error.visibleProperty().bind(error.textProperty().isNotEmpty());
        getChildren().addAll(words, error, kinds, answer, settings, ports, examined, room);
        fold.selectedProperty().addListener((p, was, is) -> settings.setVisible(is));
    }

    private void choosing(boolean on) {
        choosing = on;
        error.setText("");
        show(workspace.shown().snapshot(System.nanoTime()));
        if (on) {
            kinds.focusFirst();
        }
    }

    /** @param chosen the kind to read with; empty for none */
    private void choose(String chosen) {
        if (column.isEmpty()) {
            return;
        }
        List<String> ports = chosen.isEmpty()
                ? List.of()
                : Ports.guess(
                        ReaderKinds.of(chosen), column, beside(workspace.shown().snapshot(System.nanoTime())));
        if (!chosen.isEmpty() && ports.isEmpty()) {
            error.setText(ReaderKinds.of(chosen).title() + " " + tooFew(ReaderKinds.of(chosen)) + ".");
            return;
        }
        choosing = false;
        error.setText("");
        String target = column;
        workspace.change(rig -> {
            Rig without = rig;
            for (ReaderSetup old : rig.readers()) {
                boolean here = old.columns().contains(target)
                        || !ports.isEmpty() && old.columns().contains(ports.get(0));
                without = here && !(old.kind().equals(chosen) && old.columns().equals(ports))
                        ? without.withoutReader(old.id())
                        : without;
            }
            boolean there = without.readers().stream()
                    .anyMatch(r -> r.kind().equals(chosen) && r.columns().equals(ports));
            return ports.isEmpty() || there
                    ? without
                    : without.withReader(new ReaderSetup(
                            chosen, ports, ReaderKinds.of(chosen).settingsFor(unitOf(ports.get(0)))));
        });
    }

    private String unitOf(String of) {
        return workspace
                .shown()
                .snapshot(System.nanoTime())
                .channel(of)
                .map(one -> one.channel().unit())
                .orElse("");
    }

    /** @return the columns that come with the same rows as the one in focus, in the stream's order */
    private List<String> beside(Snapshot snapshot) {
        ChannelSnapshot one = snapshot.channel(column).orElse(null);
        return one == null
                ? List.of()
                : snapshot.channels().stream()
                        .filter(c -> c.stream().key().equals(one.stream().key()))
                        .map(c -> c.channel().column())
                        .toList();
    }

    /** A reader of several columns: which is which. */
    private void fillPorts(ReaderSetup reader, List<String> offered) {
        ports.getChildren().clear();
        if (reader == null || reader.readerKind().ports().size() < 2 || offered.size() < 2) {
            return;
        }
        for (int i = 0; i < reader.columns().size(); i++) {
            Port port = reader.readerKind().ports().get(i);
            int index = i;
            ComboBox<String> box = new ComboBox<>();
            box.setId("port-" + port.key());
            box.getItems().setAll(offered);
            box.setValue(reader.columns().get(i));
            box.setTooltip(new Tooltip(port.words() + (port.unit().isEmpty() ? "" : ", in " + port.unit())));
            box.setOnAction(event -> replug(reader, index, box.getValue()));
            ports.getChildren().addAll(small(port.key()), box);
        }
        List<String> free =
                offered.stream().filter(c -> !reader.columns().contains(c)).toList();
        int next = reader.columns().size();
        if (reader.readerKind().fewestPorts() == 1
                && next < reader.readerKind().ports().size()
                && !free.isEmpty()) {
            ComboBox<String> more = new ComboBox<>();
            more.setId("port-more");
            more.setPromptText("add " + reader.readerKind().ports().get(next).words() + " \u2026");
            more.getItems().setAll(free);
            more.setOnAction(event -> {
                List<String> columns = new ArrayList<>(reader.columns());
                columns.add(more.getValue());
                workspace.change(rig -> rig.withoutReader(reader.id()).withReader(reader.onColumns(columns)));
            });
            ports.getChildren().add(more);
        }
    }

    /** Reads another column at a port; where that was at another port, the two change places. */
    private void replug(ReaderSetup reader, int port, String other) {
        List<String> columns = new ArrayList<>(reader.columns());
        int was = columns.indexOf(other);
        if (was >= 0) {
            columns.set(was, columns.get(port));
        }
        columns.set(port, other);
        ReaderSetup changed = reader.onColumns(columns);
        workspace.change(rig -> rig.withoutReader(reader.id()).withReader(changed));
        workspace.view().focus().set(columns.get(0));
    }

    private void set(ReaderSetup reader, String key, String value) {
        try {
            // Another setting may have been changed since the boxes were made.
            ReaderSetup now = workspace.shown().rig().readers().stream()
                    .filter(one -> one.id().equals(reader.id()))
                    .findFirst()
                    .orElse(reader);
            ReaderSetup changed = now.with(key, value.strip());
            error.setText("");
            workspace.change(rig -> rig.withReader(changed));
        } catch (ReaderException e) {
            error.setText(e.getMessage());
        }
    }

    /** One control a setting, made of its description. */
    private void fillSettings(ReaderSetup reader) {
        settings.getChildren().clear();
        error.setText("");
        if (reader == null) {
            return;
        }
        Settings now = reader.checked();
        // What a picture captures is no text to type.
        List<Setting> all = reader.readerKind().settings().stream()
                .filter(one -> one.shape() != Setting.Shape.LIST)
                .toList();
        List<Setting> here =
                all.size() <= IN_A_ROW ? all : more ? all.subList(IN_A_ROW, all.size()) : all.subList(0, IN_A_ROW);
        for (Setting setting : here) {
            Tooltip tip = new Tooltip(setting.tip() + " (" + setting.allowed() + ")");
            if (setting.shape() == Setting.Shape.CHOICE) {
                ComboBox<String> box = new ComboBox<>();
                box.setId("setting-" + setting.key());
                box.getItems().setAll(setting.choices());
                box.setValue(now.text(setting.key()));
                box.setTooltip(tip);
                box.setOnAction(event -> set(reader, setting.key(), box.getValue()));
                add(setting, box);
            } else {
                TextField field = new TextField(now.text(setting.key()));
                field.setId("setting-" + setting.key());
                field.setPromptText(setting.shape() == Setting.Shape.SPAN ? "auto" : "");
                field.setPrefColumnCount(setting.shape() == Setting.Shape.NUMBER ? 5 : 12);
                field.setTooltip(tip);
                field.setOnAction(event -> set(reader, setting.key(), field.getText()));
                add(setting, field);
            }
        }
        if (all.size() > IN_A_ROW) {
            Button turn = new Button(more ? "the first ones" : "more settings");
            turn.setId("more-settings");
            turn.getStyleClass().add("small-button");
            turn.setMinWidth(USE_PREF_SIZE);
            turn.setOnAction(event -> {
                more = !more;
                fillSettings(reader);
            });
            settings.getChildren().add(turn);
        }
    }

    /** Puts a setting's field at the end of the row, with its words; what they are too wide for goes into the next. */
    private void add(Setting setting, Node field) {
        HBox named = new HBox(8, small(setting.words()), field);
        named.setAlignment(Pos.CENTER_LEFT);
        settings.getChildren().add(named);
    }

    @Override
    public void opened(Snapshot snapshot) {
        filled = null;
        choosing = false;
        fillSettings(null);
        fillPorts(null, List.of());
        show(snapshot);
        if (kinds.isVisible()) {
            kinds.focusFirst();
        }
    }

    @Override
    public void show(Snapshot snapshot) {
        head(snapshot);
        Optional<ChannelSnapshot> focused = focused(snapshot);
        words.setText(focused.isEmpty() ? "No channel yet." : "");
        words.setVisible(focused.isEmpty());
        if (focused.isEmpty()) {
            for (Node node : new Node[] {kinds, answer, settings, room, fold, other, back, nothing}) {
                node.setVisible(false);
            }
            return;
        }
        if (!column.equals(focused.get().channel().column())) {
            column = focused.get().channel().column();
            choosing = false;
            error.setText("");
        }
        ReaderSetup setup = readerHere();
        // A reader of several columns stands with its first.
        ChannelSnapshot channel = setup == null
                ? focused.get()
                : snapshot.channel(setup.columns().get(0)).orElse(focused.get());
        boolean changed = setup == null ? filled != null : !setup.equals(filled);
        if (changed) {
            filled = setup;
            fillSettings(setup);
            fillPorts(setup, beside(snapshot));
        }
        boolean ask = setup == null || choosing;
        kinds.setVisible(ask);
        answer.setVisible(!ask);
        room.setVisible(!ask);
        fold.setVisible(!ask && !settings.getChildren().isEmpty());
        settings.setVisible(!ask && fold.isSelected());
        ports.setVisible(!ask && !ports.getChildren().isEmpty());
        other.setVisible(!ask);
        back.setVisible(ask && setup != null);
        nothing.setVisible(ask && setup != null);
        examined.setVisible(!ask);
        doctor.show(column, focused.get().channel().recipe());
        Color colour = Palette.of(
                snapshot.rig(),
                channel.channel().column(),
                workspace.view().night().get());
        if (ask) {
            tryKinds(focused.get());
            List<String> beside = beside(snapshot);
            kinds.show(
                    focused.get().channel().name(),
                    ReaderKinds.all().stream()
                            .map(kind -> fit(kind, focused.get(), beside))
                            .toList(),
                    colour);
            return;
        }
        Optional<ReaderSnapshot> reader = channel.reader();
        String trouble = !channel.trouble().isEmpty()
                ? channel.trouble()
                : reader.map(seen -> seen.reading() == null ? seen.trouble() : "")
                        .orElse("waiting for the first reading");
        answer.setVisible(reader.isPresent());
        reader.ifPresent(seen -> answer.show(channel, seen, trouble, colour));
        String wanted = reader.map(seen -> seen.setup().kind()).orElse("");
        if (picture == null || !pictureOf.equals(wanted)) {
            pictureOf = wanted;
            picture = ReaderPicture.of(wanted, workspace);
            VBox.setVgrow(picture, Priority.ALWAYS);
            room.getChildren().setAll(picture);
        }
        picture.show(snapshot, channel, reader.orElse(null), colour);
    }

    /** Whether a kind fits the channel, and why. */
    private KindTiles.Fit fit(ReaderKind kind, ChannelSnapshot channel, List<String> beside) {
        List<String> takes = Ports.guess(kind, column, beside);
        if (takes.isEmpty()) {
            return new KindTiles.Fit(sentence(tooFew(kind)), false, false);
        }
        String unit = channel.channel().unit();
        Optional<String> why = kind.unsuited(Settings.of(kind, kind.settingsFor(unit)), unit, channel.rateHz());
        if (why.isPresent()) {
            return new KindTiles.Fit(sentence(why.get()), false, false);
        }
        String looks = triedColumn.equals(column) ? this.looks.getOrDefault(kind.name(), "") : "";
        if (!looks.isEmpty()) {
            return new KindTiles.Fit(looks, true, true);
        }
        boolean usual = workspace.kinds().all().get().stream()
                .anyMatch(one -> one.name().equals(channel.channel().sensor().kind())
                        && one.reader() != null
                        && one.reader().kind().equals(kind.name()));
        String words =
                usual ? "Usual for this sensor." : takes.size() > 1 ? "Takes " + String.join(", ", takes) + "." : "";
        return new KindTiles.Fit(words, true, usual);
    }

    private static String tooFew(ReaderKind kind) {
        return "needs " + kind.fewestPorts() + " columns of the same rows; here there are fewer";
    }

    private static String sentence(String words) {
        return Character.toUpperCase(words.charAt(0)) + words.substring(1) + ".";
    }

    /** Lets the kinds that read one column look at its last seconds, beside everything else. */
    private void tryKinds(ChannelSnapshot channel) {
        long now = System.nanoTime();
        if (column.equals(triedColumn) && now - triedNanos < TRY_NANOS) {
            return;
        }
        long to = channel.clean().end();
        long from = Math.max(channel.clean().start(), to - Math.round(TRIED_SECONDS * channel.rateHz()));
        if (to <= from || !channel.clean().atHand(from, to)) {
            return;
        }
        if (!column.equals(triedColumn)) {
            looks = Map.of();
        }
        triedColumn = column;
        triedNanos = now;
        double[] last = new double[(int) (to - from)];
        for (int i = 0; i < last.length; i++) {
            last[i] = channel.clean().value(from + i);
        }
        String of = column;
        String unit = channel.channel().unit();
        double rate = channel.rateHz();
        workspace.tasks().fetch("what could be read was not found", () -> looks(last, unit, rate), found -> {
            if (of.equals(triedColumn)) {
                looks = found;
            }
        });
    }

    private static Map<String, String> looks(double[] last, String unit, double rate) {
        Map<String, String> looks = new HashMap<>();
        for (ReaderKind kind : ReaderKinds.all()) {
            if (kind.fewestPorts() > 1) {
                continue;
            }
            try {
                Reader reader = kind.reader(Settings.of(kind, kind.settingsFor(unit)), rate);
                reader.accept(new double[][] {last}, last.length, new TimeBase.Steady(0, 1 / rate));
                kind.looksLike(reader.reading()).ifPresent(why -> looks.put(kind.name(), why));
            } catch (ReaderException e) {
                // It does not suit, and its tile says why.
            }
        }
        return looks;
    }

    /** @return the reader of the column in focus, or one of several columns that this is one of; null for none */
    private ReaderSetup readerHere() {
        Rig rig = workspace.shown().rig();
        return rig.readersOn(column).stream().findFirst().orElseGet(() -> rig.readers().stream()
                .filter(r -> r.columns().contains(column))
                .findFirst()
                .orElse(null));
    }
}
