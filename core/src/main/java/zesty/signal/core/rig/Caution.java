package zesty.signal.core.rig;

/** What to take care of around a sensor or what it sits on; shown once a rig, until it is acknowledged. */
public enum Caution {
    BODY(
            "On a body: battery power only, computer off its charger, no other mains-connected instrument on the same board, "
                    + "intact insulation over exposed contacts, and stop if the skin is sore. This is not a medical device and "
                    + "diagnoses nothing."),
    VOLTAGE(
            "Mind the limit of the divider and of the board's pin. Mains and high-capacity batteries are for licensed hands "
                    + "and local codes. Lithium cells: fuse, no shorting, stop at the stated low limit."),
    CURRENT("Current sensors in a power circuit: isolate before touching; local codes."),
    HEAT("Hot parts stay hot; the output goes to zero when the link, the program or the plan stops."),
    HEIGHT("Masts and roofs: no climbing alone or in wind; lightning; local rules."),
    LOAD("Nobody stands under a load."),
    MOVING("Things that spin or shoot: eye protection, guard, clear line.");

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
