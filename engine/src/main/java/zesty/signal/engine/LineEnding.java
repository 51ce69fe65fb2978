package zesty.signal.engine;

import zesty.signal.core.text.Messages;

/** What ends a line that is sent to a board. */
public enum LineEnding {
    NEW_LINE(Messages.of("engine.new-line"), "\n"),
    RETURN("return", "\r"),
    BOTH(Messages.of("engine.return-and-new-line"), "\r\n"),
    NONE("nothing", "");

    private final String words;
    private final String text;

    LineEnding(String words, String text) {
        this.words = words;
        this.text = text;
    }

    public String words() {
        return words;
    }

    public String text() {
        return text;
    }
}
