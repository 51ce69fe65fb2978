package zesty.signal.engine;

/**
 * A line that was sent to the board.
 *
 * @param nanoTime when, by the computer's steady clock
 * @param answer the first thing the board said within five seconds that was no row; empty when it said nothing of the kind
 */
public record SentLine(long nanoTime, String text, String answer) {
    SentLine withAnswer(String said) {
        return new SentLine(nanoTime, text, said);
    }
}
