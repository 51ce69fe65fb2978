package zesty.signal.app.window.drawing;

import java.util.function.Consumer;

/** A picture of the window that can be had as a drawing. */
public interface Drawn {
    /** @return what it shows, in a word or two that can be a file's name */
    String subject();

    /** Hands its next picture over as the text of a drawing, once. */
    void nextDrawing(Consumer<String> taker);
}
