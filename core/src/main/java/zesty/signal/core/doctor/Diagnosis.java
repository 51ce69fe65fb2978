package zesty.signal.core.doctor;

import zesty.signal.core.text.Messages;

/** What can be wrong with a signal. The order is that of harm: the first is told first. */
public enum Diagnosis {
    FLAT(Messages.of("doctor.flat-line")),
    AT_END(Messages.of("doctor.stuck-at-a-rail")),
    IN_STEP(Messages.of("doctor.noise-like-another-channel-s")),
    HUM(Messages.of("doctor.hum")),
    CLIPPED(Messages.of("doctor.clipped")),
    LOOSE(Messages.of("doctor.loose-contact")),
    DROPOUTS(Messages.of("doctor.drop-outs")),
    UNEVEN(Messages.of("doctor.uneven-sampling")),
    STEPPED(Messages.of("doctor.level-shift")),
    WANDER(Messages.of("doctor.wanders")),
    DRIFT(Messages.of("doctor.drifts")),
    FOLDED(Messages.of("doctor.possible-aliasing")),
    NOISE(Messages.of("doctor.noise")),
    FEW_BITS(Messages.of("doctor.low-resolution"));

    private final String words;

    Diagnosis(String words) {
        this.words = words;
    }

    /** @return in two or three words, for a lane */
    public String words() {
        return words;
    }
}
