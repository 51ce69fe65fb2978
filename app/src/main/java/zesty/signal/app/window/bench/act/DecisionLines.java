package zesty.signal.app.window.bench.act;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Decision;

/** The newest decisions with the number behind each. */
final class DecisionLines extends VBox {
    private static final int SHOWN = 6;
    private final VBox lines = new VBox(1);
    private List<Decision> newest;

    DecisionLines() {
        super(3);
        setId("decisions");
        Label title = new Label(Messages.of("bench.act.decisions"));
        title.getStyleClass().add("kinds-title");
        getChildren().addAll(title, lines);
    }

    /** @param log oldest first */
    void show(List<Decision> log) {
        List<Decision> now = List.copyOf(log.subList(Math.max(0, log.size() - SHOWN), log.size()));
        if (now.equals(newest)) {
            return;
        }
        newest = now;
        List<FlowPane> made = new ArrayList<>();
        for (int i = now.size() - 1; i >= 0; i--) {
            made.add(line(now.get(i)));
        }
        lines.getChildren().setAll(made);
        if (made.isEmpty()) {
            lines.getChildren().setAll(Bench.small(Messages.of("bench.act.nothing-has-been-decided-yet")));
        }
    }

    /** @return minutes and seconds since the stream began: it stays what it is while time goes on */
    private static String clock(double seconds) {
        long tenths = Math.round(10 * Math.max(0, seconds));
        return tenths / 600 + ":" + (tenths % 600 < 100 ? "0" : "") + Digits.fixed(tenths % 600 / 10.0, 1);
    }

    private static FlowPane line(Decision one) {
        Label when = Bench.mono(clock(one.seconds()));
        when.setMinWidth(70);
        when.setAlignment(Pos.CENTER_RIGHT);
        boolean rule = one.kind() == Decision.Kind.RULE;
        Label what = new Label(one.name() + "  " + Messages.token(one.what()));
        what.getStyleClass().add(rule ? "decision" : "decision-sent");
        what.setMinWidth(Region.USE_PREF_SIZE);
        Label why = Bench.small(
                rule
                        ? Double.isNaN(one.value()) ? "" : Messages.of("bench.act.at", Digits.about(one.value(), 4))
                        : Messages.token(one.why()));
        FlowPane line = new FlowPane(10, 0, when, what, why);
        line.setAlignment(Pos.CENTER_LEFT);
        return line;
    }
}
