package zesty.signal.app.window.workspace;

import zesty.signal.core.text.Messages;

/** The sets of colours that the window can wear: the same roles, other colours. */
public enum Look {
    DAY(Messages.of("workspace.day"), "", false),
    NIGHT(Messages.of("workspace.night"), "night", true),
    CONTRAST(Messages.of("workspace.high-contrast"), "contrast", true);

    private final String words;
    private final String style;
    private final boolean dark;

    Look(String words, String style, boolean dark) {
        this.words = words;
        this.style = style;
        this.dark = dark;
    }

    public String words() {
        return words;
    }

    /** @return the class it has in the style sheet; empty for the first one */
    public String style() {
        return style;
    }

    /** @return whether light lines stand on dark cards */
    public boolean dark() {
        return dark;
    }

    public Look next() {
        return values()[(ordinal() + 1) % values().length];
    }

    /** @return the one of that style; the first one when there is none */
    static Look of(String style) {
        for (Look look : values()) {
            if (look.style.equals(style)) {
                return look;
            }
        }
        return DAY;
    }
}
