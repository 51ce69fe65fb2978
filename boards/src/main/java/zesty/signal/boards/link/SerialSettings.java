package zesty.signal.boards.link;

import java.util.Objects;
import zesty.signal.core.text.Messages;

/**
 * How a serial line is set, beside its speed.
 *
 * @param dataBits 5 to 8
 * @param stopBits 1 or 2
 * @param quiet whether the lines that restart many boards on opening are left alone
 */
public record SerialSettings(int dataBits, Parity parity, int stopBits, boolean quiet) {
    /** 8 data bits, no parity, 1 stop bit; opening restarts boards that are made so. */
    public static final SerialSettings USUAL = new SerialSettings(8, Parity.NONE, 1, false);

    private static final String FORMS = Messages.of("link.8n1-7e1-8o2-and-the-like-or-quiet");

    /** The bit that makes the ones of a byte odd or even in number. */
    public enum Parity {
        NONE,
        EVEN,
        ODD;

        char letter() {
            return name().charAt(0);
        }
    }

    public SerialSettings {
        Objects.requireNonNull(parity, "parity");
        if (dataBits < 5 || dataBits > 8 || stopBits < 1 || stopBits > 2) {
            throw new IllegalArgumentException(
                    Messages.of("link.a-line-has-5-to-8-data-bits-and-1", dataBits, stopBits));
        }
    }

    /** @return these settings changed by one word, such as 7E1 or quiet */
    SerialSettings with(String word) {
        if (word.equals("quiet")) {
            return new SerialSettings(dataBits, parity, stopBits, true);
        }
        if (word.matches("[5-8][NEO][12]")) {
            for (Parity each : Parity.values()) {
                if (each.letter() == word.charAt(1)) {
                    return new SerialSettings(word.charAt(0) - '0', each, word.charAt(2) - '0', quiet);
                }
            }
        }
        throw new IllegalArgumentException(Messages.of("link.is-no-setting-of-a-serial-line", word, FORMS));
    }

    /** @return what an address says of them behind the speed; empty for the usual ones */
    public String text() {
        String line = "" + dataBits + parity.letter() + stopBits;
        return (line.equals("8N1") ? "" : "," + line) + (quiet ? ",quiet" : "");
    }
}
