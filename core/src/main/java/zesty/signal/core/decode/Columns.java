package zesty.signal.core.decode;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import zesty.signal.core.text.Messages;

/** Rules that hold for the columns of every format. */
public final class Columns {
    private Columns() {}

    /**
     * @return the columns with the clock's role where the clock is and nowhere else
     * @throws IllegalArgumentException when there is none, two share a name, or the clock is none of them
     */
    static List<Column> checked(List<Column> columns, BoardClock clock) {
        if (columns.isEmpty()) {
            throw new IllegalArgumentException(Messages.of("decode.a-format-needs-at-least-one-column"));
        }
        if (clock != null && clock.column() >= columns.size()) {
            throw new IllegalArgumentException(
                    Messages.of("decode.the-clock-is-column-of-only", clock.column(), columns.size()));
        }
        Set<String> names = new HashSet<>();
        List<Column> checked = new ArrayList<>(columns.size());
        for (int c = 0; c < columns.size(); c++) {
            Column column = columns.get(c);
            if (!names.add(column.name())) {
                throw new IllegalArgumentException(Messages.of("decode.two-columns-are-called", column.name()));
            }
            boolean isClock = clock != null && clock.column() == c;
            boolean mayStand = column.role() == Role.EDGE || column.role() == Role.CLOCK;
            checked.add(
                    isClock && !mayStand
                            ? column.withRole(Role.CLOCK)
                            : !isClock && column.role() == Role.CLOCK ? column.withRole(Role.VALUE) : column);
        }
        return List.copyOf(checked);
    }

    /** @return the name, or with a number behind it the first that is not taken yet; it then is */
    static String unique(String name, Set<String> taken) {
        String unique = name;
        for (int n = 2; !taken.add(unique); n++) {
            unique = name + " " + n;
        }
        return unique;
    }

    /** @return the names, each once: a later one of two alike gets a number, a blank one its place */
    public static List<String> distinct(List<String> names) {
        Set<String> taken = new HashSet<>();
        List<String> distinct = new ArrayList<>();
        for (String name : names) {
            distinct.add(unique(name.isBlank() ? String.valueOf(distinct.size() + 1) : name, taken));
        }
        return distinct;
    }

    /** @return column1, column2, … */
    static List<Column> unnamed(int count) {
        List<Column> columns = new ArrayList<>();
        for (int c = 1; c <= count; c++) {
            columns.add(new Column("column" + c, ""));
        }
        return columns;
    }
}
