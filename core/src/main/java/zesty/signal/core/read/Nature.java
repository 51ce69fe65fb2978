package zesty.signal.core.read;

/**
 * What a signal of a kind is by its nature, so that nobody calls it a fault.
 *
 * @param steadyLevel whether it stands on a level that should not move
 * @param noise whether it is noise, or sound
 * @param tones whether tones are what is measured
 * @param leaps whether its level leaps by itself
 */
public record Nature(boolean steadyLevel, boolean noise, boolean tones, boolean leaps) {
    /** A quantity that is read as it stands: a level. */
    public static final Nature LEVEL = new Nature(false, false, false, false);

    public static final Nature ON_A_LEVEL = new Nature(true, false, false, false);
    public static final Nature NOISE = new Nature(false, true, false, false);
    public static final Nature NOISE_THAT_LEAPS = new Nature(false, true, false, true);
    public static final Nature TONES = new Nature(false, true, true, false);
}
