package zesty.signal.core.decode;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import zesty.signal.core.text.Messages;

/**
 * The tray of lines that were not understood: all are counted, the newest few kept. Safe for one thread that sets aside
 * and any that look.
 */
public final class RejectedLines {
    /** How many lines are kept unless said otherwise. */
    public static final int KEPT = 200;

    private static final int TEXT_LIMIT = 200;

    /**
     * A line that was set aside.
     *
     * @param line its number in the stream, the first being 1
     * @param text what it said, cut at 200 characters, control characters shown as symbols
     * @param why the reason, in words
     */
    public record Item(long line, String text, String why) {}

    private Set<String> known = Set.of();
    private long passedOver;
    private final ArrayDeque<Item> items = new ArrayDeque<>();
    private final int kept;
    private long count;

    /** @param kept how many of the newest lines to keep, at least 1 */
    public RejectedLines(int kept) {
        if (kept < 1) {
            throw new IllegalArgumentException(Messages.of("decode.kept-must-be-1-was", kept));
        }
        this.kept = kept;
    }

    /** Lines of these shapes are passed over from now on: the maker knows them. Those in the tray are taken out. */
    public synchronized void passOver(Collection<String> shapes) {
        known = Set.copyOf(shapes);
        items.removeIf(item -> known.contains(shapeOf(item.text())));
    }

    /** @return what a line has in common with others of its kind: its text with # for every run of digits */
    public static String shapeOf(String text) {
        return text.strip().replaceAll("\\d+", "#");
    }

    /** @return how many lines of known shapes were passed over */
    public synchronized long passedOver() {
        return passedOver;
    }

    synchronized void add(long line, String text, String why) {
        if (!known.isEmpty() && known.contains(shapeOf(readable(text)))) {
            passedOver++;
            return;
        }
        count++;
        if (items.size() == kept) {
            items.removeFirst();
        }
        items.addLast(new Item(line, readable(text), why));
    }

    /** The newest lines set aside turned out to be of a format that was not known yet: they are set aside no more. */
    public synchronized void takeBack(long lines) {
        count -= lines;
        for (long i = 0; i < lines && !items.isEmpty(); i++) {
            items.removeLast();
        }
    }

    /** @return how many lines were set aside in all */
    public synchronized long count() {
        return count;
    }

    /** @return the lines kept, oldest first; they are kept no more, but stay counted */
    public synchronized List<Item> drain() {
        List<Item> drained = new ArrayList<>(items);
        items.clear();
        return drained;
    }

    /** @return the lines kept, oldest first */
    public synchronized List<Item> items() {
        return new ArrayList<>(items);
    }

    private static String readable(String text) {
        String cut = text.length() > TEXT_LIMIT ? text.substring(0, TEXT_LIMIT) + "…" : text;
        StringBuilder shown = new StringBuilder(cut.length());
        for (int i = 0; i < cut.length(); i++) {
            char c = cut.charAt(i);
            // U+2400 and up are the pictures of the control characters.
            shown.append(c < 0x20 && c != '\t' ? (char) (0x2400 + c) : c == 0x7f ? '\u2421' : c);
        }
        return shown.toString();
    }
}
