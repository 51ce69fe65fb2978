package zesty.signal.app.window.bench.source;

import java.util.List;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.LinkHealth;

/** Below the ribbon: what was set aside last, and why. */
final class Pocket extends HBox {
    private static final int SHOWN = 2;

    private final Label count = new Label();
    private final VBox lines = new VBox(2);
    private final Button sort;

    Pocket(Workspace workspace) {
        super(12);
        setId("pocket");
        getStyleClass().add("pocket");
        setAlignment(Pos.CENTER_LEFT);
        count.getStyleClass().add("socket-name");
        count.setMinWidth(Region.USE_PREF_SIZE);
        lines.setMinWidth(0);
        HBox.setHgrow(lines, Priority.ALWAYS);
        sort = new Button(Messages.of("bench.source.teach"));
        sort.getStyleClass().setAll("small-button");
        sort.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(sort, Messages.of("bench.source.opens-decode-where-such-lines-are"));
        sort.setOnAction(event -> workspace.view().stop().set(Stop.DECODE));
        getChildren().addAll(count, lines, sort);
        managedProperty().bind(visibleProperty());
    }

    void show(LinkHealth link) {
        setVisible(link.rejectedLines()
                        + link.wrongStamps()
                        + link.lateRows()
                        + link.repeatedRows()
                        + link.turnedAway()
                        + link.old()
                > 0);
        // There is something to teach where lines were not understood.
        sort.setVisible(link.rejectedLines() > 0);
        long rejected = link.rejectedLines() + link.wrongStamps();
        count.setText(Messages.of("bench.source.rejected", rejected));
        // What came late or twice was not rejected.
        count.setVisible(rejected > 0);
        count.setManaged(rejected > 0);
        List<RejectedLines.Item> aside = link.aside();
        List<RejectedLines.Item> newest = aside.subList(Math.max(0, aside.size() - SHOWN), aside.size());
        lines.getChildren().clear();
        count(
                link.wrongStamps(),
                Messages.of("bench.source.time-stamp"),
                Messages.of("bench.source.time-stamps"),
                UnaryOperator.identity(),
                Messages.of("bench.source.the-rows-around-contradict-it-the"));
        count(
                link.lateRows(),
                Messages.of("bench.source.row"),
                Messages.of("bench.source.rows"),
                counted -> Messages.of("bench.source.late", counted),
                Messages.of("bench.source.received-after-later-ones-put-in"));
        count(
                link.repeatedRows(),
                Messages.of("bench.source.row"),
                Messages.of("bench.source.rows"),
                counted -> Messages.of("bench.source.twice", counted),
                Messages.of("bench.source.all-of-it-came-before-left-out"));
        count(
                link.turnedAway(),
                Messages.of("bench.source.caller"),
                Messages.of("bench.source.callers"),
                counted -> Messages.of("bench.source.turned-away", counted),
                Messages.of("bench.source.another-board-is-connected-here"));
        count(
                link.old(),
                Messages.of("bench.source.old-message"),
                Messages.of("bench.source.old-messages"),
                UnaryOperator.identity(),
                Messages.of("bench.source.the-broker-had-kept-it-from-before"));
        for (RejectedLines.Item item : newest) {
            lines.getChildren().add(line(item.text().strip(), item.why()));
        }
    }

    /** @param befell what is said of so many of them */
    private void count(long count, String one, String many, UnaryOperator<String> befell, String why) {
        if (count > 0) {
            lines.getChildren().add(line(befell.apply(count + (count == 1 ? one : many)), why));
        }
    }

    private static HBox line(String what, String reason) {
        Label text = Bench.mono(what);
        text.setMinWidth(60);
        Label why = Bench.small(reason);
        why.setMinWidth(0);
        why.getStyleClass().add("pocket-why");
        HBox.setHgrow(why, Priority.ALWAYS);
        HBox line = new HBox(12, text, why);
        line.setAlignment(Pos.CENTER_LEFT);
        return line;
    }
}
