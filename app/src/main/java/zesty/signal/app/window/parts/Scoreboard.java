package zesty.signal.app.window.parts;

import java.util.ArrayList;
import java.util.List;
import javafx.beans.binding.Bindings;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.act.Deed;
import zesty.signal.core.act.Rule;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ActSnapshot;
import zesty.signal.engine.Snapshot;

/** Points, or what rules say, in letters that are read from across a room. */
public final class Scoreboard extends VBox {
    private static final PseudoClass ON = PseudoClass.getPseudoClass("on");
    private static final int MOST = 6;
    /** Height of the digits as a share of the window's. */
    private static final double DIGITS = 0.36;

    private final Workspace workspace;
    private final HBox boards = new HBox(24);
    private final Label nothing = new Label(Messages.of("parts.no-rule-yet-open-act-6-add-a-rule"));
    private List<String> names = List.of();
    private final List<Label> digits = new ArrayList<>();

    public Scoreboard(Workspace workspace) {
        super(16);
        this.workspace = workspace;
        setId("scoreboard");
        getStyleClass().add("scoreboard");
        setAlignment(Pos.CENTER);
        boards.setAlignment(Pos.CENTER);
        VBox.setVgrow(boards, Priority.ALWAYS);
        Button anew = new Button(Messages.of("parts.count-from-0"));
        anew.setId("count-anew");
        anew.getStyleClass().add("small-button");
        Tip.on(anew, Messages.of("parts.sets-all-points-to-nought"));
        anew.setOnAction(event -> workspace.acting().countAnew());
        Button close = new Button(Messages.of("parts.close"));
        close.setId("close-scoreboard");
        close.getStyleClass().add("small-button");
        Tip.on(close, Messages.of("parts.back-to-the-window-esc"));
        close.setOnAction(event -> workspace.view().scoreboard().set(false));
        HBox foot = new HBox(12, anew, close);
        foot.setAlignment(Pos.CENTER);
        nothing.getStyleClass().add("bench-line");
        getChildren().addAll(boards, foot);
        visibleProperty().bind(workspace.view().scoreboard());
        managedProperty().bind(visibleProperty());
    }

    /** Shows how the live trail's rules stand: those that count points, or all of them where none does. */
    public void show(Snapshot live) {
        if (!isVisible()) {
            return;
        }
        List<ActSnapshot.RuleNow> all = live.act().rules();
        List<ActSnapshot.RuleNow> counting = all.stream()
                .filter(one -> live.rig().act().deedsOf(one.rule().name()).contains(Deed.POINT))
                .toList();
        List<ActSnapshot.RuleNow> shown =
                (counting.isEmpty() ? all : counting).stream().limit(MOST).toList();
        List<String> now = shown.stream().map(one -> one.rule().name()).toList();
        if (!now.equals(names) || boards.getChildren().isEmpty()) {
            names = now;
            arrange();
        }
        for (int i = 0; i < shown.size(); i++) {
            ActSnapshot.RuleNow one = shown.get(i);
            digits.get(i).setText(counting.isEmpty() ? state(one) : Integer.toString(one.timesOn()));
            digits.get(i).pseudoClassStateChanged(ON, one.isOn());
        }
    }

    private static String state(ActSnapshot.RuleNow one) {
        return one.rule() instanceof Rule.InBands
                ? one.state() < 0 ? "\u2014" : Integer.toString(one.state() + 1)
                : one.isOn() ? Messages.of("parts.on") : Messages.of("parts.off");
    }

    private void arrange() {
        digits.clear();
        List<Node> made = new ArrayList<>();
        for (String name : names) {
            Label number = new Label();
            number.getStyleClass().add("score");
            number.setMinSize(Region.USE_PREF_SIZE, Region.USE_PREF_SIZE);
            number.styleProperty()
                    .bind(Bindings.createStringBinding(
                            () -> "-fx-font-size: "
                                    + Math.max(40, DIGITS * Math.min(getHeight(), 1.2 * getWidth() / names.size()))
                                    + "px",
                            heightProperty(),
                            widthProperty()));
            digits.add(number);
            Label called = new Label(name);
            called.getStyleClass().add("score-name");
            VBox board = new VBox(0, number, called);
            board.setAlignment(Pos.CENTER);
            HBox.setHgrow(board, Priority.ALWAYS);
            made.add(board);
        }
        boards.getChildren().setAll(names.isEmpty() ? List.of(nothing) : made);
    }
}
