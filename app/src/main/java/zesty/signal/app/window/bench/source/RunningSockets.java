package zesty.signal.app.window.bench.source;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.ConversionForm;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.lanes.StateSign;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.app.wording.Wording;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.core.rig.Source;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.LinkHealth;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Snapshot;

/** The sources that run, each a socket with its heartbeat; the settings stand in the one in hand. */
final class RunningSockets extends VBox {
    private final Workspace workspace;
    private final TextField warmUp = new TextField();
    private final TextField stated = new TextField();
    private final HBox rate;
    private final HBox warming;
    private final List<One> ones = new ArrayList<>();
    private List<String> shown = List.of();

    private record One(Socket socket, StateSign sign, Heartbeat heart, Label state) {}

    RunningSockets(Workspace workspace) {
        super(6);
        this.workspace = workspace;
        warmUp.setId("warm-up");
        warmUp.setPrefColumnCount(2);
        Tip.on(warmUp, Messages.of("bench.source.for-so-long-after-the-link-opens"));
        warmUp.setOnAction(event -> warmUp());
        stated.setId("stated-rate");
        stated.setPrefColumnCount(6);
        stated.setPromptText(Messages.of("bench.source.unknown"));
        Tip.on(stated, Messages.of("bench.source.what-the-board-s-program-says-its"));
        stated.setOnAction(event -> statedRate());
        rate = row(Messages.of("bench.source.declared-rate"), stated, "/s");
        warming = row(Messages.of("bench.source.warm-up"), warmUp, "s");
        managedProperty().bind(visibleProperty());
    }

    private static HBox row(String before, TextField field, String after) {
        HBox row = new HBox(5, Bench.small(before), field, Bench.small(after));
        field.setMinWidth(Region.USE_PREF_SIZE);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    void show(Snapshot live) {
        List<Source> sources = live.rig().sources();
        setVisible(workspace.live().connected());
        if (!workspace.live().connected()) {
            return;
        }
        List<String> now = sources.stream()
                .map(source -> source.name() + " " + source.setup().address())
                .toList();
        int inHand = Math.min(workspace.sourceActions().source(), sources.size() - 1);
        if (!now.equals(shown)) {
            shown = now;
            build(sources);
        }
        Color colour = Palette.ink(workspace.view().night().get());
        for (int i = 0; i < ones.size(); i++) {
            LinkHealth link = live.health(i);
            One one = ones.get(i);
            one.socket().say(link.state() == LinkState.LIVE ? Wording.speed(link.bytesPerSecond()) : "");
            one.state().setText(Wording.state(link.state()));
            one.sign().show(link.state(), colour);
            one.heart().beat(link.bytes(), System.nanoTime(), colour);
            if (one.socket().isOpen() != (i == inHand)) {
                one.socket().holding(i == inHand ? settings(i, ones.size()) : new VBox());
                one.socket().open(i == inHand);
            }
        }
        SourceSetup setup = sources.get(inHand).setup();
        if (!stated.isFocused()) {
            double hz = setup.statedRateHz();
            stated.setText(Double.isNaN(hz) ? "" : Digits.box(hz));
        }
        if (!warmUp.isFocused()) {
            warmUp.setText(Digits.box(setup.warmUpSeconds()));
        }
    }

    private FlowPane settings(int index, int count) {
        FlowPane all = new FlowPane(10, 6, rate, warming);
        if (index > 0 || count == 1) {
            Button away = new Button(Messages.of("bench.source.disconnect"));
            away.setId("leave-" + index);
            away.getStyleClass().setAll("small-button");
            Tip.on(
                    away,
                    index > 0
                            ? Messages.of("bench.source.its-lanes-go-with-it")
                            : Messages.of("bench.source.unplug-it-here-l"));
            away.setOnAction(event -> {
                if (index > 0) {
                    workspace.live().leave(index);
                } else {
                    workspace.live().disconnect();
                }
            });
            all.getChildren().add(away);
        }
        all.setAlignment(Pos.CENTER_LEFT);
        return all;
    }

    private void build(List<Source> sources) {
        ones.clear();
        getChildren().clear();
        for (int i = 0; i < sources.size(); i++) {
            int index = i;
            StateSign sign = new StateSign();
            Heartbeat heart = new Heartbeat();
            Label state = new Label();
            state.getStyleClass().add("link-state");
            state.setMinWidth(Region.USE_PREF_SIZE);
            Source source = sources.get(i);
            String name = source.name().isEmpty()
                    ? LinkAddress.parse(source.setup().address()).shortName()
                    : source.name();
            Socket socket = new Socket("source-" + i, name, "", heart, sign, state);
            socket.onPressed(() -> workspace.live().sourceInHand().set(index));
            ones.add(new One(socket, sign, heart, state));
            getChildren().add(socket);
        }
    }

    private void statedRate() {
        String text = stated.getText().strip();
        try {
            double hz = text.isEmpty() ? Double.NaN : ConversionForm.number(text);
            workspace.sourceActions().statedRate(hz);
            workspace.say(
                    text.isEmpty()
                            ? Messages.of("bench.source.the-rate-is-measured-from-the-next")
                            : Messages.of("bench.source.stated-rate-samples-s-from-the", Digits.of(hz)));
        } catch (IllegalArgumentException e) {
            workspace.trouble(Messages.of("bench.source.a-stated-rate-is-a-number-of", text));
        }
    }

    private void warmUp() {
        try {
            double seconds = Digits.typed(warmUp.getText());
            workspace.sourceActions().warmUp(seconds);
            workspace.say(Messages.of("bench.source.warm-up-s-from-the-next-opening-on", Digits.of(seconds)));
        } catch (NumberFormatException e) {
            workspace.trouble(Messages.of("bench.source.a-warm-up-is-a-number-of-seconds", warmUp.getText()));
        }
    }
}
