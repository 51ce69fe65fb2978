package zesty.signal.app.window.bench.read;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Control;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.util.StringConverter;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.TypedText;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.Settings;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.text.Messages;

/** The settings of a reading: one control each, made of its description, which stays while it is the same reader. */
final class ReaderSettings extends FlowPane {
    /** So many settings are seen at once; the others are a press away. */
    private static final int IN_A_ROW = 4;

    private final Workspace workspace;
    private final Consumer<String> error;
    private final Map<String, Control> controls = new HashMap<>();
    private ReaderSetup shown;
    /** Whether the settings beyond the first ones are in the row. */
    private boolean more;

    private boolean filling;

    /** @param error told what a setting cannot be; empty when all is well */
    ReaderSettings(Workspace workspace, Consumer<String> error) {
        super(12, 6);
        this.workspace = workspace;
        this.error = error;
        setAlignment(Pos.CENTER_LEFT);
    }

    /** @param reader null for none */
    void show(ReaderSetup reader) {
        boolean same = reader != null && shown != null && reader.id().equals(shown.id());
        shown = reader;
        if (!same) {
            error.accept("");
            make();
        }
        if (reader != null) {
            say(reader.checked(), same);
        }
    }

    private void make() {
        getChildren().clear();
        controls.clear();
        if (shown == null) {
            return;
        }
        // What a picture captures is no text to type.
        List<Setting> all = shown.readerKind().settings().stream()
                .filter(one -> one.shape() != Setting.Shape.LIST)
                .toList();
        boolean few = all.size() <= IN_A_ROW;
        List<Setting> here = few ? all : more ? all.subList(IN_A_ROW, all.size()) : all.subList(0, IN_A_ROW);
        for (Setting setting : here) {
            Control control = control(setting);
            control.setId("setting-" + setting.key());
            Tip.on(control, setting.tip() + " (" + setting.allowed() + ")");
            controls.put(setting.key(), control);
            add(setting, control);
        }
        if (!few) {
            Button turn = new Button(
                    more ? Messages.of("bench.read.the-first-ones") : Messages.of("bench.read.more-settings"));
            turn.setId("more-settings");
            turn.getStyleClass().add("small-button");
            turn.setMinWidth(USE_PREF_SIZE);
            turn.setOnAction(event -> {
                more = !more;
                make();
                say(shown.checked(), false);
            });
            getChildren().add(turn);
        }
    }

    private Control control(Setting setting) {
        if (setting.shape() == Setting.Shape.CHOICE) {
            ComboBox<String> box = new ComboBox<>();
            box.getItems().setAll(setting.choices());
            box.setConverter(new StringConverter<>() {
                @Override
                public String toString(String choice) {
                    return choice == null ? "" : Messages.token(choice);
                }

                @Override
                public String fromString(String text) {
                    return text;
                }
            });
            box.setOnAction(event -> set(setting.key(), box.getValue()));
            return box;
        }
        TextField field = new TextField();
        field.setPromptText(setting.shape() == Setting.Shape.SPAN ? Messages.of("bench.read.auto") : "");
        field.setPrefColumnCount(setting.shape() == Setting.Shape.NUMBER ? 5 : 12);
        // A list parts by commas; a single number may have one as its decimal sign.
        boolean single = setting.shape() == Setting.Shape.NUMBER;
        field.setOnAction(event -> set(setting.key(), single ? field.getText().replace(',', '.') : field.getText()));
        return field;
    }

    @SuppressWarnings("unchecked")
    private void say(Settings now, boolean kept) {
        filling = true;
        controls.forEach((key, control) -> {
            if (control instanceof TextField field && kept) {
                TypedText.say(field, spoken(key, now));
            } else if (control instanceof TextField field) {
                TypedText.sayAnew(field, spoken(key, now));
            } else {
                ((ComboBox<String>) control).setValue(now.text(key));
            }
        });
        filling = false;
    }

    /** A single number is shown as people write it; lists and spans part by commas and keep their points. */
    private String spoken(String key, Settings now) {
        boolean single = shown.readerKind().settings().stream()
                .anyMatch(one -> one.key().equals(key) && one.shape() == Setting.Shape.NUMBER);
        return single ? now.text(key).replace('.', Messages.decimal()) : now.text(key);
    }

    private void set(String key, String value) {
        if (filling || value == null) {
            return;
        }
        try {
            // Another setting may have been changed since this one was looked at.
            ReaderSetup now = workspace.shown().rig().readers().stream()
                    .filter(one -> one.id().equals(shown.id()))
                    .findFirst()
                    .orElse(shown);
            ReaderSetup changed = now.with(key, value.strip());
            error.accept("");
            workspace.change(rig -> rig.withReader(changed));
        } catch (ReaderException e) {
            error.accept(e.getMessage());
        }
    }

    /** Puts a setting's field at the end of the row, with its words; what they are too wide for goes into the next. */
    private void add(Setting setting, Node field) {
        HBox named = new HBox(8, Bench.small(setting.words()), field);
        named.setAlignment(Pos.CENTER_LEFT);
        getChildren().add(named);
    }
}
