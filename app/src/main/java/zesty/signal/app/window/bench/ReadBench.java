package zesty.signal.app.window.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.Palette;
import zesty.signal.app.window.desk.Desk;
import zesty.signal.app.window.desk.Stop;
import zesty.signal.app.window.lanes.LaneStack;
import zesty.signal.app.window.lanes.Wording;
import zesty.signal.core.read.Port;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.Settings;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.Ports;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.engine.ChannelSight;
import zesty.signal.engine.ReaderSight;
import zesty.signal.engine.Sight;

/** Read: which reader works on the channel, its settings from the kind's own description, and its picture. */
public final class ReadBench extends Bench {
    private static final String NOTHING = "nothing but its level";
    private static final int IN_A_ROW = 4;

    private final ComboBox<String> kind = new ComboBox<>();
    private final FlowPane settings = new FlowPane(12, 6);
    private final HBox which = new HBox(8, small("Read"), kind);
    private final Label words = new Label();
    private final Label error = new Label();
    private final FlowPane ports = new FlowPane(6, 6);
    private final VBox room = new VBox();
    private final DoctorLine doctor;
    private ReaderPicture picture;
    private String pictureOf = "";
    private ReaderSetup filled;
    private boolean filling;
    private String column = "";
    /** Whether the settings beyond the first ones are in the row. */
    private boolean more;

    public ReadBench(Desk desk) {
        super(desk, Stop.READ);
        doctor = new DoctorLine(desk, false);
        kind.setId("reader");
        kind.getItems().add(NOTHING);
        ReaderKinds.all().forEach(k -> kind.getItems().add(k.name()));
        kind.setTooltip(new Tooltip("what is read of this channel"));
        kind.setOnAction(event -> choose());
        words.getStyleClass().add("bench-line");
        words.setWrapText(true);
        words.setId("reader-words");
        words.setMinHeight(USE_PREF_SIZE);
        error.getStyleClass().add("error");
        settings.setAlignment(Pos.CENTER_LEFT);
        which.setAlignment(Pos.CENTER_LEFT);
        VBox.setVgrow(room, Priority.ALWAYS);
        ports.setAlignment(Pos.CENTER_LEFT);
        ports.managedProperty().bind(ports.visibleProperty());
        ports.setVisible(false);
        getChildren().addAll(settings, ports, words, doctor, room);
    }

