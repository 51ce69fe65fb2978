package zesty.signal.app.window.parts;

import io.nayuki.qrcodegen.QrCode;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.RadioButton;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.show.ShowServer;
import zesty.signal.app.show.Where;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.text.Messages;

/** Opens and closes the page for a phone: who can reach it, its address as a code to photograph, and who looks. JavaFX thread. */
public final class PhonePane extends HBox {
    private static final DateTimeFormatter CLOCK =
            DateTimeFormatter.ofPattern("HH:mm").withZone(ZoneId.systemDefault());
    private static final double CODE = 264;
    /** Cameras need so much empty ground around a code, in its modules. */
    private static final int QUIET = 4;

    private static final double CHOICES = 430;

    private final Workspace workspace;
    private final RadioButton here = new RadioButton(Messages.of("parts.this-computer-only"));
    private final RadioButton network = new RadioButton(Messages.of("parts.this-network"));
    private final Button open = new Button();
    private final Button renew = new Button(Messages.of("parts.renew-the-address"));
    private final CheckBox markers = new CheckBox(Messages.of("parts.viewers-may-send-markers"));
    private final Canvas code = new Canvas(CODE, CODE);
    private final TextField address = new TextField();
    private final Button copy = new Button(Messages.of("parts.copy"));
    private final Label how = new Label();
    private final Label risk = new Label();
    private final VBox lookers = new VBox(6);
    private final VBox shown = new VBox(10);
    private List<ShowServer.Looker> listed = List.of();
    private final PublishCard publish;
    private String drawn = "";
    private ShowServer told;

    public PhonePane(Workspace workspace) {
        super(28);
        this.workspace = workspace;
        setId("phone");
        getStyleClass().add("bench");
        Label title = new Label(Messages.of("parts.show-on-a-phone"));
        title.getStyleClass().add("bench-title");
        Label about = hint(Messages.of("parts.the-cards-of-the-live-trail-on-a"));
        ToggleGroup group = new ToggleGroup();
        here.setId("phone-here");
        network.setId("phone-network");
        here.setToggleGroup(group);
        network.setToggleGroup(group);
        here.setSelected(true);
        group.selectedToggleProperty().addListener((p, was, is) -> chosen());
        open.setId("phone-open");
        open.setOnAction(event -> turn());
        renew.setId("phone-renew");
        Tip.on(renew, Messages.of("parts.whoever-has-the-old-address-sees"));
        renew.setOnAction(event -> {
            workspace.sharing().page().get().renew();
            fill();
        });
        for (Button button : new Button[] {open, renew, copy}) {
            button.getStyleClass().setAll("small-button");
        }
        markers.setId("phone-markers");
        Tip.on(markers, Messages.of("parts.a-word-from-the-phone-becomes-a"));
        markers.selectedProperty()
                .addListener((p, was, is) -> workspace.sharing().takeMarkers(is));
        risk.setWrapText(true);
        risk.setMinHeight(USE_PREF_SIZE);
        risk.getStyleClass().add("hint");
        HBox buttons = new HBox(8, open, renew);
        Label who = new Label(Messages.of("parts.who-looks"));
        who.getStyleClass().add("plan-name");
        VBox choices = new VBox(10, title, about, here, network, risk, markers, buttons, who, lookers);
        choices.setMinWidth(CHOICES);
        choices.setPrefWidth(CHOICES);
        choices.setMaxWidth(CHOICES);
        address.setId("phone-address");
        address.setEditable(false);
        address.getStyleClass().add("mono");
        HBox.setHgrow(address, Priority.ALWAYS);
        copy.setId("phone-copy");
        copy.setOnAction(event -> {
            ClipboardContent content = new ClipboardContent();
            content.putString(address.getText());
            Clipboard.getSystemClipboard().setContent(content);
            workspace.say(Messages.of("parts.the-address-is-copied"));
        });
        how.setWrapText(true);
        how.setMinHeight(USE_PREF_SIZE);
        code.managedProperty().bind(code.visibleProperty());
        code.setAccessibleText(Messages.of("parts.the-address-as-a-code-for-a-phone"));
        HBox line = new HBox(8, address, copy);
        line.setAlignment(Pos.CENTER_LEFT);
        publish = new PublishCard(workspace);
        shown.getChildren().setAll(code, how, line, publish);
        shown.setId("phone-shown");
        HBox.setHgrow(shown, Priority.ALWAYS);
        getChildren().setAll(choices, shown);
        workspace.sharing().page().addListener((p, was, is) -> fill());
        fill();
        chosen();
    }

