package zesty.signal.exchange;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.ShortBuffer;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Locale;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Mark;

/**
 * EDF+ after Kemp and Olivan, "European data format 'plus' (EDF+), an EDF alike standard format for the exchange of physiological data",
 * 2003: a signal a column, 16 bits a value, marks as annotations. A sample stands in the slot nearest to its time; the lowest digital value
 * stands for slots without one, and records that would hold nothing else are left out (EDF+D). Two bytes a value lie in a passing file while it is
 * written. Longer than others: a header, its records and its annotations are one format.
 */
public final class EdfExport {
    /** Stands in a signal's reserved field where the lowest digital value is no measurement. */
    public static final String MISSING = "missing=-32768";

    private static final int LOWEST = -32768;
    private static final int HIGHEST = 32767;
    /** As many bytes a record should have at most. */
    private static final int RECORD_BYTES = 61_440;

    private static final double[] TENS = {1, 10, 100, 1000, 10_000};
    private static final int FIELD = 8;
    private static final int LEAST_TAL = 32;
    private static final int MOST_SIGNALS = 512;

    private EdfExport() {}

    /**
     * What the file holds less than the take.
     *
     * @param words a sentence each; none where nothing is lost
     */
    public record Written(List<String> words) {}

    /** A signal: its range as it stands in the file, and its values by slot. */
    private static final class Signal {
        final TakeView.Column column;
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        /** By decimals, whether all values so far have no more than so many. */
        final boolean[] fit = {true, true, true, true, true};

        boolean exact;
        String lowText;
        String highText;
        ShortBuffer slots;

        Signal(TakeView.Column column) {
            this.column = column;
        }

        void see(double value) {
            if (Double.isFinite(value)) {
                low = Math.min(low, value);
                high = Math.max(high, value);
                for (int k = 0; k < fit.length; k++) {
                    double scaled = value * TENS[k];
                    fit[k] &= Math.abs(scaled - Math.rint(scaled)) < 1e-9 * Math.max(1, Math.abs(scaled));
                }
            }
        }

        /** Chooses the range: whole and decimal numbers keep their steps where they fit, others lose least. */
        void range() {
            if (!(high >= low)) {
                low = 0;
                high = 1;
            }
            for (int k = 0; k < fit.length && !exact; k++) {
                exact = fit[k] && decimal(k);
            }
            if (!exact) {
                double span = high > low ? high - low : Math.max(1e-3, Math.abs(high) * 1e-3);
                lowText = text(low - span / (HIGHEST - LOWEST - 1), RoundingMode.FLOOR);
                highText = text(low + span, RoundingMode.CEILING);
            }
            low = Double.parseDouble(lowText);
            high = Double.parseDouble(highText);
        }

        /** @return whether steps of so many decimals take all in, and the fields hold their ends */
        private boolean decimal(int decimals) {
            BigDecimal begin = new BigDecimal(low)
                    .setScale(decimals, RoundingMode.HALF_EVEN)
                    .subtract(BigDecimal.ONE.movePointLeft(decimals));
            BigDecimal end = begin.add(BigDecimal.valueOf(HIGHEST - LOWEST).movePointLeft(decimals));
            lowText = begin.stripTrailingZeros().toPlainString();
            highText = end.stripTrailingZeros().toPlainString();
            return lowText.length() <= FIELD && highText.length() <= FIELD && end.doubleValue() >= high;
        }

        double step() {
            return (high - low) / (HIGHEST - LOWEST);
        }

        short digital(double value) {
            if (!Double.isFinite(value)) {
                return (short) LOWEST;
            }
            long digital = Math.round((value - low) / step()) + LOWEST;
            return (short) Math.max(LOWEST + 1, Math.min(HIGHEST, digital));
        }
    }

    /** What comes with the same rows: its signals, slots a record, and which slots are filled. */
    private static final class Part {
        final List<Signal> signals = new ArrayList<>();
        final BitSet filled = new BitSet();
        double rateHz;
        int each;
        double lastSeconds;
        long collided;
    }

