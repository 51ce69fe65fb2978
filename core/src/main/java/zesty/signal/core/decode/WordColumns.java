package zesty.signal.core.decode;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Words of few kinds that stand where a number could: {@code mode=auto}, {@code 12,idle,20.5}. Each becomes its number in
 * the order of the alphabet (two-state words 0 and 1, as {@link StateWords} has them), a new one the next; what they mean
 * is kept as a legend. One stream, one thread.
 */
final class WordColumns {
    private static final Pattern PIECE = Pattern.compile("[^,;\\s=:|]+");
    private static final Pattern WORD = Pattern.compile("[A-Za-z][A-Za-z_-]{0,15}");
    private static final Pattern MISSING = Pattern.compile("(?i)nan|inf|none|null|na|nil|-+");
    private static final int MOST_KINDS = 12;
    private static final int FEWEST_LINES = 8;
    /** Words that come once are a heading or a remark. */
    private static final int FEWEST_TIMES = 2;

    private static final double SHARE = 0.9;

    private final int pieces;
    private final Map<Integer, Map<String, Integer>> numbers = new TreeMap<>();
    private final Map<Integer, String> names = new HashMap<>();
    private String legend = "";

    private WordColumns(int pieces) {
        this.pieces = pieces;
    }

    /** @return null where lines have no such words. @param lines whole lines from the beginning of a stream */
    static WordColumns of(List<String> lines) {
        Map<Integer, List<List<Piece>>> byCount = new HashMap<>();
        for (String line : lines) {
            List<Piece> found = pieces(line);
            byCount.computeIfAbsent(found.size(), n -> new ArrayList<>()).add(found);
        }
        List<List<Piece>> alike =
                byCount.values().stream().max((a, b) -> a.size() - b.size()).orElse(List.of());
        if (alike.size() < FEWEST_LINES || alike.size() * 2 < lines.size()) {
            return null;
        }
        WordColumns words = new WordColumns(alike.get(0).size());
        for (int i = 1; i < words.pieces; i++) {
            words.look(i, alike);
        }
        words.tell();
        return words.numbers.isEmpty() ? null : words;
    }

    private record Piece(String text, int start, int end, char before, char after, boolean numberNext) {}

    private static List<Piece> pieces(String line) {
        List<int[]> spans = new ArrayList<>();
        Matcher matcher = PIECE.matcher(line);
        while (matcher.find()) {
            spans.add(new int[] {matcher.start(), matcher.end()});
        }
        List<Piece> pieces = new ArrayList<>();
        for (int i = 0; i < spans.size(); i++) {
            int[] span = spans.get(i);
            char next = i + 1 < spans.size() ? line.charAt(spans.get(i + 1)[0]) : ' ';
            pieces.add(new Piece(
                    line.substring(span[0], span[1]),
                    span[0],
                    span[1],
                    span[0] > 0 ? line.charAt(span[0] - 1) : ' ',
                    span[1] < line.length() ? line.charAt(span[1]) : '\n',
                    Character.isDigit(next) || next == '-' || next == '+' || next == '.'));
        }
        return pieces;
    }

    /** A word before a number is its name, unless a sign says that it is a value. */
    private static boolean isValue(Piece piece) {
        boolean parted = piece.after == ',' || piece.after == ';' || piece.after == '\t' || piece.after == '|';
        boolean given = piece.before == '=' || piece.before == ':';
        return WORD.matcher(piece.text).matches()
                && !MISSING.matcher(piece.text).matches()
                && piece.after != '='
                && piece.after != ':'
                && (given || parted || !piece.numberNext);
    }

    private void look(int at, List<List<Piece>> lines) {
        Map<String, Integer> times = new TreeMap<>();
        for (List<Piece> line : lines) {
            if (isValue(line.get(at))) {
                times.merge(line.get(at).text, 1, Integer::sum);
            }
        }
        times.values().removeIf(n -> n < FEWEST_TIMES);
        int all = times.values().stream().mapToInt(n -> n).sum();
        if (times.size() < 2 || times.size() > MOST_KINDS || all < SHARE * (lines.size() - 1)) {
            return;
        }
        Map<String, Integer> own = new TreeMap<>();
        boolean states = times.keySet().stream().allMatch(word -> StateWords.of(word) != null);
        for (String word : times.keySet()) {
            own.put(word, states ? StateWords.of(word).intValue() : own.size());
        }
        numbers.put(at, own);
        Piece first = lines.get(0).get(at);
        Piece before = lines.get(0).get(at - 1);
        boolean labelled = first.before == '=' || first.before == ':';
        boolean heading =
                !own.containsKey(first.text) && WORD.matcher(first.text).matches();
        names.put(at, labelled ? before.text : heading ? first.text : "column " + (at + 1));
    }

    private void tell() {
        StringBuilder text = new StringBuilder();
        numbers.forEach((at, own) -> {
            text.append(text.isEmpty() ? "" : "; ").append(names.get(at)).append(": ");
            List<Map.Entry<String, Integer>> rising = new ArrayList<>(own.entrySet());
            rising.sort(Map.Entry.comparingByValue());
            for (int i = 0; i < rising.size(); i++) {
                text.append(i == 0 ? "" : ", ").append(rising.get(i).getValue()).append(" = ");
                text.append(rising.get(i).getKey());
            }
        });
        legend = text.toString();
    }

    /** @return what the numbers stand for, such as {@code mode: 0 = auto, 1 = hold} */
    String legend() {
        return legend;
    }

    /** @return the line with numbers for its words; the very same where it is another kind of line */
    String numbered(String line) {
        List<Piece> found = pieces(line);
        if (found.size() != pieces) {
            return line;
        }
        StringBuilder out = new StringBuilder(line);
        boolean fresh = false;
        List<Integer> last = new ArrayList<>(numbers.keySet());
        Collections.reverse(last);
        for (int at : last) {
            Piece piece = found.get(at);
            Map<String, Integer> own = numbers.get(at);
            Integer number = own.get(piece.text);
            boolean heading = piece.text.equals(names.get(at));
            if (number == null && !heading && isValue(piece) && own.size() < MOST_KINDS) {
                number = own.values().stream().mapToInt(n -> n).max().orElse(-1) + 1;
                own.put(piece.text, number);
                fresh = true;
            }
            if (number != null) {
                out.replace(piece.start, piece.end, String.valueOf(number));
            }
        }
        if (fresh) {
            tell();
        }
        return out.toString();
    }
}
