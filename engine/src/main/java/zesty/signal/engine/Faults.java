package zesty.signal.engine;

/** What to say when a thread of the trail ends by something nobody foresaw. */
final class Faults {
    private Faults() {}

    /** @return in words of our own: what happened and what would help */
    static String words(Throwable fault) {
        if (fault instanceof OutOfMemoryError) {
            return "memory ran out; give it more, for example ZESTY_MEMORY=2g, or record fewer columns";
        }
        if (fault instanceof StackOverflowError) {
            return "a formula or a line is nested too deeply to be worked out";
        }
        return "it stopped by a fault of the program itself ("
                + fault.getClass().getSimpleName() + ")";
    }
}