    private void choose() {
        if (filling || column.isEmpty()) {
            return;
        }
        String chosen = kind.getValue();
        List<String> ports = chosen.equals(NOTHING)
                ? List.of()
                : Ports.guess(ReaderKinds.of(chosen), column, beside(desk.sight(System.nanoTime())));
        if (!chosen.equals(NOTHING) && ports.isEmpty()) {
            int fewest = ReaderKinds.of(chosen).fewestPorts();
            error.setText(chosen + " reads " + fewest + " columns that come with the same rows; here there are fewer.");
            return;
        }
        String target = column;
        desk.change(rig -> {
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
        return desk.sight(System.nanoTime())
                .channel(of)
                .map(one -> one.channel().unit())
                .orElse("");
    }

    /** @return the columns that come with the same rows as the one in focus, in the stream's order */
    private List<String> beside(Sight sight) {
        ChannelSight one = sight.channel(column).orElse(null);
        return one == null
                ? List.of()
                : sight.channels().stream()
                        .filter(c -> c.strand().key().equals(one.strand().key()))
                        .map(c -> c.channel().column())
                        .toList();
    }

    /** A reader of several columns: which is which. */
    private void fillPorts(ReaderSetup reader, List<String> offered) {
        ports.getChildren().clear();
        ports.setVisible(reader != null && reader.readerKind().ports().size() > 1 && offered.size() > 1);
        if (!ports.isVisible()) {
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
                desk.change(rig -> rig.withoutReader(reader.id()).withReader(reader.onColumns(columns)));
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
        desk.change(rig -> rig.withoutReader(reader.id()).withReader(changed));
        desk.focus().set(columns.get(0));
    }

    private void set(ReaderSetup reader, String key, String value) {
        try {
            // Another setting may have been changed since the boxes were made.
            ReaderSetup now = desk.rig().readers().stream()
                    .filter(one -> one.id().equals(reader.id()))
                    .findFirst()
                    .orElse(reader);
            ReaderSetup changed = now.with(key, value.strip());
            error.setText("");
            desk.change(rig -> rig.withReader(changed));
        } catch (ReaderException e) {
            error.setText(e.getMessage());
        }
    }

    /** One control a setting, made of its description. */
    private void fillSettings(ReaderSetup reader) {
        settings.getChildren().setAll(which, error);
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
                field.setPromptText(setting.shape() == Setting.Shape.SPAN ? "by itself" : "");
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
            settings.getChildren().add(settings.getChildren().size() - 1, turn);
        }
    }

    /** Puts a setting's field at the end of the row, with its words; what they are too wide for goes into the next. */
    private void add(Setting setting, Node field) {
        HBox named = new HBox(8, small(setting.words()), field);
        named.setAlignment(Pos.CENTER_LEFT);
        settings.getChildren().add(settings.getChildren().size() - 1, named);
    }

    @Override
    public void opened(Sight sight) {
        filled = null;
        fillSettings(null);
        fillPorts(null, List.of());
        show(sight);
    }

    @Override
    public void show(Sight sight) {
        head(sight);
        Optional<ChannelSight> focused = focused(sight);
        kind.setDisable(focused.isEmpty());
        if (focused.isEmpty()) {
            words.setText("No channel yet.");
            return;
        }
        column = focused.get().channel().column();
        ReaderSetup setup = readerHere();
        // A reader of several columns stands with its first.
        ChannelSight channel = setup == null
                ? focused.get()
                : sight.channel(setup.columns().get(0)).orElse(focused.get());
        filling = true;
        kind.setValue(setup == null ? NOTHING : setup.kind());
        filling = false;
        boolean other = setup == null ? filled != null : !setup.equals(filled);
        if (other) {
            filled = setup;
            fillSettings(setup);
            fillPorts(setup, beside(sight));
        }
        Optional<ReaderSight> reader = channel.reader();
        words.setText(words(sight, channel, reader));
        doctor.show(column, focused.get().channel().recipe());
        Color colour = Color.web(Palette.css(
                Palette.channel(LaneStack.colourOf(sight, channel.channel())),
                desk.night().get()));
        String wanted = reader.map(r -> r.setup().kind()).orElse("");
        if (picture == null || !pictureOf.equals(wanted)) {
            pictureOf = wanted;
            picture = ReaderPicture.of(wanted, desk);
            VBox.setVgrow(picture, Priority.ALWAYS);
            room.getChildren().setAll(picture);
        }
        picture.show(sight, channel, reader.orElse(null), colour);
    }

    /** @return the reader of the column in focus, or one of several columns that this is one of; null for none */
    private ReaderSetup readerHere() {
        Rig rig = desk.rig();
        return rig.readersOn(column).stream().findFirst().orElseGet(() -> rig.readers().stream()
                .filter(r -> r.columns().contains(column))
                .findFirst()
                .orElse(null));
    }

    private String words(Sight sight, ChannelSight channel, Optional<ReaderSight> reader) {
        if (!channel.trouble().isEmpty()) {
            return channel.trouble();
        }
        if (reader.isEmpty()) {
            List<String> may = new ArrayList<>();
            for (ReaderKind one : ReaderKinds.all()) {
                Optional<String> why = one.unsuited(
                        Settings.of(one, java.util.Map.of()), channel.channel().unit(), channel.rateHz());
                may.add(one.name() + ": " + why.orElse(one.words()));
            }
            return "This channel is read as a level; its mean, range and noise stand on its card. It can be read as "
                    + String.join("; ", may) + ".";
        }
        ReaderSight seen = reader.get();
        if (seen.reading() == null) {
            return seen.trouble();
        }
        List<String> parts = new ArrayList<>();
        for (ScalarInfo scalar : seen.kind().scalars()) {
            double value = seen.reading().scalar(scalar.key());
            if (!Double.isNaN(value)) {
                String unit = scalar.unit(channel.channel().unit());
                parts.add(scalar.words() + " " + Wording.scalar(channel, scalar, value)
                        + (unit.isEmpty() ? "" : " " + unit));
            }
        }
        StringBuilder text = new StringBuilder(String.join(", ", parts));
        text.append(parts.isEmpty() ? "" : ". ")
                .append("Trust ")
                .append(seen.reading().quality().segments())
                .append(" of 8.");
        for (String reason : seen.reading().quality().reasons()) {
            text.append(" ")
                    .append(Character.toUpperCase(reason.charAt(0)))
                    .append(reason.substring(1))
                    .append(".");
        }
        if (seen.kind().onBody()) {
            text.append(" Not a medical device; it diagnoses nothing.");
        }
        return text.toString();
    }
}
