package zesty.signal.engine;

/** What ends a line that is sent to a board. */
public enum LineEnding {
    NEW_LINE("new line", "\n"),
    RETURN("return", "\r"),
    BOTH("return and new line", "\r\n"),
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
