package zesty.signal.app.window.bench.scale;

import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Sensor;
import zesty.signal.core.rig.SensorKind;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.text.Messages;

/** The kind of sensor of a channel: chosen from the library, or kept in it. */
final class KindChooser extends ComboBox<SensorKind> {
    private final Workspace workspace;
    private final Supplier<Channel> at;
    private final Consumer<Channel> changed;
    private final Button keep = new Button(Messages.of("bench.scale.keep-as-a-kind"));
    private boolean filling;

    /**
     * @param at the channel that it is about; null for none
     * @param changed told of a channel that a kind was chosen for
     */
    KindChooser(Workspace workspace, Supplier<Channel> at, Consumer<Channel> changed) {
        this.workspace = workspace;
        this.at = at;
        this.changed = changed;
        setId("kind");
        getItems().setAll(workspace.kinds().all().get());
        workspace.kinds().all().addListener((p, was, is) -> {
            SensorKind chosen = getValue();
            filling = true;
            getItems().setAll(is);
            setValue(chosen);
            filling = false;
        });
        setPromptText(Messages.of("bench.scale.kind-of-sensor"));
        getStyleClass().add("sensor-kind");
        setConverter(new KindWords());
        Tip.on(this, Messages.of("bench.scale.a-generic-kind-of-sensor-fills-the"));
        setOnAction(event -> choose());
        keep.setId("keep-kind");
        keep.setMinWidth(USE_PREF_SIZE);
        Tip.on(keep, Messages.of("bench.scale.keep-this-chain-recipe-and-range"));
        keep.setOnAction(event -> keepChannel());
    }

    /** @return the button that keeps the channel as a kind */
    Button keep() {
        return keep;
    }

    /** Shows the kind that a channel has. */
    void show(Channel channel) {
        filling = true;
        setValue(getItems().stream()
                .filter(k -> k.name().equals(channel.sensor().kind()))
                .findFirst()
                .orElse(null));
        filling = false;
    }

    private void choose() {
        SensorKind chosen = getValue();
        Channel channel = at.get();
        if (chosen == null || channel == null || filling) {
            return;
        }
        String column = channel.column();
        workspace.change(rig -> {
            Rig with = rig.withChannel(column, c -> {
                Channel scaled = c.withScaling(chosen.on(c.scaling())).withSensor(chosen.sensor());
                return chosen.recipe().isEmpty() ? scaled : scaled.withRecipe(Recipe.parse(chosen.recipe()));
            });
            return chosen.reader() == null || !rig.readersOn(column).isEmpty()
                    ? with
                    : with.withReader(chosen.reader().onColumns(List.of(column)));
        });
        changed.accept(channel);
    }

    private void keepChannel() {
        Channel channel = at.get();
        if (channel == null) {
            return;
        }
        Sensor known = channel.sensor();
        Sensor named = new Sensor(channel.name(), known.low(), known.high(), known.trap(), known.caution());
        Scaling scaling = channel.scaling();
        workspace
                .kinds()
                .keep(new SensorKind(
                        named,
                        scaling.converter() != null,
                        scaling.conversion(),
                        scaling.unit(),
                        channel.recipe().text(),
                        workspace.shown().rig().readersOn(channel.column()).stream()
                                .filter(reader -> reader.columns().size() == 1)
                                .map(reader -> reader.onColumns(List.of()))
                                .findFirst()
                                .orElse(null)));
    }

    private static final class KindWords extends javafx.util.StringConverter<SensorKind> {
        @Override
        public String toString(SensorKind kind) {
            return kind == null ? "" : Messages.token(kind.name());
        }

        @Override
        public SensorKind fromString(String text) {
            return null;
        }
    }
}
