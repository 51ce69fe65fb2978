package zesty.signal.boards.link;

import java.io.IOException;

/** A link that cannot be opened or broke. The message says where, what, and what would be right. */
public final class LinkException extends IOException {
    private final boolean hopeless;

    /** @param hopeless whether trying again cannot help until the maker changes something */
    public LinkException(String message, boolean hopeless) {
        super(message);
        this.hopeless = hopeless;
    }

    public boolean hopeless() {
        return hopeless;
    }
}
