package zesty.signal.core.decode;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;

/** The finished lines of some bytes, for the finders of text formats. Blanks around a line are taken off. */
record TextLines(List<String> lines) {
    static TextLines of(byte[] bytes, int length) {
        List<String> lines = new ArrayList<>();
        int start = 0;
        for (int i = 0; i < length; i++) {
            if (bytes[i] == '\n') {
                int end = Math.min(i, start + LineDecoder.LINE_LIMIT);
                lines.add(new String(bytes, start, end - start, StandardCharsets.UTF_8).strip());
                start = i + 1;
            }
        }
        return new TextLines(lines);
    }

    /** @return whether the sign stands in any line */
    boolean has(char sign) {
        return lines.stream().anyMatch(line -> line.indexOf(sign) >= 0);
    }
}
