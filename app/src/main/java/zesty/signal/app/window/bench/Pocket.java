package zesty.signal.app.window.bench;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.desk.Desk;
import zesty.signal.app.window.desk.Stop;
import zesty.signal.core.decode.SetAside;
import zesty.signal.engine.LinkHealth;

/** Below the ribbon: what was set aside last, and why. */
final class Pocket extends HBox {
    private static final int SHOWN = 2;

    private final Label count = new Label();
    private final VBox lines = new VBox(2);

    Pocket(Desk desk) {
        super(12);
        setId("pocket");
        getStyleClass().add("pocket");
        setAlignment(Pos.CENTER_LEFT);
        count.getStyleClass().add("socket-name");
        count.setMinWidth(Region.USE_PREF_SIZE);
        lines.setMinWidth(0);
        HBox.setHgrow(lines, Priority.ALWAYS);
        Button sort = new Button("say what they are");
        sort.getStyleClass().setAll("small-button");
        sort.setMinWidth(Region.USE_PREF_SIZE);
        sort.setTooltip(new Tooltip("opens Decode, where such lines are taught (2)"));
        sort.setOnAction(event -> desk.stop().set(Stop.DECODE));
        getChildren().addAll(count, lines, sort);
        managedProperty().bind(visibleProperty());
    }

    void show(LinkHealth link) {
        setVisible(link.setAside() > 0);
        count.setText("Set aside: " + link.setAside());
        List<SetAside.Item> aside = link.aside();
        List<SetAside.Item> newest = aside.subList(Math.max(0, aside.size() - SHOWN), aside.size());
        lines.getChildren().clear();
        for (SetAside.Item item : newest) {
            Label text = Bench.mono(item.text().strip());
            text.setMinWidth(60);
            Label why = Bench.small(item.why());
            why.setMinWidth(0);
            why.getStyleClass().add("pocket-why");
            HBox.setHgrow(why, Priority.ALWAYS);
            HBox line = new HBox(12, text, why);
            line.setAlignment(Pos.CENTER_LEFT);
            lines.getChildren().add(line);
        }
    }
}
