package zesty.signal.core.decode;

import java.util.ArrayList;
import java.util.List;

/** Parts a line into its fields, blanks around them taken off. */
final class Fields {
    private Fields() {}

    /** @param trailing whether one empty field after a last delimiter does not count */
    static String[] split(String line, char delimiter, boolean trailing) {
        if (delimiter == ' ') {
            return line.strip().split("[ \t]+");
        }
        List<String> fields = new ArrayList<>();
        int start = 0;
        for (int i = 0; i <= line.length(); i++) {
            if (i == line.length() || line.charAt(i) == delimiter) {
                fields.add(line.substring(start, i).strip());
                start = i + 1;
            }
        }
        if (trailing && fields.size() > 1 && fields.get(fields.size() - 1).isEmpty()) {
            fields.remove(fields.size() - 1);
        }
        return fields.toArray(String[]::new);
    }
}
