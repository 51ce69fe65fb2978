package zesty.signal.app.window.workspace;

import java.util.ArrayList;
import java.util.List;

/**
 * How the maker wants the cards of readings: which are pinned to the top, in which order, and which are put away. Columns
 * that are not there at the moment keep their place.
 */
public record Cards(List<String> pinned, List<String> hidden) {
    public static final Cards FIRST = new Cards(List.of(), List.of());

    public Cards {
        pinned = List.copyOf(pinned);
        hidden = List.copyOf(hidden);
    }

    /** @return the columns whose cards are shown, the pinned ones first */
    public List<String> arranged(List<String> columns) {
        List<String> shown = new ArrayList<>(pinned);
        shown.retainAll(columns);
        for (String column : columns) {
            if (!shown.contains(column)) {
                shown.add(column);
            }
        }
        shown.removeAll(hidden);
        return shown;
    }

    /** @return of these columns, how many are put away */
    public int away(List<String> columns) {
        return (int) columns.stream().filter(hidden::contains).count();
    }

    /** @return with the card pinned below those that are, or let go when it was */
    public Cards turned(String column) {
        List<String> now = new ArrayList<>(pinned);
        if (!now.remove(column)) {
            now.add(column);
        }
        return new Cards(now, hidden);
    }

    /** @return with the card one place up or down among those shown; what stands before it is pinned with it */
    public Cards moved(String column, int by, List<String> columns) {
        List<String> shown = arranged(columns);
        int at = shown.indexOf(column);
        int to = at + by;
        if (at < 0 || to < 0 || to >= shown.size()) {
            return this;
        }
        shown.remove(at);
        shown.add(to, column);
        List<String> now = new ArrayList<>(shown.subList(0, Math.max(Math.max(at, to) + 1, countPinned(shown))));
        pinned.stream().filter(one -> !shown.contains(one)).forEach(now::add);
        return new Cards(now, hidden);
    }

    private int countPinned(List<String> shown) {
        return (int) shown.stream().filter(pinned::contains).count();
    }

    /** @return with the card put away */
    public Cards without(String column) {
        List<String> now = new ArrayList<>(hidden);
        now.remove(column);
        now.add(column);
        return new Cards(pinned, now);
    }

    /** @return with all cards back */
    public Cards all() {
        return new Cards(pinned, List.of());
    }
}
