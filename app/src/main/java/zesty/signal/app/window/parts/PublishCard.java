package zesty.signal.app.window.parts;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.PasswordField;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zesty.signal.app.show.Publisher;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.Snapshot;

/** What goes to a broker: where to, how often, and which readings and decisions; nothing that is not ticked. JavaFX thread. */
final class PublishCard extends VBox {
    private final Workspace workspace;
    private final TextField address = new TextField();
    private final PasswordField password = new PasswordField();
    private final TextField every = new TextField("1");
    private final Button go = new Button();
    private final FlowPane names = new FlowPane(12, 6);
    private final Map<String, CheckBox> boxes = new LinkedHashMap<>();
    private final Label said = new Label();
    private String wrong = "";

    PublishCard(Workspace workspace) {
        super(7);
        this.workspace = workspace;
        setId("publish");
        getStyleClass().add("plan-card");
        Label title = new Label(Messages.of("parts.publish-to-a-broker-mqtt"));
        title.getStyleClass().add("plan-name");
        address.setId("publish-address");
        address.setPromptText("mqtt://host/boats/wren");
        Tip.on(address, Messages.of("parts.readings-come-below-this-topic-one"));
        HBox.setHgrow(address, Priority.ALWAYS);
        password.setId("publish-password");
        password.setPromptText(Messages.of("parts.password-if-any"));
        Tip.on(password, Messages.of("parts.kept-in-memory-until-the-window"));
        password.setPrefColumnCount(12);
        every.setId("publish-every");
        every.setPrefColumnCount(4);
        every.setMaxWidth(60);
        go.setId("publish-go");
        go.getStyleClass().setAll("small-button");
        go.setOnAction(event -> turn());
        Label often = new Label(Messages.of("parts.every"));
        Label seconds = new Label("s");
        HBox line = new HBox(8, address, password, often, every, seconds, go);
        line.setAlignment(Pos.CENTER_LEFT);
        often.setMinWidth(USE_PREF_SIZE);
        seconds.setMinWidth(USE_PREF_SIZE);
        go.setMinWidth(USE_PREF_SIZE);
        names.setId("publish-names");
        said.setId("publish-said");
        said.setWrapText(true);
        said.setMinHeight(USE_PREF_SIZE);
        getChildren().setAll(title, line, names, said);
        workspace.sharing().publishing().addListener((p, was, is) -> show());
        show();
    }

    private void turn() {
        wrong = "";
        try {
            if (workspace.sharing().publishing().get() != null) {
                workspace.sharing().stopPublishing();
                return;
            }
            Set<String> ticked = new LinkedHashSet<>();
            boxes.forEach((name, box) -> {
                if (box.isSelected()) {
                    ticked.add(name);
                }
            });
            workspace.sharing().publish(address.getText().strip(), password.getText(), ticked, seconds());
            password.clear();
        } catch (IllegalArgumentException e) {
            wrong = Character.toUpperCase(e.getMessage().charAt(0))
                    + e.getMessage().substring(1) + ".";
        }
        show();
    }

    private double seconds() {
        try {
            return Digits.typed(every.getText());
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException(Messages.of("parts.is-not-a-number-of-seconds", every.getText()));
        }
    }

    /** Shows what there is to publish, and how it goes. */
    void show() {
        Publisher now = workspace.sharing().publishing().get();
        go.setText(now == null ? Messages.of("parts.publish") : Messages.of("parts.stop-publishing"));
        Snapshot live = workspace.live().snapshot(System.nanoTime());
        List<String> there = java.util.stream.Stream.concat(
                        live.channels().stream()
                                .filter(one ->
                                        one.channel().shown() || one.reader().isPresent())
                                .map(one -> one.channel().name()),
                        live.act().rules().stream().map(one -> one.rule().name()))
                .distinct()
                .toList();
        if (!there.equals(List.copyOf(boxes.keySet()))) {
            Map<String, CheckBox> before = new LinkedHashMap<>(boxes);
            boxes.clear();
            there.forEach(name -> boxes.put(name, before.computeIfAbsent(name, CheckBox::new)));
            names.getChildren().setAll(boxes.values());
        }
        address.setDisable(now != null);
        every.setDisable(now != null);
        password.setDisable(now != null);
        names.setDisable(now != null);
        said.setText(
                !wrong.isEmpty()
                        ? wrong
                        : now == null
                                ? there.isEmpty()
                                        ? Messages.of("parts.nothing-to-publish-yet-connect-a")
                                        : Messages.of("parts.tick-what-others-may-know-a-pulse")
                                : now.trouble().isEmpty()
                                        ? Messages.of("parts.messages-published", now.sent())
                                        : Messages.of("parts.it-is-tried-again", now.trouble()));
        said.getStyleClass().removeAll("error", "hint");
        boolean bad = !wrong.isEmpty() || now != null && !now.trouble().isEmpty();
        said.getStyleClass().add(bad ? "error" : "hint");
    }
}
