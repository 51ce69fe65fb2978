package zesty.signal.app.window.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.Palette;
import zesty.signal.app.window.desk.Desk;
import zesty.signal.app.window.desk.Stop;
import zesty.signal.app.window.lanes.LaneStack;
import zesty.signal.app.window.lanes.Wording;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.Settings;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.engine.ChannelSight;
import zesty.signal.engine.ReaderSight;
import zesty.signal.engine.Sight;

/** Read: which reader works on the channel, its settings from the kind's own description, and its picture. */
public final class ReadBench extends Bench {
    private static final String NOTHING = "nothing but its level";

    private final ComboBox<String> kind = new ComboBox<>();
    private final HBox settings = new HBox(10);
    private final Label words = new Label();
    private final Label error = new Label();
    private final VBox room = new VBox();
    private ReaderPicture picture;
    private String pictureOf = "";
    private ReaderSetup filled;
    private boolean filling;
    private String column = "";

    public ReadBench(Desk desk) {
        super(desk, Stop.READ);
        kind.setId("reader");
        kind.getItems().add(NOTHING);
        ReaderKinds.all().stream().filter(k -> k.fewestPorts() == 1).forEach(k -> kind.getItems()
                .add(k.name()));
        kind.setTooltip(new Tooltip("what is read of this channel"));
        kind.setOnAction(event -> choose());
        words.getStyleClass().add("bench-line");
        words.setWrapText(true);
        words.setId("reader-words");
        words.setMinHeight(USE_PREF_SIZE);
        error.getStyleClass().add("error");
        settings.setAlignment(Pos.CENTER_LEFT);
        HBox line = new HBox(12, small("Read"), kind, settings, error);
        line.setAlignment(Pos.CENTER_LEFT);
        room.setMinHeight(0);
        VBox.setVgrow(room, Priority.ALWAYS);
        getChildren().addAll(line, words, room);
    }

    private void choose() {
        if (filling || column.isEmpty()) {
            return;
        }
        String chosen = kind.getValue();
        String target = column;
        desk.change(rig -> {
            Rig without = rig;
            for (ReaderSetup old : rig.readersOn(target)) {
                without = old.columns().size() == 1 && !old.kind().equals(chosen)
                        ? without.withoutReader(old.id())
                        : without;
            }
            boolean there =
                    without.readersOn(target).stream().anyMatch(r -> r.kind().equals(chosen));
            return chosen.equals(NOTHING) || there
                    ? without
                    : without.withReader(ReaderSetup.on(target, chosen, java.util.Map.of()));
        });
    }

    private void set(ReaderSetup reader, String key, String value) {
        try {
            ReaderSetup changed = reader.with(key, value.strip());
            error.setText("");
            desk.change(rig -> rig.withReader(changed));
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
        for (Setting setting : reader.readerKind().settings()) {
            Tooltip tip = new Tooltip(setting.tip() + " (" + setting.allowed() + ")");
            settings.getChildren().add(small(setting.words()));
            if (setting.shape() == Setting.Shape.CHOICE) {
                ComboBox<String> box = new ComboBox<>();
                box.setId("setting-" + setting.key());
                box.getItems().setAll(setting.choices());
                box.setValue(now.text(setting.key()));
                box.setTooltip(tip);
                box.setOnAction(event -> set(reader, setting.key(), box.getValue()));
                settings.getChildren().add(box);
            } else {
                TextField field = new TextField(now.text(setting.key()));
                field.setId("setting-" + setting.key());
                field.setPrefColumnCount(setting.shape() == Setting.Shape.NUMBER ? 5 : 12);
                field.setTooltip(tip);
                field.setOnAction(event -> set(reader, setting.key(), field.getText()));
                settings.getChildren().add(field);
            }
        }
    }

    @Override
    public void opened(Sight sight) {
        filled = null;
        fillSettings(null);
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
        ChannelSight channel = focused.get();
        column = channel.channel().column();
        ReaderSetup setup = desk.rig().readersOn(column).stream().findFirst().orElse(null);
        filling = true;
        kind.setValue(setup == null ? NOTHING : setup.kind());
        filling = false;
        boolean other = setup == null ? filled != null : !setup.equals(filled);
        if (other) {
            filled = setup;
            fillSettings(setup);
        }
        Optional<ReaderSight> reader = channel.reader();
        words.setText(words(sight, channel, reader));
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
