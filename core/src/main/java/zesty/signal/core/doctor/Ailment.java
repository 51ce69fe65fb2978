package zesty.signal.core.doctor;

/** What can be wrong with a signal. The order is that of harm: the first is told first. */
public enum Ailment {
    FLAT("flat line"),
    AT_END("sits at an end"),
    IN_STEP("noise in step"),
    HUM("hum"),
    CLIPPED("clipped"),
    LOOSE("loose contact"),
    DROPOUTS("drop-outs"),
    UNEVEN("uneven sampling"),
    STEPPED("a step"),
    WANDER("wanders"),
    DRIFT("drifts"),
    FOLDED("maybe folded"),
    NOISE("noise"),
    FEW_BITS("few steps in use");

    private final String words;

    Ailment(String words) {
        this.words = words;
    }

    /** @return in two or three words, for a lane */
    public String words() {
        return words;
    }
}
