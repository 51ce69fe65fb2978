package zesty.signal.app.window.bench.scale;

import java.util.Optional;
import java.util.function.Supplier;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.prove.Response;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.Times;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;

/** Does it respond at all? Quiet, then touch, warm, press or switch on, then let go; the answer in words. */
final class ResponseTest extends VBox {
    private final Workspace workspace;
    private final Supplier<Optional<ChannelSnapshot>> focused;
    private final ComboBox<String> action = new ComboBox<>();
    private final Button go = new Button(Messages.of("bench.scale.does-it-respond"));
    private final Label words = new Label();
    private double begun = Double.NaN;
    private double touched = Double.NaN;
    private double letGo = Double.NaN;

    ResponseTest(Workspace workspace, Supplier<Optional<ChannelSnapshot>> focused) {
        super(4);
        this.workspace = workspace;
        this.focused = focused;
        action.getItems().setAll(Response.ACTIONS);
        action.setValue(Response.ACTIONS.get(0));
        action.setId("respond-action");
        action.setAccessibleText(Messages.of("bench.scale.what-is-done-to-the-sensor"));
        go.setId("respond");
        Tip.on(go, Messages.of("bench.scale.a-guided-minute-rest-act-when-told"));
        go.setOnAction(event -> step());
        words.setId("response");
        words.setWrapText(true);
        words.setMinHeight(USE_PREF_SIZE);
        words.managedProperty().bind(words.textProperty().isNotEmpty());
        getChildren().addAll(new HBox(6, go, action), words);
    }

    /** Each press goes one step on: begin, acted, let go, answer. */
    private void step() {
        Optional<ChannelSnapshot> snapshot = focused.get();
        if (snapshot.isEmpty() || Double.isNaN(snapshot.get().stream().lastSeconds())) {
            workspace.trouble(Messages.of("bench.scale.there-is-no-channel-to-try-yet"));
            return;
        }
        double now = snapshot.get().stream().lastSeconds();
        if (Double.isNaN(begun)) {
            begun = now;
            words.setText(Messages.of("bench.scale.rest-for-some-seconds-then-and", verb()));
            go.setText(Messages.of("bench.scale.i-act-now"));
        } else if (Double.isNaN(touched)) {
            touched = now;
            words.setText(Messages.of("bench.scale.keep-on-until-it-is-steady-then"));
            go.setText(Messages.of("bench.scale.i-release-now"));
        } else if (Double.isNaN(letGo)) {
            letGo = now;
            words.setText(Messages.of("bench.scale.let-it-come-back-then-ask-for-the"));
            go.setText(Messages.of("bench.scale.answer"));
        } else {
            words.setText(answer(snapshot.get()));
            begun = Double.NaN;
            touched = Double.NaN;
            letGo = Double.NaN;
            go.setText(Messages.of("bench.scale.does-it-respond"));
        }
    }

    private String verb() {
        return action.getValue();
    }

    private String answer(ChannelSnapshot snapshot) {
        Series raw = snapshot.raw();
        Times times = snapshot.stream().times();
        long first = Math.max(times.firstAtOrAfter(begun), raw.start());
        int n = (int) Math.max(0, raw.end() - first);
        double[] seconds = new double[n];
        double[] values = new double[n];
        Scaling scaling = snapshot.scalingNow();
        for (int i = 0; i < n; i++) {
            seconds[i] = times.secondsAt(first + i);
            values[i] = scaling.apply(raw.value(first + i));
        }
        Response response = Response.of(seconds, values, touched, letGo, scaling.stepSize());
        return response.words(scaling.unit()) + response.direction(action.getValue());
    }

    void show() {
        if (!Double.isNaN(begun) && Double.isNaN(letGo)) {
            focused.get().ifPresent(snapshot -> {
                double since = snapshot.stream().lastSeconds() - (Double.isNaN(touched) ? begun : touched);
                Tip.on(go, Messages.of("bench.scale.s-so-far", Digits.fixed(since, 0)));
            });
        }
    }
}
