package zesty.signal.app.window.bench.source;

import java.util.List;
import javafx.beans.binding.Bindings;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.LineEnding;
import zesty.signal.engine.SentLine;

/** Orders to the board: a line to say, those kept with the rig, and what was said last beside its answer. */
final class Orders extends VBox {
    private static final int SHOWN = 3;
    private static final PseudoClass UNANSWERED = PseudoClass.getPseudoClass("unanswered");

    private final Workspace workspace;
    private final TextField line = new TextField();
    private final Button ending = new Button();
    private final FlowPane chips = new FlowPane(6, 6);
    private LineEnding ends = LineEnding.NEW_LINE;
    private List<String> keptShown = List.of();
    private List<SentLine> sentShown = List.of();

    Orders(Workspace workspace) {
        super(6);
        this.workspace = workspace;
        line.setId("order");
        line.setPromptText(Messages.of("bench.source.command-to-the-board"));
        HBox.setHgrow(line, Priority.ALWAYS);
        line.setOnAction(event -> send());
        ending.setId("ending");
        ending.getStyleClass().setAll("small-button");
        ending.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(ending, Messages.of("bench.source.line-ending-press-for-the-next"));
        ending.setOnAction(event -> {
            ends = LineEnding.values()[(ends.ordinal() + 1) % LineEnding.values().length];
            sayEnding();
        });
        sayEnding();
        Button keep = new Button(Messages.of("bench.source.save"));
        keep.getStyleClass().setAll("small-button");
        keep.setId("keep-order");
        keep.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(keep, Messages.of("bench.source.keep-this-line-with-the-rig-to"));
        keep.setOnAction(event -> {
            if (!line.getText().isBlank()) {
                workspace.sourceActions().keepOrder(line.getText().strip(), true);
            }
        });
        HBox bar = new HBox(6, line, ending, keep);
        bar.setAlignment(Pos.CENTER_LEFT);
        chips.managedProperty().bind(Bindings.isNotEmpty(chips.getChildren()));
        chips.setMinHeight(Region.USE_PREF_SIZE);
        getChildren().addAll(chips, bar);
    }

    private void sayEnding() {
        ending.setText(Messages.of("bench.source.ends", ends.words()));
    }

    private void send() {
        if (!line.getText().isBlank()) {
            workspace.sourceActions().send(line.getText().strip(), ends);
            line.selectAll();
        }
    }

    void show() {
        List<String> kept = workspace.sourceActions().setup().orders();
        List<SentLine> sent = workspace.sourceActions().sent();
        List<SentLine> newest = List.copyOf(sent.subList(Math.max(0, sent.size() - SHOWN), sent.size()));
        if (kept.equals(keptShown) && newest.equals(sentShown)) {
            return;
        }
        keptShown = kept;
        sentShown = newest;
        chips.getChildren().clear();
        newest.forEach(each -> chips.getChildren().add(said(each)));
        kept.forEach(order -> chips.getChildren().add(button(order)));
    }

    /** What was said, beside what was answered. */
    private static HBox said(SentLine each) {
        boolean answered = !each.answer().isEmpty();
        Label words = new Label(each.text() + "  \u2192  "
                + (answered ? each.answer().strip() : Messages.of("bench.source.no-answer-yet")));
        words.setId("sent");
        HBox chip = new HBox(words);
        chip.getStyleClass().setAll("order-chip");
        chip.pseudoClassStateChanged(UNANSWERED, !answered);
        return chip;
    }

    private HBox button(String order) {
        Button button = new Button(order);
        button.getStyleClass().setAll("plug");
        button.setOnAction(event -> workspace.sourceActions().send(order, ends));
        Button away = new Button("\u00d7");
        away.getStyleClass().setAll("small-button");
        Tip.on(away, Messages.of("bench.source.remove-this-command-u-undoes-it"));
        away.setOnAction(event -> workspace.sourceActions().keepOrder(order, false));
        return new HBox(2, button, away);
    }
}
