package zesty.signal.core.act;

import zesty.signal.core.text.Messages;

/** What the program does by itself when a rule turns on. */
public enum Deed {
    TONE(Messages.of("act.play-a-tone")),
    MARK(Messages.of("act.make-a-marker")),
    POINT(Messages.of("act.add-a-point")),
    RECORD(Messages.of("act.start-a-recording")),
    STOP(Messages.of("act.stop-the-recording")),
    SAFE(Messages.of("act.make-all-outputs-safe"));

    private final String words;

    Deed(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
