package zesty.signal.app.window.lanes;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Cursor;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.drawing.WhenSeen;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Mark;

/**
 * The markers below the time axis, spans with a bar over their length. Those of a take are moved by dragging, renamed by a
 * press, and deleted by the delete key or an empty name.
 */
final class MarkerRow extends Pane {
    private static final int MOST = 24;
    private static final double HEIGHT = 20;
    private static final double BAR = 3;
    /** A press that moves less is none to move by, in pixels. */
    private static final double STILL = 4;

    private final Workspace workspace;
    private final List<Tag> tags = new ArrayList<>();
    private final TextField writing = new TextField();
    private Mark written;
    private double left;
    private double perPixel = 1;

    MarkerRow(Workspace workspace) {
        HelpPlace.mark(this, "marker");
        this.workspace = workspace;
        setId("marker-row");
        setPickOnBounds(false);
        writing.setId("marker-name");
        writing.setVisible(false);
        writing.setPrefColumnCount(14);
        Tip.on(writing, Messages.of("lanes.enter-keeps-the-name-an-empty-one"));
        writing.setOnAction(event -> rename());
        writing.addEventFilter(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.ESCAPE) {
                close();
                event.consume();
            }
        });
        writing.focusedProperty().addListener((p, was, is) -> {
            if (!is) {
                close();
            }
        });
        WhenSeen.in(this, writing);
    }

    /** A marker's words, with the bar of its span. */
    private final class Tag extends Label {
        private final Region bar = new Region();
        private Mark mark;
        private double pressedAt;
        private boolean moved;

        Tag() {
            getStyleClass().add("mark-label");
            bar.getStyleClass().add("mark-span");
            bar.setMouseTransparent(true);
            bar.setManaged(false);
            setFocusTraversable(true);
            setOnMousePressed(event -> {
                pressedAt = event.getSceneX();
                moved = false;
                requestFocus();
                event.consume();
            });
            setOnMouseDragged(event -> {
                moved |= Math.abs(event.getSceneX() - pressedAt) > STILL;
                if (moved && changeable()) {
                    setTranslateX(event.getSceneX() - pressedAt);
                }
                event.consume();
            });
            setOnMouseReleased(event -> {
                setTranslateX(0);
                if (moved) {
                    move((event.getSceneX() - pressedAt) * perPixel);
                } else {
                    open(this);
                }
                event.consume();
            });
            setOnKeyPressed(event -> {
                boolean own = changeable();
                if (own && event.getCode() == KeyCode.ENTER) {
                    open(this);
                } else if (own && (event.getCode() == KeyCode.DELETE || event.getCode() == KeyCode.BACK_SPACE)) {
                    workspace.remark(mark, null, Messages.of("lanes.a-marker-deleted"));
                } else if (own && event.isShiftDown() && event.getCode() == KeyCode.LEFT) {
                    move(-perPixel);
                } else if (own && event.isShiftDown() && event.getCode() == KeyCode.RIGHT) {
                    move(perPixel);
                } else {
                    return;
                }
                event.consume();
            });
        }

        private void move(double by) {
            if (!changeable()) {
                return;
            }
            double length = mark.isSpan() ? mark.untilSeconds() - mark.seconds() : 0;
            double last = workspace.shown().snapshot(System.nanoTime()).lastSeconds() - length;
            double to = Math.max(0, Math.min(last, mark.seconds() + by));
            workspace.remark(
                    mark,
                    new Mark(to, mark.isSpan() ? to + length : Double.NaN, mark.text()),
                    Messages.of("lanes.a-marker-moved"));
        }

        void show(Mark now, double x, double to, double free) {
            if (!now.equals(mark)) {
                mark = now;
                setText(now.text());
                setId("marked-" + now.text().replaceAll("[^\\p{Alnum}]", "-"));
                Tip.on(this, changeable() ? Messages.of("lanes.press-to-rename-drag-to-move-enter") : now.text());
                setCursor(changeable() ? Cursor.HAND : Cursor.DEFAULT);
                setAccessibleText(Messages.of("lanes.marker", now.text()));
            }
            autosize();
            relocate(Math.max(x, free), 0);
            setVisible(true);
            bar.setVisible(now.isSpan());
            bar.resizeRelocate(
                    x,
                    getHeight(),
                    Math.max(1, to - x),
                    workspace.view().textSize().get().of(BAR));
        }

        void hide() {
            setVisible(false);
            bar.setVisible(false);
        }
    }

    /** A take's are, and those of a recording as long as it runs. */
    private boolean changeable() {
        return !workspace.shown().isLive()
                || workspace.shown().snapshot(System.nanoTime()).recording().running();
    }

    private void open(Tag tag) {
        if (!changeable()) {
            return;
        }
        written = tag.mark;
        writing.setText(written.text());
        writing.setVisible(true);
        writing.autosize();
        writing.relocate(Math.min(tag.getLayoutX(), getWidth() - writing.getWidth()), -4);
        writing.toFront();
        writing.requestFocus();
        writing.selectAll();
    }

    private void close() {
        writing.setVisible(false);
    }

    private void rename() {
        Mark old = written;
        String text = writing.getText().strip();
        close();
        if (text.isEmpty()) {
            workspace.remark(old, null, Messages.of("lanes.a-marker-deleted"));
        } else if (!text.equals(old.text())) {
            workspace.remark(
                    old, new Mark(old.seconds(), old.untilSeconds(), text), Messages.of("lanes.a-marker-renamed"));
        }
    }

    /** @return how high it is at this size of text; 0 without a marker */
    double high() {
        return workspace.shown().marks().isEmpty()
                ? 0
                : workspace.view().textSize().get().of(HEIGHT + BAR);
    }

    /**
     * @param from the time at the left
     * @param width of the pictures, in pixels
     */
    void show(double beginX, int width, double from) {
        left = beginX;
        perPixel = workspace.shown().window().span() / Math.max(1, width);
        int used = 0;
        double free = Double.NEGATIVE_INFINITY;
        for (Mark mark : workspace.shown().marks()) {
            double x = (mark.seconds() - from) / perPixel;
            double to = mark.isSpan() ? (mark.untilSeconds() - from) / perPixel : x;
            if (to < 0 || x > width || used == MOST) {
                continue;
            }
            if (used == tags.size()) {
                Tag made = new Tag();
                tags.add(made);
                getChildren().addAll(0, List.of(made, made.bar));
            }
            Tag tag = tags.get(used++);
            tag.show(mark, left + Math.max(0, x), left + Math.min(width, to), free);
            if (tag.getLayoutX() + tag.getWidth() > left + width) {
                tag.setLayoutX(left + width - tag.getWidth());
            }
            free = tag.getLayoutX() + tag.getWidth() + 4;
        }
        for (int i = used; i < tags.size(); i++) {
            tags.get(i).hide();
        }
    }
}