    /**
     * Writes all sources. The stream stays the caller's.
     *
     * @param started when the take began
     * @throws IOException also where it does not fit into such a file, saying why
     */
    public static Written write(TakeView view, Instant started, String title, List<Mark> marks, OutputStream out)
            throws IOException {
        List<Part> parts = new ArrayList<>();
        for (int s = 0; s < view.sources().size(); s++) {
            parts.add(part(view, s));
        }
        double duration = duration(parts);
        int records = 0;
        for (Part part : parts) {
            part.each = Math.max(1, (int) Math.round(part.rateHz * duration));
            records = Math.max(records, (int) Math.min(99_999_999, part.lastSeconds / duration) + 1);
        }
        try (EdfSlots room = new EdfSlots()) {
            for (int s = 0; s < parts.size(); s++) {
                records = Math.max(records, fill(view, s, parts.get(s), duration, records, room));
            }
            return write(parts, records, duration, started, title, marks, out);
        }
    }

    private static Written write(
            List<Part> parts,
            int records,
            double duration,
            Instant started,
            String title,
            List<Mark> marks,
            OutputStream out)
            throws IOException {
        long bytes = 2L
                * records
                * parts.stream().mapToInt(p -> p.each * p.signals.size()).sum();
        boolean[] kept = kept(parts, records);
        Annotations annotations = new Annotations(marks, kept, duration);
        out.write(header(parts, annotations, started, title, kept, duration));
        for (int r = 0; r < records; r++) {
            if (kept[r]) {
                record(parts, r, out);
                out.write(annotations.of(r));
            }
        }
        return new Written(losses(parts, duration, bytes));
    }

    private static Part part(TakeView view, int source) throws IOException {
        TakeView.Source of = view.sources().get(source);
        if (!(of.rateHz() > 0)) {
            throw new IOException(Messages.of("exchange.its-rows-come-too-unevenly-for-one"));
        }
        Part part = new Part();
        part.rateHz = of.rateHz();
        of.columns().forEach(column -> part.signals.add(new Signal(column)));
        view.read(source, all(of), (seconds, values) -> {
            for (int c = 0; c < values.length; c++) {
                for (double value : values[c]) {
                    part.signals.get(c).see(value);
                }
            }
            part.lastSeconds = Math.max(part.lastSeconds, seconds[seconds.length - 1]);
        });
        part.signals.forEach(Signal::range);
        return part;
    }

    private static int[] all(TakeView.Source of) {
        int[] all = new int[of.columns().size()];
        Arrays.setAll(all, c -> c);
        return all;
    }

    /** A second where rates are whole, more for slow rows, less where a record would be too long; exact for the first source. */
    private static double duration(List<Part> parts) throws IOException {
        double slowest = parts.stream().mapToDouble(p -> p.rateHz).min().orElse(1);
        double duration = slowest >= 1 ? 1 : Math.ceil(1 / slowest);
        double bytesASecond =
                parts.stream().mapToDouble(p -> 2 * p.rateHz * p.signals.size()).sum();
        while (bytesASecond * duration > RECORD_BYTES && slowest * duration > 20) {
            duration /= 10;
        }
        if (parts.stream().mapToInt(p -> p.signals.size()).sum() >= MOST_SIGNALS) {
            throw new IOException(Messages.of("exchange.it-has-more-columns-than-this", (MOST_SIGNALS - 1)));
        }
        double first = parts.get(0).rateHz;
        String text = text(Math.max(1, Math.round(first * duration)) / first, RoundingMode.HALF_EVEN);
        return Double.parseDouble(text);
    }

    private static int fill(TakeView view, int source, Part part, double duration, int records, EdfSlots room)
            throws IOException {
        long slots = (long) records * part.each + part.each;
        if (slots > Integer.MAX_VALUE - 8) {
            throw new IOException(Messages.of("exchange.its-gaps-or-its-length-are-beyond"));
        }
        for (Signal signal : part.signals) {
            signal.slots = room.filled((int) slots, (short) LOWEST);
        }
        double rate = part.each / duration;
        int[] last = {-1};
        view.read(source, all(view.sources().get(source)), (seconds, values) -> {
            for (int i = 0; i < seconds.length; i++) {
                long nearest = Math.round(seconds[i] * rate);
                // Times that waver stay in order, each in a slot of its own; where rows come faster than slots, they
                // catch up later.
                int slot = (int) Math.max(last[0] + 1, Math.min(nearest, slots - 1));
                if (slot >= slots) {
                    part.collided++;
                    continue;
                }
                last[0] = slot;
                part.filled.set(slot);
                for (int c = 0; c < values.length; c++) {
                    Signal signal = part.signals.get(c);
                    signal.slots.put(slot, signal.digital(values[c][i]));
                }
            }
        });
        return last[0] / part.each + 1;
    }

