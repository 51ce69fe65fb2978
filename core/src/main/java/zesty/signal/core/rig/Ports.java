package zesty.signal.core.rig;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import zesty.signal.core.read.Port;
import zesty.signal.core.read.ReaderKind;

/** Which columns a reader of several signals is likely meant to read. */
public final class Ports {
    private Ports() {}

    /**
     * A reader that does with one column reads the chosen one. Others go by the ports' keys in the columns' names ({@code ax} finds {@code ax}, {@code boat/AX} and {@code acc_ax}),
     * and where these say nothing, by the order of the stream from the chosen column on.
     *
     * @param chosen the column that the maker is at
     * @param offered all columns that come with the same rows, in the stream's order, the chosen one among them
     * @return columns in the order of the ports, as many as fit together; empty when there are too few
     */
    public static List<String> guess(ReaderKind kind, String chosen, List<String> offered) {
        int fewest = kind.fewestPorts();
        if (fewest == 1) {
            return List.of(chosen);
        }
        List<String> named = new ArrayList<>();
        for (Port port : kind.ports()) {
            String found = offered.stream()
                    .filter(column -> isCalled(column, port.key()) && !named.contains(column))
                    .findFirst()
                    .orElse(null);
            if (found == null) {
                break;
            }
            named.add(found);
        }
        // Whole groups only: three, six or nine axes, and not five.
        int whole = named.size() / fewest * fewest;
        if (whole >= fewest) {
            return List.copyOf(named.subList(0, whole));
        }
        int first = Math.max(0, offered.indexOf(chosen));
        if (offered.size() < fewest) {
            return List.of();
        }
        List<String> inOrder = new ArrayList<>();
        for (int i = 0; i < fewest; i++) {
            inOrder.add(offered.get((first + i) % offered.size()));
        }
        return List.copyOf(inOrder);
    }

    /** @return whether every one of the columns is called as its port is */
    public static boolean named(ReaderKind kind, List<String> columns) {
        for (int i = 0; i < columns.size(); i++) {
            if (!isCalled(columns.get(i), kind.ports().get(i).key())) {
                return false;
            }
        }
        return true;
    }

    private static boolean isCalled(String column, String key) {
        String lower = column.toLowerCase(Locale.ROOT);
        return lower.equals(key) || lower.matches(".*[^a-z]" + key);
    }
}
