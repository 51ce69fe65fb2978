package zesty.signal.app.command;

/** The words or the input are wrong: exit status 2, the message as the one line. */
final class Refusal extends RuntimeException {
    Refusal(String message) {
        super(message);
    }
}
