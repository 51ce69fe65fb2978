package zesty.signal.app.window.bench;

import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.TextSize;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/** What all benches have in common: a title, and a sight to show a few times a second. */
public abstract class Bench extends VBox {
    protected final Workspace workspace;
    private final Label title = new Label();
    private final Label about = new Label();
    private final Stop stop;
    private final HBox head = new HBox(10);

    public Bench(Workspace workspace, Stop stop) {
        this.workspace = workspace;
        this.stop = stop;
        getStyleClass().add("bench");
        setSpacing(10);
        title.getStyleClass().add("bench-title");
        about.getStyleClass().add("hint");
        title.setMinWidth(Region.USE_PREF_SIZE);
        head.getChildren().addAll(title, about);
        head.setAlignment(Pos.CENTER_LEFT);
        getChildren().add(head);
    }

    /** Puts what is done with the whole bench at the end of its title line. */
    public final void atHead(Node... nodes) {
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        about.setMinWidth(0);
        // With large letters the room beside the title is for what is done there.
        about.managedProperty().bind(about.visibleProperty());
        about.visibleProperty().bind(workspace.view().textSize().isEqualTo(TextSize.USUAL));
        head.getChildren().add(space);
        head.getChildren().addAll(nodes);
    }

    /** The bench comes into view. */
    public void opened(Snapshot snapshot) {
        show(snapshot);
    }

    /** Shows what is so now. */
    public abstract void show(Snapshot snapshot);

    public final void head(Snapshot snapshot) {
        Optional<ChannelSnapshot> channel = focused(snapshot);
        title.setText(
                stop == Stop.SOURCE || channel.isEmpty()
                        ? stop.title()
                        : stop.title() + " · " + channel.get().channel().name());
        about.setText(stop.about());
    }

    public final Optional<ChannelSnapshot> focused(Snapshot snapshot) {
        return snapshot.focused(workspace.view().focus().get());
    }

    public static Label small(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("hint");
        return label;
    }

    public static Button button(String id, String text, String tip) {
        Button button = new Button(text);
        button.setId(id);
        button.getStyleClass().add("small-button");
        button.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(button, tip);
        return button;
    }

    public static Label mono(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("mono");
        return label;
    }

    public static VBox labelled(String text, Node field) {
        VBox box = new VBox(3, small(text), field);
        box.setAlignment(Pos.TOP_LEFT);
        return box;
    }
}