    private static Label hint(String words) {
        Label label = new Label(words);
        label.setWrapText(true);
        label.setMinHeight(USE_PREF_SIZE);
        label.getStyleClass().add("hint");
        return label;
    }

    private Where where() {
        return network.isSelected() ? Where.NETWORK : Where.HERE;
    }

    private void chosen() {
        risk.setText(
                network.isSelected()
                        ? Messages.of("parts.whoever-is-in-this-network-and-has")
                        : Messages.of("parts.a-browser-on-this-computer-can"));
        ShowServer page = workspace.sharing().page().get();
        if (page != null && page.where() != where()) {
            workspace.sharing().open(where());
        }
    }

    private void turn() {
        if (workspace.sharing().page().get() == null) {
            workspace.sharing().open(where());
        } else {
            workspace.sharing().close();
        }
    }

    private void fill() {
        ShowServer page = workspace.sharing().page().get();
        open.setText(page == null ? Messages.of("parts.open-the-page") : Messages.of("parts.close-the-page"));
        renew.setDisable(page == null);
        address.getParent().setVisible(page != null);
        // A code is for another device's camera.
        code.setVisible(page != null && page.where() == Where.NETWORK);
        String to = page == null ? "" : page.address();
        address.setText(to);
        how.setText(
                page == null
                        ? Messages.of("parts.the-page-is-closed-once-it-is-open")
                        : page.where() == Where.HERE
                                ? Messages.of("parts.open-this-address-in-a-browser-on")
                                : Messages.of("parts.point-a-phone-s-camera-at-the-code"));
        if (!to.equals(drawn)) {
            drawn = to;
            draw(to);
        }
        show();
    }

    private void draw(String text) {
        GraphicsContext pen = code.getGraphicsContext2D();
        pen.clearRect(0, 0, CODE, CODE);
        if (text.isEmpty()) {
            return;
        }
        QrCode made = QrCode.encodeText(text, QrCode.Ecc.MEDIUM);
        // Dark on light whatever the look: not every camera reads it the other way round.
        pen.setFill(Color.WHITE);
        pen.fillRect(0, 0, CODE, CODE);
        pen.setFill(Color.BLACK);
        double cell = Math.floor(CODE / (made.size + 2 * QUIET));
        double edge = Math.floor((CODE - cell * made.size) / 2);
        for (int y = 0; y < made.size; y++) {
            for (int x = 0; x < made.size; x++) {
                if (made.getModule(x, y)) {
                    pen.fillRect(edge + x * cell, edge + y * cell, cell, cell);
                }
            }
        }
    }

    /** Shows who looks now; a few times a second is enough. */
    public void show() {
        ShowServer page = workspace.sharing().page().get();
        List<ShowServer.Looker> now = page == null ? List.of() : page.lookers();
        publish.show();
        if (now.equals(listed) && page == told && !lookers.getChildren().isEmpty()) {
            return;
        }
        told = page;
        listed = now;
        lookers.getChildren().clear();
        if (now.isEmpty()) {
            lookers.getChildren()
                    .add(hint(
                            page == null
                                    ? Messages.of("parts.nobody-can-the-page-is-closed")
                                    : Messages.of("parts.nobody-yet")));
        }
        for (ShowServer.Looker one : now) {
            Label words =
                    new Label(Messages.of("parts.at-since", one.what(), one.address(), CLOCK.format(one.since())));
            words.setMinWidth(0);
            Button out = new Button(Messages.of("parts.put-out"));
            out.setId("put-out");
            out.getStyleClass().setAll("small-button");
            Tip.on(out, Messages.of("parts.it-cannot-come-in-again-before-the"));
            out.setMinWidth(USE_PREF_SIZE);
            out.setOnAction(event -> page.putOut(one.address()));
            Region space = new Region();
            HBox.setHgrow(space, Priority.ALWAYS);
            HBox line = new HBox(8, words, space, out);
            line.setAlignment(Pos.CENTER_LEFT);
            lookers.getChildren().add(line);
        }
    }
}
