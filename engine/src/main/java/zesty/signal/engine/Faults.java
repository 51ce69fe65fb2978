package zesty.signal.engine;

import zesty.signal.core.text.Messages;

/** What to say when a thread of the trail ends by something nobody foresaw. */
final class Faults {
    private Faults() {}

    /** @return in words of our own: what happened and what would help */
    static String words(Throwable fault) {
        if (fault instanceof OutOfMemoryError) {
            return Messages.of("engine.memory-ran-out-give-it-more-for");
        }
        if (fault instanceof StackOverflowError) {
            return Messages.of("engine.a-formula-or-a-line-is-nested-too");
        }
        return Messages.of(
                "engine.it-stopped-by-a-fault-of-the", fault.getClass().getSimpleName());
    }
}
