package zesty.signal.exchange.portable;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zesty.signal.core.plan.Plan;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** A planned board's program: reads and sends rows at the plan's rate, in its format, without drift and over every wrap of its clock. */
public final class PortableBoard {
    private static final Pattern NUMBER = Pattern.compile("[-+]?\\d+(\\.\\d+)?");
    private static final Pattern WORD = Pattern.compile("\\p{L}+");
    private static final int CLOCK_DIGITS = 7;
    /** An hour of microseconds has ten digits, a hundred years sixteen; a count of readings eleven with its sign. */
    private static final int CLOCK_BYTES = 20;

    private static final int READING_BYTES = 11;
    private static final int MOST_CHANNELS = 255;
    /** Two bytes that begin a packet, four of the clock, one of the check. */
    private static final int PACKET_FRAME = 7;

    /** Slower rows would be further apart than half a round of the clock. */
    private static final double LEAST_RATE_HZ = 0.001;

    private PortableBoard() {}

    private enum What {
        CLOCK,
        NUMBER,
        DROPPED,
        READING
    }

    /** A number of the row. @param decimals of the clock where it is written in s, {@code perUnit} µs of one of its unit */
    private record Field(What what, String before, int decimals, int perUnit) {}

    /**
     * @return the files' texts by name, {@code board.c} and {@code board.h}
     * @throws PortableException when the plan does not say enough, or asks for what cannot be
     */
    public static Map<String, String> files(Plan plan) {
        Plan.Row row = plan.row();
        if (row == null) {
            throw new PortableException(Messages.of("portable.a-board-s-code-needs-the-plan-s"));
        }
        if (row.rateHz() < LEAST_RATE_HZ || row.rateHz() > 1e6) {
            throw new PortableException(Messages.of("portable.a-board-s-rows-come-at-0-001-to", row.rateHz()));
        }
        Map<String, String> values = new LinkedHashMap<>();
        values.put("rate", Digits.exact(row.rateHz()));
        BigDecimal period = new BigDecimal(1e6)
                .multiply(new BigDecimal(4294967296.0))
                .divide(new BigDecimal(row.rateHz()), 0, RoundingMode.HALF_EVEN);
        values.put("period", period.toPlainString());
        int channels;
        if (row.text() == null) {
            channels = packet(row, values);
        } else {
            channels = text(row, values);
        }
        values.put("channels", String.valueOf(channels));
        values.put(
                "about",
                Template.comment(channels + (channels == 1 ? " channel" : " channels") + " at "
                        + Digits.exact(row.rateHz()) + " rows/s."));
        values.put(
                "memory",
                "It keeps " + (8 + 8 + 4 + 4 + 4 + 2 + Integer.parseInt(values.get("longest")))
                        + " bytes, and takes a few microseconds a channel beside your readings.");
        return Map.of("board.c", Template.of("board.c", values), "board.h", Template.of("board.h", values));
    }

    private static int packet(Plan.Row row, Map<String, String> values) {
        int bytes = (int) row.bytes();
        int frame = PACKET_FRAME + (row.numbered() ? 2 : 0);
        int channels = (bytes - frame) / 2;
        if (bytes != row.bytes() || channels < 1 || channels > MOST_CHANNELS || frame + 2 * channels != bytes) {
            throw new PortableException(
                    Messages.of("portable.a-packet-has-two-bytes-to-begin", Digits.of(row.bytes())));
        }
        StringBuilder code = new StringBuilder();
        code.append("    /* Two bytes begin a packet. */\n    put_byte(0xA5);\n    put_byte(0x5A);\n");
        code.append("    /* Microseconds, little end first. */\n    put_little((uint32_t)now_us, 4);\n");
        if (row.numbered()) {
            code.append("    /* The row's number; those of rows that were due and not sent are left out. */\n");
            code.append("    put_little(number, 2);\n");
        }
        for (int c = 0; c < channels; c++) {
            code.append("    put_little((uint32_t)board_read(").append(c).append("), 2);\n");
        }
        code.append("    /* The sum of all bytes before it, modulo 256. */\n    put_byte(sum());\n");
        values.put("row", code.toString());
        values.put("helpers", Template.text("board_packet.c"));
        values.put("longest", String.valueOf(bytes));
        values.put("longest_why", "as the plan has it");
        return channels;
    }

