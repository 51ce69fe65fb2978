package zesty.signal.core.scale;

/** A formula that cannot be taken, with the place in its text where that shows. */
public final class FormulaException extends IllegalArgumentException {
    private static final long serialVersionUID = 1;

    private final String text;
    private final int place;

    /** @param place index in the text */
    FormulaException(String message, String text, int place, Throwable cause) {
        super(message, cause);
        this.text = text;
        this.place = Math.max(0, Math.min(place, text.length()));
    }

    public String text() {
        return text;
    }

    /** @return index in the text where it goes wrong */
    public int place() {
        return place;
    }

    /** @return the formula, and under it a caret at the place, to be shown in letters of one width */
    public String pointed() {
        return text + "\n" + " ".repeat(place) + "^";
    }
}
