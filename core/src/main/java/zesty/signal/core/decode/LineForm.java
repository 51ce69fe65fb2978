package zesty.signal.core.decode;

import java.nio.charset.StandardCharsets;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What is written in lines of text as no decoder takes it: words of few kinds ({@link WordColumns}); a date and time of day, which become seconds since 1970, and a
 * check at the end, {@code *} and two hexadecimal digits of the exclusive or of what stands before it, which is taken off
 * where it fits and left, so that the line is rejected, where it does not. One stream, one thread.
 */
final class LineForm {
    private static final Pattern DATE = Pattern.compile("(\\d{4})[-/.](\\d{2})[-/.](\\d{2})[T ,;\\t](\\d{2}):(\\d{2})"
            + "(?::(\\d{2})(?:\\.(\\d{1,9}))?)?(Z|[+-]\\d{2}:?\\d{2})?");
    private static final Pattern CHECKED = Pattern.compile("\\$?(.*)\\*([0-9A-Fa-f]{2})\\s*");
    /** So many lines at least, and this share of them, are written so. */
    private static final int FEWEST = 3;

    private static final double SHARE = 0.6;
    /** A line longer than this is given on as it is. */
    private static final int LONGEST = 1 << 16;

    private final boolean dates;
    private final boolean checks;
    /** Null where lines have no words of few kinds. */
    private final WordColumns words;

    private final StringBuilder line = new StringBuilder();

    private LineForm(boolean dates, boolean checks, WordColumns words) {
        this.dates = dates;
        this.checks = checks;
        this.words = words;
    }

    /** @return null where lines are taken as they are. @param head text in UTF-8 with line feeds */
    static LineForm of(byte[] head) {
        int lines = 0;
        int dated = 0;
        int checked = 0;
        String text = new String(head, StandardCharsets.ISO_8859_1);
        for (String line : text.split("\n")) {
            if (line.isBlank()) {
                continue;
            }
            lines++;
            dated += DATE.matcher(line).find() ? 1 : 0;
            checked += fits(line) ? 1 : 0;
        }
        boolean dates = dated >= FEWEST && dated >= SHARE * lines;
        boolean checks = checked >= FEWEST && checked >= SHARE * lines;
        // The last line may not be whole yet, and a JSON object keeps its words to itself.
        String whole = text.substring(0, text.lastIndexOf('\n') + 1);
        WordColumns words = text.indexOf('{') >= 0
                ? null
                : WordColumns.of(whole.lines().filter(line -> !line.isBlank()).toList());
        return dates || checks || words != null ? new LineForm(dates, checks, words) : null;
    }

    /** @return what numbers stand for that are words in the stream; empty for none */
    String legend() {
        return words == null ? "" : words.legend();
    }

    private static boolean fits(String line) {
        Matcher matcher = CHECKED.matcher(line);
        if (!matcher.matches()) {
            return false;
        }
        int or = 0;
        for (int i = 0; i < matcher.group(1).length(); i++) {
            or ^= matcher.group(1).charAt(i);
        }
        return or == Integer.parseInt(matcher.group(2), 16);
    }

    /** @return whole lines as decoders take them; the beginning of one that is not whole waits for its rest */
    byte[] plain(byte[] bytes) {
        StringBuilder out = new StringBuilder(bytes.length);
        for (byte b : bytes) {
            // One sign a byte, whatever the letters are: only figures are looked at.
            line.append((char) (b & 0xff));
            if (b == '\n' || line.length() > LONGEST) {
                out.append(rewritten(line.toString()));
                line.setLength(0);
            }
        }
        return out.toString().getBytes(StandardCharsets.ISO_8859_1);
    }

    private String rewritten(String given) {
        String text = given;
        if (checks && fits(text)) {
            text = text.substring(0, text.lastIndexOf('*')) + "\n";
        }
        if (dates) {
            Matcher date = DATE.matcher(text);
            if (date.find()) {
                String seconds = seconds(date);
                text = seconds == null ? text : text.substring(0, date.start()) + seconds + text.substring(date.end());
            }
        }
        return words == null ? text : words.numbered(text);
    }

    /** @return null where it is no day or no time of a day */
    private static String seconds(Matcher date) {
        int month = Integer.parseInt(date.group(2));
        int day = Integer.parseInt(date.group(3));
        int hour = Integer.parseInt(date.group(4));
        int minute = Integer.parseInt(date.group(5));
        int second = date.group(6) == null ? 0 : Integer.parseInt(date.group(6));
        if (month < 1 || month > 12 || day < 1 || day > 31 || hour > 23 || minute > 59 || second > 60) {
            return null;
        }
        // A board's day has no zone of its own: what counts is how far it goes on.
        long at = 86_400 * days(Integer.parseInt(date.group(1)), month, day) + 3600L * hour + 60L * minute + second;
        return at - offset(date.group(8)) + (date.group(7) == null ? "" : "." + date.group(7));
    }

    /** @return days from 1970-01-01 on, of the Gregorian calendar: years begin in March, so that leap days end one */
    private static long days(int year, int month, int day) {
        long y = month <= 2 ? year - 1L : year;
        long century = Math.floorDiv(y, 400L);
        long of = y - 400 * century;
        long dayOfYear = (153L * (month + (month > 2 ? -3 : 9)) + 2) / 5 + day - 1;
        return 146_097 * century + 365 * of + of / 4 - of / 100 + dayOfYear - 719_468;
    }

    /** @return seconds by which a zone is ahead, of {@code +02:00} and the like */
    private static long offset(String zone) {
        if (zone == null || zone.equals("Z")) {
            return 0;
        }
        String digits = zone.substring(1).replace(":", "");
        long seconds = 3600L * Integer.parseInt(digits.substring(0, 2)) + 60L * Integer.parseInt(digits.substring(2));
        return zone.charAt(0) == '-' ? -seconds : seconds;
    }
}