    private static boolean[] kept(List<Part> parts, int records) {
        boolean[] kept = new boolean[records];
        for (Part part : parts) {
            for (int r = 0; r < records; r++) {
                int next = part.filled.nextSetBit(r * part.each);
                kept[r] |= next >= 0 && next < (r + 1) * part.each;
            }
        }
        kept[0] = true;
        return kept;
    }

    private static void record(List<Part> parts, int record, OutputStream out) throws IOException {
        for (Part part : parts) {
            for (Signal signal : part.signals) {
                ByteBuffer bytes = ByteBuffer.allocate(2 * part.each).order(ByteOrder.LITTLE_ENDIAN);
                bytes.asShortBuffer().put(signal.slots.slice(record * part.each, part.each));
                out.write(bytes.array());
            }
        }
    }

    private static List<String> losses(List<Part> parts, double duration, long bytes) {
        List<String> words = new ArrayList<>();
        long collided = parts.stream().mapToLong(p -> p.collided).sum();
        for (Part part : parts) {
            double rate = part.each / duration;
            if (Math.abs(rate - part.rateHz) > 1e-9 * rate) {
                words.add(Messages.of(
                        "exchange.the-rate-in-the-file-is-hz-the", Digits.exact(rate), Digits.exact(part.rateHz)));
            }
            for (Signal signal : part.signals) {
                if (!signal.exact) {
                    words.add(Messages.of(
                            "exchange.is-rounded-by-up-to",
                            signal.column.name(),
                            Digits.about(signal.step() / 2, 3),
                            (signal.column.unit().isEmpty() ? "" : " " + signal.column.unit())));
                }
            }
        }
        if (collided > 0) {
            words.add(Messages.of("exchange.rows-found-no-slot-at-the-end", collided));
        }
        return words;
    }

    /** Annotations by record: when each record begins, and the marks, in the record of their time or one after it. */
    private static final class Annotations {
        private final byte[][] texts;
        private final int bytes;

        Annotations(List<Mark> marks, boolean[] kept, double duration) {
            int capacity = LEAST_TAL;
            for (Mark mark : marks) {
                capacity = Math.max(capacity, LEAST_TAL + tal(mark).length);
            }
            byte[][] placed = placed(marks, kept, duration, capacity);
            while (placed == null) {
                capacity *= 2;
                placed = placed(marks, kept, duration, capacity);
            }
            texts = placed;
            bytes = capacity + capacity % 2;
        }

        private static byte[][] placed(List<Mark> marks, boolean[] kept, double duration, int capacity) {
            byte[][] texts = new byte[kept.length][];
            List<Mark> waiting = new ArrayList<>(marks);
            for (int r = 0; r < kept.length; r++) {
                if (!kept[r]) {
                    continue;
                }
                ByteArrayOutputStream text = new ByteArrayOutputStream();
                text.writeBytes(("+" + plain(r * duration) + "\u0014\u0014\0").getBytes(StandardCharsets.UTF_8));
                while (!waiting.isEmpty()
                        && waiting.get(0).seconds() < (r + 1) * duration
                        && text.size() + tal(waiting.get(0)).length <= capacity) {
                    text.writeBytes(tal(waiting.remove(0)));
                }
                texts[r] = text.toByteArray();
            }
            // A mark behind the last record stands in it all the same.
            int last = kept.length - 1;
            while (last >= 0 && !waiting.isEmpty()) {
                byte[] more = tal(waiting.get(0));
                if (texts[last] == null || texts[last].length + more.length > capacity) {
                    return null;
                }
                byte[] longer = Arrays.copyOf(texts[last], texts[last].length + more.length);
                System.arraycopy(more, 0, longer, texts[last].length, more.length);
                texts[last] = longer;
                waiting.remove(0);
            }
            return texts;
        }

        private static byte[] tal(Mark mark) {
            String text =
                    mark.text().replace('\u0014', ' ').replace('\u0015', ' ').replace('\0', ' ');
            String lasts = mark.isSpan() ? "\u0015" + plain(mark.untilSeconds() - mark.seconds()) : "";
            return ("+" + plain(mark.seconds()) + lasts + "\u0014" + text + "\u0014\0")
                    .getBytes(StandardCharsets.UTF_8);
        }

        byte[] of(int record) {
            return Arrays.copyOf(texts[record], bytes);
        }
    }

