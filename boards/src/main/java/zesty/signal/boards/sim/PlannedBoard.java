package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import zesty.signal.core.decode.Check;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/**
 * A board that is only planned yet: it sends rows as the plan has them, so many channels at such a rate from a converter of so many
 * bits with its noise, as text or in packets, without a word more. Its words stand behind its name after plus signs: {@code r200} rows
 * a second, {@code c3} channels, {@code b10} bits, {@code n0.8} counts of noise, {@code s41} counts of swing, {@code x20} Hz as the
 * fastest thing, {@code l100} a lamp or motor of so many Hz, {@code pulse} for a heart's signal, {@code packets}.
 */
final class PlannedBoard extends SampledBoard {
    private static final String PULSE = "pulse";
    private static final String PACKETS = "packets";
    /** Swings of the first channels beside the fastest one, as shares of its frequency. */
    private static final double[] SHARES = {0.11, 0.061, 0.037};

    private static final double LAMP_SHARE = 0.25;
    private static final double FINGER_SWING = 220;
    private static final double FINGER_MIDDLE = 512;

    /** @param lampHz NaN for none */
    private record Asked(
            double rateHz,
            int channels,
            int bits,
            double noise,
            double swing,
            double highestHz,
            double lampHz,
            boolean pulse,
            boolean packets) {}

    private final Asked asked;
    private final FingerSignal finger;

    private PlannedBoard(Setup setup, Asked asked) {
        super(setup, asked.rateHz(), columns(asked));
        this.asked = asked;
        for (int c = 1; c <= asked.channels(); c++) {
            range(1 + c, 0.45 * Math.pow(2, asked.bits()), 0.55 * Math.pow(2, asked.bits()));
        }
        finger = asked.pulse() ? new FingerSignal(setup.seed(), asked.rateHz(), setup.modes()) : null;
    }

    /**
     * @param words behind the board's name
     * @throws IllegalArgumentException when one of them asks for nothing that can be planned, saying which do
     */
    static PlannedBoard of(Setup setup, List<String> words) {
        double[] numbers = {100, 1, 10, 0.8, Double.NaN, 10, Double.NaN};
        String keys = "rcbnsxl";
        boolean pulse = false;
        boolean packets = false;
        for (String word : words) {
            int key = word.isEmpty() ? -1 : keys.indexOf(word.charAt(0));
            if (word.equals(PULSE) || word.equals(PACKETS)) {
                pulse |= word.equals(PULSE);
                packets |= word.equals(PACKETS);
            } else if (key >= 0 && word.substring(1).matches("\\d{1,9}(\\.\\d{1,6})?")) {
                numbers[key] = Double.parseDouble(word.substring(1));
            } else {
                throw new IllegalArgumentException("a planned board knows no '" + word
                        + "'; r200 rows/s, c3 channels, b10 bits, n0.8 counts of noise, s41 counts of swing, x20 Hz,"
                        + " l100 Hz of a lamp, pulse, packets");
            }
        }
        int channels = (int) numbers[1];
        int bits = (int) numbers[2];
        if (!(numbers[0] >= 0.1) || numbers[0] > 100_000 || channels < 1 || channels > 64 || bits < 4 || bits > 24) {
            throw new IllegalArgumentException(
                    "a planned board sends 0.1 to 100000 rows/s of 1 to 64 channels with 4 to 24 bits");
        }
        double full = Math.pow(2, bits);
        double swing = Double.isNaN(numbers[4]) ? 0.2 * full : numbers[4];
        return new PlannedBoard(
                setup,
                new Asked(numbers[0], channels, bits, numbers[3], swing, numbers[5], numbers[6], pulse, packets));
    }

    /** @return the words that ask for it, behind its name */
    static String words(
            double rateHz,
            int channels,
            int bits,
            double noise,
            double swing,
            double highestHz,
            List<Double> tones,
            boolean pulse,
            boolean packets) {
        StringBuilder words = new StringBuilder("planned+r").append(plain(rateHz));
        words.append("+c").append(channels).append("+b").append(bits);
        words.append("+n").append(plain(noise)).append("+s").append(plain(swing));
        words.append("+x").append(plain(highestHz));
        if (!tones.isEmpty()) {
            words.append("+l").append(plain(tones.get(0)));
        }
        return words.append(pulse ? "+" + PULSE : "")
                .append(packets ? "+" + PACKETS : "")
                .toString();
    }

    private static String plain(double value) {
        String text = String.format(Locale.ROOT, "%.4f", value);
        return text.replaceAll("0+$", "").replaceAll("\\.$", "");
    }

    private static List<Column> columns(Asked asked) {
        List<Column> columns = new ArrayList<>();
        columns.add(new Column("us", "", Role.CLOCK, true));
        columns.add(new Column("n", "", Role.SEQUENCE, true));
        for (int c = 1; c <= asked.channels(); c++) {
            columns.add(new Column("channel " + c, ""));
        }
        return columns;
    }

    @Override
    public byte[] greeting() {
        return new byte[0];
    }

    @Override
    void measure(double t) {
        double full = Math.pow(2, asked.bits()) - 1;
        row[0] = 1_200_000 + Math.floor(sample * 1e6 / asked.rateHz());
        row[1] = sample;
        for (int c = 0; c < asked.channels(); c++) {
            double value;
            if (c == 0 && finger != null) {
                value = full / 2 + (finger.next() - FINGER_MIDDLE) / FINGER_SWING * asked.swing();
            } else {
                double hz = asked.highestHz() * SHARES[c % SHARES.length];
                value = full / 2 + 0.5 * asked.swing() * Math.sin(2 * Math.PI * hz * t + c);
            }
            if (c == 0 && asked.lampHz() == asked.lampHz()) {
                value += LAMP_SHARE * asked.swing() * Math.sin(2 * Math.PI * asked.lampHz() * t + 1);
            }
            row[2 + c] = Math.max(0, Math.min(full, Math.rint(value + noise(asked.noise()))));
        }
    }

    @Override
    void write(ByteArrayOutputStream out) {
        if (!asked.packets()) {
            StringBuilder line = new StringBuilder().append((long) row[0]);
            for (int c = 1; c < row.length; c++) {
                line.append(';').append((long) row[c]);
            }
            text(out, line.append('\n').toString());
            return;
        }
        ByteArrayOutputStream packet = new ByteArrayOutputStream(9 + 2 * asked.channels());
        packet.write(0xa5);
        packet.write(0x5a);
        Packing.put(packet, (long) row[0] & 0xffffffffL, 4, true);
        for (int c = 1; c < row.length; c++) {
            Packing.put(packet, (long) row[c] & 0xffff, 2, true);
        }
        Packing.check(packet, 0, Check.SUM8, true);
        out.writeBytes(packet.toByteArray());
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("rows/s", asked.rateHz(), "swing", asked.swing());
    }
}
