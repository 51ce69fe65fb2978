package zesty.signal.app.window.workspace;

/** The six stops of the trail, in the signal's own order. */
public enum Stop {
    SOURCE("Source", "where the bytes come from"),
    DECODE("Decode", "from bytes to columns"),
    SCALE("Scale", "from counts to the quantity"),
    CLEAN("Clean", "noise off, signal kept"),
    READ("Read", "the answer in the signal"),
    ACT("Act", "what to do about it");

    private final String title;
    private final String about;

    Stop(String title, String about) {
        this.title = title;
        this.about = about;
    }

    public String title() {
        return title;
    }

    public String about() {
        return about;
    }
}
