package zesty.signal.core.act;

/** An output at work. */
abstract class OutputDriver {
    int index;
    final String safe;
    private final Controller.Listener listener;
    private String last;

    OutputDriver(int index, String safe, Controller.Listener listener) {
        this.index = index;
        this.safe = safe;
        this.listener = listener;
    }

    void send(double seconds, String line, Controller.Why why) {
        last = line;
        listener.sent(seconds, index, line, why);
    }

    /** @return whether it drives as another one does that has not begun */
    abstract boolean sameAs(OutputDriver other);

    abstract void dueAt(double seconds);

    /** It was made safe by something else. */
    void madeSafe() {
        last = safe;
    }

    void end(double seconds) {
        if (last != null && !last.equals(safe)) {
            send(seconds, safe, Controller.Why.END);
        }
    }
}