    private static String plain(double seconds) {
        return new BigDecimal(seconds)
                .setScale(6, RoundingMode.HALF_EVEN)
                .stripTrailingZeros()
                .toPlainString();
    }

    /** @return the number in the eight characters a field has, rounded as told where it must be */
    private static String text(double value, RoundingMode rounding) {
        for (int digits = 7; digits >= 0; digits--) {
            String text = new BigDecimal(value)
                    .setScale(digits, rounding)
                    .stripTrailingZeros()
                    .toPlainString();
            if (text.length() <= FIELD) {
                return text;
            }
        }
        for (int digits = 6; digits >= 1; digits--) {
            String text = String.format(
                    Locale.ROOT, "%E", new BigDecimal(value).round(new java.math.MathContext(digits, rounding)));
            text = new BigDecimal(text)
                    .round(new java.math.MathContext(digits, rounding))
                    .toString();
            if (text.length() <= FIELD) {
                return text;
            }
        }
        return value < 0 ? "-1E99" : "1E99";
    }

    private static byte[] header(
            List<Part> parts, Annotations annotations, Instant started, String title, boolean[] kept, double duration) {
        ZonedDateTime at = started.atZone(ZoneOffset.UTC);
        List<Signal> signals = new ArrayList<>();
        List<Integer> each = new ArrayList<>();
        for (Part part : parts) {
            for (Signal signal : part.signals) {
                signals.add(signal);
                each.add(part.each);
            }
        }
        int ns = signals.size() + 1;
        int records = 0;
        boolean holes = false;
        for (int r = 0; r < kept.length; r++) {
            records += kept[r] ? 1 : 0;
            holes |= !kept[r];
        }
        String month = at.format(DateTimeFormatter.ofPattern("dd-MMM-yyyy", Locale.ENGLISH))
                .toUpperCase(Locale.ROOT);
        String name = title.isBlank() ? "X" : title.strip().replaceAll("\\s+", "_");
        StringBuilder text = new StringBuilder();
        pad(text, "0", FIELD);
        pad(text, "X X X X", 80);
        pad(text, "Startdate " + month + " X X " + name, 80);
        pad(text, at.format(DateTimeFormatter.ofPattern("dd.MM.yy", Locale.ROOT)), FIELD);
        pad(text, at.format(DateTimeFormatter.ofPattern("HH.mm.ss", Locale.ROOT)), FIELD);
        pad(text, String.valueOf(256 * (ns + 1)), FIELD);
        pad(text, holes ? "EDF+D" : "EDF+C", 44);
        pad(text, String.valueOf(records), FIELD);
        pad(text, text(duration, RoundingMode.HALF_EVEN), FIELD);
        pad(text, String.valueOf(ns), 4);
        signals.forEach(one -> pad(text, one.column.name(), 16));
        pad(text, "EDF Annotations", 16);
        pad(text, "", 80 * ns);
        signals.forEach(one -> pad(text, one.column.unit(), FIELD));
        pad(text, "", FIELD);
        signals.forEach(one -> pad(text, one.lowText, FIELD));
        pad(text, "-1", FIELD);
        signals.forEach(one -> pad(text, one.highText, FIELD));
        pad(text, "1", FIELD);
        for (int s = 0; s < ns; s++) {
            pad(text, String.valueOf(LOWEST), FIELD);
        }
        for (int s = 0; s < ns; s++) {
            pad(text, String.valueOf(HIGHEST), FIELD);
        }
        pad(text, "", 80 * ns);
        each.forEach(one -> pad(text, String.valueOf(one), FIELD));
        pad(text, String.valueOf(annotations.bytes / 2), FIELD);
        signals.forEach(one -> pad(text, MISSING, 32));
        pad(text, "", 32);
        return text.toString().getBytes(StandardCharsets.US_ASCII);
    }

    /** Fields hold plain ASCII only: other letters go as the nearest of them. */
    private static void pad(StringBuilder text, String field, int length) {
        String ascii = field.replace("µ", "u")
                .replace("μ", "u")
                .replace("°", "deg")
                .replace("Ω", "Ohm")
                .replace("²", "2");
        ascii = java.text.Normalizer.normalize(ascii, java.text.Normalizer.Form.NFD)
                .replaceAll("\\p{M}", "")
                .replaceAll("[^ -~]", "_");
        text.append(ascii, 0, Math.min(length, ascii.length()));
        text.append(" ".repeat(Math.max(0, length - ascii.length())));
    }
}
