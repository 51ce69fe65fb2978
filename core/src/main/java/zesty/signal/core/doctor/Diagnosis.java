package zesty.signal.core.doctor;

/** What can be wrong with a signal. The order is that of harm: the first is told first. */
public enum Diagnosis {
    FLAT("flat line"),
    AT_END("stuck at a rail"),
    IN_STEP("noise like another channel's"),
    HUM("hum"),
    CLIPPED("clipped"),
    LOOSE("loose contact"),
    DROPOUTS("drop-outs"),
    UNEVEN("uneven sampling"),
    STEPPED("level shift"),
    WANDER("wanders"),
    DRIFT("drifts"),
    FOLDED("possible aliasing"),
    NOISE("noise"),
    FEW_BITS("low resolution");

    private final String words;

    Diagnosis(String words) {
        this.words = words;
    }

    /** @return in two or three words, for a lane */
    public String words() {
        return words;
    }
}
