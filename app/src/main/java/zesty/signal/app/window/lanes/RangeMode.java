package zesty.signal.app.window.lanes;

import zesty.signal.core.text.Messages;

/** How the range of values of a lane goes with its signal. */
enum RangeMode {
    /** As much as is in sight. */
    FIT(""),
    /** As it stands, whatever comes: what two stretches look like can be compared. */
    HOLD(Messages.of("lanes.range-locked")),
    /** As high as it stands, moved up and down with the signal: a small swing on a slow drift stays in sight. */
    FOLLOW(Messages.of("lanes.range-follows"));

    private final String words;

    RangeMode(String words) {
        this.words = words;
    }

    /** @return what the lane says of it; nothing of the usual one */
    String words() {
        return words;
    }

    RangeMode next() {
        return values()[(ordinal() + 1) % values().length];
    }
}
