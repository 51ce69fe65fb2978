package zesty.signal.core.rig;

import zesty.signal.core.text.Messages;

/** What to take care of around a sensor or what it sits on; shown once a rig, until it is acknowledged. */
public enum Caution {
    BODY(Messages.of("rig.on-a-body-battery-power-only")),
    VOLTAGE(Messages.of("rig.mind-the-limit-of-the-divider-and")),
    CURRENT(Messages.of("rig.current-sensors-in-a-power-circuit")),
    HEAT(Messages.of("rig.hot-parts-stay-hot-the-output-goes")),
    HEIGHT(Messages.of("rig.masts-and-roofs-no-climbing-alone")),
    LOAD(Messages.of("rig.nobody-stands-under-a-load")),
    MOVING(Messages.of("rig.things-that-spin-or-shoot-eye"));

    private final String words;

    Caution(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** @return whether nothing is read from a real board before it is acknowledged */
    public boolean comesFirst() {
        return this == BODY;
    }
}
