package zesty.signal.app.window;

import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import zesty.signal.app.help.HelpBook;
import zesty.signal.app.help.HelpTopic;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.Snapshot;

/** The step of the first hour that comes next, above the lanes: what to do, until it is done. JavaFX thread. */
final class FirstHourBar extends HBox {
    private final Workspace workspace;
    private final Label count = new Label();
    private final Label words = new Label();
    private HelpBook book;
    private int told = -1;

    /** @param help is told the topic of a step of which more is wanted */
    FirstHourBar(Workspace workspace, Consumer<String> help) {
        super(12);
        this.workspace = workspace;
        setId("first-hour");
        getStyleClass().add("first-hour");
        setAlignment(Pos.CENTER_LEFT);
        count.setId("first-hour-count");
        count.getStyleClass().add("first-hour-count");
        count.setMinWidth(Region.USE_PREF_SIZE);
        words.setId("first-hour-words");
        words.setWrapText(true);
        words.setMinHeight(Region.USE_PREF_SIZE);
        words.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(words, Priority.ALWAYS);
        Button skip =
                button("first-hour-skip", Messages.of("window.skip"), Messages.of("window.goes-on-to-the-next-step"));
        skip.setOnAction(event -> next());
        Button more = button(
                "first-hour-more", Messages.of("window.more"), Messages.of("window.what-help-tells-of-this-step-f1"));
        more.setOnAction(event -> help.accept(FirstHour.topic(step())));
        Button later = button(
                "first-hour-later",
                Messages.of("window.later"),
                Messages.of("window.puts-it-away-f3-goes-on-from-here"));
        later.setOnAction(event -> toggle());
        getChildren().addAll(count, words, more, skip, later);
        visibleProperty().bind(workspace.view().guided());
        managedProperty().bind(visibleProperty());
    }

    private static Button button(String id, String text, String tip) {
        Button made = new Button(text);
        made.setId(id);
        made.getStyleClass().setAll("small-button");
        made.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(made, tip);
        return made;
    }

    private int step() {
        return Math.max(
                0, Math.min(FirstHour.STEPS - 1, workspace.view().firstHour().get()));
    }

    /** Begins it, puts it away, or goes on where it was left; once it is done it begins anew. */
    void toggle() {
        boolean open = !workspace.view().guided().get();
        int done = workspace.view().firstHour().get();
        if (open && (done < 0 || done >= FirstHour.STEPS)) {
            workspace.view().firstHour().set(0);
        }
        workspace.view().guided().set(open);
    }

    private void next() {
        int done = step() + 1;
        workspace.view().firstHour().set(done);
        if (done == FirstHour.STEPS) {
            workspace.view().guided().set(false);
            workspace.say(Messages.of("window.that-was-the-first-hour-from-plug"));
        }
    }

    /** @param shown what is in sight. @param live what runs */
    void show(Snapshot shown, Snapshot live) {
        if (!isVisible()) {
            return;
        }
        if (FirstHour.done(step(), workspace, shown, live)) {
            next();
        }
        int step = step();
        if (step != told) {
            told = step;
            book = book == null ? new HelpBook() : book;
            HelpTopic topic = book.topic(FirstHour.topic(step)).orElseThrow();
            count.setText(Messages.of("window.step-of", step + 1, FirstHour.STEPS, topic.title()));
            words.setText(topic.paragraphs().get(0));
        }
    }
}
