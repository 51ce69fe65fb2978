package zesty.signal.core.clean;

/** A recipe that cannot be run. The message says which step, what is wrong and what would be right. */
public final class RecipeException extends IllegalArgumentException {
    public RecipeException(String message) {
        super(message);
    }
}
