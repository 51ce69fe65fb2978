package zesty.signal.core.act;

/** What the program does by itself when a rule turns on. */
public enum Deed {
    TONE("play a tone"),
    MARK("make a marker"),
    POINT("add a point"),
    RECORD("start a recording"),
    STOP("stop the recording"),
    SAFE("make all outputs safe");

    private final String words;

    Deed(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