    private static int text(Plan.Row row, Map<String, String> values) {
        String text = row.text();
        List<Field> fields = new ArrayList<>();
        Matcher number = NUMBER.matcher(text);
        int at = 0;
        boolean clock = false;
        while (number.find()) {
            String before = text.substring(at, number.start());
            at = number.end();
            Field field = field(before, number.group(), clock, fields.isEmpty());
            if (row.numbered() && fields.size() == 1 && clock) {
                field = new Field(What.NUMBER, before, 0, 1);
            }
            clock |= field.what() == What.CLOCK;
            fields.add(field);
        }
        String after = text.substring(at);
        int channels =
                (int) fields.stream().filter(one -> one.what() == What.READING).count();
        if (channels < 1 || channels > MOST_CHANNELS) {
            throw new PortableException(
                    Messages.of("portable.the-row-s-text-has-numbers-for", channels, MOST_CHANNELS));
        }
        StringBuilder code = new StringBuilder();
        int longest = after.getBytes(StandardCharsets.UTF_8).length;
        int channel = 0;
        for (Field field : fields) {
            longest += field.before().getBytes(StandardCharsets.UTF_8).length
                    + (field.what() == What.READING ? READING_BYTES : CLOCK_BYTES + 1);
            put(code, field.before());
            switch (field.what()) {
                case CLOCK -> clock(code, field);
                case NUMBER ->
                    code.append("    /* The row's number; those of rows that were due and not sent are left out. */\n")
                            .append("    put_number(number, 1);\n");
                case DROPPED ->
                    code.append("    /* Rows that were due and not sent. */\n    put_number(dropped, 1);\n");
                case READING ->
                    code.append("    put_reading(board_read(").append(channel++).append("));\n");
            }
        }
        put(code, after);
        values.put("row", code.toString());
        values.put("helpers", Template.text("board_text.c") + Template.text("board_reading.c"));
        values.put("longest", String.valueOf(longest));
        values.put("longest_why", "the text, with every number as long as it can be");
        return channels;
    }

    /** The first number with t, us or ms in the words before it is the clock, or else a first number of seven digits or more. */
    private static Field field(String before, String number, boolean clock, boolean first) {
        List<String> words = new ArrayList<>();
        Matcher word = WORD.matcher(before.replace("µs", "us").replace("μs", "us"));
        while (word.find()) {
            words.add(word.group().toLowerCase(Locale.ROOT));
        }
        if (words.contains("dropped") || words.contains("lost") || words.contains("missed")) {
            return new Field(What.DROPPED, before, 0, 1);
        }
        boolean named = words.contains("t") || words.contains("us") || words.contains("ms");
        int digits = number.replaceAll("\\D", "").length();
        int point = number.indexOf('.');
        boolean is = !clock && (named || first && digits >= CLOCK_DIGITS && point < 0);
        if (!is) {
            return new Field(What.READING, before, 0, 1);
        }
        int decimals = point < 0 ? 0 : Math.min(6, number.length() - point - 1);
        boolean seconds = decimals > 0 && !words.contains("us") && !words.contains("ms");
        int unit = words.contains("ms") ? 1000 : seconds ? 1_000_000 : 1;
        return new Field(What.CLOCK, before, words.contains("us") ? 0 : decimals, unit);
    }

    private static void clock(StringBuilder code, Field field) {
        String unit = field.perUnit() == 1 ? "microseconds" : field.perUnit() == 1000 ? "milliseconds" : "seconds";
        code.append("    /* The clock, in ").append(unit).append(", its wraps counted. */\n");
        code.append("    put_number(now_us / ").append(field.perUnit()).append(", 1);\n");
        if (field.decimals() > 0 && field.perUnit() > 1) {
            int most = field.perUnit() == 1000 ? 3 : 6;
            int decimals = Math.min(most, field.decimals());
            int divisor = (int) Math.pow(10, most - decimals);
            code.append("    put_byte('.');\n    put_number(now_us % ")
                    .append(field.perUnit())
                    .append(" / ");
            code.append(divisor).append(", ").append(decimals).append(");\n");
        }
    }

    private static void put(StringBuilder code, String text) {
        if (text.isEmpty()) {
            return;
        }
        StringBuilder quoted = new StringBuilder();
        for (byte b : text.getBytes(StandardCharsets.UTF_8)) {
            int c = b & 0xFF;
            if (c == '\n') {
                quoted.append("\\n");
            } else if (c == '\r') {
                quoted.append("\\r");
            } else if (c == '\t') {
                quoted.append("\\t");
            } else if (c == '"' || c == '\\') {
                quoted.append('\\').append((char) c);
            } else if (c < ' ' || c > '~' || c == '?') {
                // Three octal digits end by themselves; a question mark might begin a trigraph.
                quoted.append(String.format(Locale.ROOT, "\\%03o", c));
            } else {
                quoted.append((char) c);
            }
        }
        code.append("    put_text(\"").append(quoted).append("\");\n");
    }
}
