package zesty.signal.core.read;

/**
 * A number that a kind of reader gives, as it is described before anything is read.
 *
 * @param key in exports, parts of a group behind a dot: {@code rate_bpm.mean}
 * @param words short, for a card
 * @param unit empty for none; {@link #OF_PORT} for that of the signal it reads
 * @param decimals how many are worth showing; −1 for as many as the noise bears out
 * @param tip what it is and where its definition comes from
 */
public record ScalarInfo(String key, String words, String unit, int decimals, String tip) {
    /** The unit is that of the first port. */
    public static final String OF_PORT = "=";

    /** @return its unit where the first port's is the given one */
    public String unit(String portUnit) {
        return unit.equals(OF_PORT) ? portUnit : unit;
    }
}
