package zesty.signal.app.window.bench;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import zesty.signal.engine.ByteTail;

/**
 * A line of the bytes as they came.
 *
 * @param nanoTime when its first byte came, by the computer's steady clock; 0 when that is forgotten
 * @param why why it was set aside; empty when it was not
 */
public record ByteLine(long nanoTime, String text, String why) {
    private static final int HEX_WIDTH = 16;
    private static final int TEXT_LIMIT = 300;
    private static final HexFormat HEX = HexFormat.ofDelimiter(" ").withUpperCase();

    /** @param aside lines that were set aside, by their text, with the reason */
    public static List<ByteLine> ofText(ByteTail.Newest newest, int most, Map<String, String> aside) {
        byte[] bytes = newest.bytes();
        List<ByteLine> lines = new ArrayList<>();
        int end = bytes.length;
        while (end > 0 && lines.size() < most) {
            int start = end - 1;
            while (start > 0 && bytes[start - 1] != '\n') {
                start--;
            }
            boolean cut = start == 0 && newest.first() > 0;
            if (!cut || lines.isEmpty()) {
                String text = readable(bytes, start, end);
                lines.add(new ByteLine(newest.nanosOf(newest.first() + start), text, aside.getOrDefault(text, "")));
            }
            end = start;
        }
        java.util.Collections.reverse(lines);
        return lines;
    }

    public static List<ByteLine> ofHex(ByteTail.Newest newest, int most) {
        byte[] bytes = newest.bytes();
        List<ByteLine> lines = new ArrayList<>();
        // Rows begin at whole multiples of their width, so that they stand still while bytes come.
        long first = newest.first() + Math.max(0, bytes.length - (long) most * HEX_WIDTH);
        long row = (first + HEX_WIDTH - 1) / HEX_WIDTH * HEX_WIDTH;
        long end = newest.first() + bytes.length;
        for (; row < end; row += HEX_WIDTH) {
            int from = (int) (row - newest.first());
            int to = Math.min(bytes.length, from + HEX_WIDTH);
            String digits = HEX.formatHex(bytes, from, to);
            String text = String.format("%-47s   %s", digits, readable(bytes, from, to));
            lines.add(new ByteLine(newest.nanosOf(row), text, ""));
        }
        return lines;
    }

    /** Control characters become dots, so that rubbish looks like rubbish. */
    public static String readable(byte[] bytes, int from, int to) {
        int end = to;
        while (end > from && (bytes[end - 1] == '\n' || bytes[end - 1] == '\r') && to - from > HEX_WIDTH / 4) {
            end--;
        }
        if (end > from && bytes[end - 1] == '\n') {
            end--;
        }
        int shown = Math.min(end, from + TEXT_LIMIT);
        StringBuilder text = new StringBuilder();
        for (char c : new String(bytes, from, shown - from, StandardCharsets.UTF_8).toCharArray()) {
            text.append(c >= 0x20 && c != 0x7f && c != '\ufffd' ? c : c == '\t' ? '\t' : '·');
        }
        return shown < end ? text.append(" …").toString() : text.toString();
    }
}
