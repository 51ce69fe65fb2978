package zesty.signal.core.decode;

import java.util.regex.Pattern;

/** A line that shows bytes as two hexadecimal digits each, with or without 0x, parted by blanks, commas or colons. */
final class HexBytes {
    /** What may stand before them: an address or a word with a colon. */
    private static final Pattern LABEL =
            Pattern.compile("^(?:[\\p{L}_][\\p{L}\\p{N}_ ]*|0x[0-9A-Fa-f]{2}|[0-9A-Fa-f]{2})\\s*:\\s+");

    private static final Pattern PARTED = Pattern.compile("(?:0x)?[0-9A-Fa-f]{2}(?:[ \\t,:;-]+(?:0x)?[0-9A-Fa-f]{2})*");
    private static final Pattern JOINED = Pattern.compile("(?:[0-9A-Fa-f]{2}){2,}");

    private HexBytes() {}

    /** @return the bytes; null when the line is anything else */
    static byte[] of(String line) {
        String text = LABEL.matcher(line.strip()).replaceFirst("");
        boolean parted = PARTED.matcher(text).matches();
        if (!parted && !JOINED.matcher(text).matches()) {
            return null;
        }
        String digits = parted ? text.replace("0x", "").replaceAll("[^0-9A-Fa-f]", "") : text;
        return java.util.HexFormat.of().parseHex(digits);
    }
}
