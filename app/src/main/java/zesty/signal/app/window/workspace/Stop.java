package zesty.signal.app.window.workspace;

import zesty.signal.core.text.Messages;

/** The six stops of the trail, in the signal's own order. */
public enum Stop {
    SOURCE(Messages.of("workspace.source"), Messages.of("workspace.where-the-bytes-come-from")),
    DECODE(Messages.of("workspace.decode"), Messages.of("workspace.from-bytes-to-columns")),
    SCALE(Messages.of("workspace.scale"), Messages.of("workspace.from-counts-to-the-quantity")),
    CLEAN(Messages.of("workspace.clean"), Messages.of("workspace.noise-off-signal-kept")),
    READ(Messages.of("workspace.read"), Messages.of("workspace.the-answer-in-the-signal")),
    ACT(Messages.of("workspace.act"), Messages.of("workspace.what-to-do-about-it"));

    private final String title;
    private final String about;

    Stop(String title, String about) {
        this.title = title;
        this.about = about;
    }

    public String title() {
        return title;
    }

    public String about() {
        return about;
    }
}
