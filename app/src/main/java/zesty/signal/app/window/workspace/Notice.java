package zesty.signal.app.window.workspace;

/**
 * Something to tell the maker.
 *
 * @param trouble whether it went wrong
 * @param undo takes it back; null when there is nothing to take back
 */
public record Notice(String text, boolean trouble, Runnable undo) {}
