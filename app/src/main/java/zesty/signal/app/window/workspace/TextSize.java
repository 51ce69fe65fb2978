package zesty.signal.app.window.workspace;

import zesty.signal.core.text.Messages;

/** How large all words of the window are. */
public enum TextSize {
    USUAL(100),
    LARGER(125),
    LARGEST(150);

    private final int percent;

    TextSize(int percent) {
        this.percent = percent;
    }

    public int percent() {
        return percent;
    }

    public String words() {
        return Messages.of("workspace.text", percent);
    }

    /** @return a length in pixels that goes with the text */
    public double of(double pixels) {
        return pixels * percent / 100;
    }

    public TextSize next() {
        return values()[(ordinal() + 1) % values().length];
    }

    /** @return the one of that many percent; the usual one when there is none */
    public static TextSize of(int percent) {
        for (TextSize size : values()) {
            if (size.percent == percent) {
                return size;
            }
        }
        return USUAL;
    }
}
