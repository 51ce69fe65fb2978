package zesty.signal.core.decode;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Recognises JSON lines. */
final class JsonFinder {
    private JsonFinder() {}

    static Optional<StreamFormat> find(TextLines text) {
        Map<String, List<Double>> byPath = new LinkedHashMap<>();
        int objects = 0;
        for (String line : text.lines()) {
            if (!line.startsWith("{")) {
                continue;
            }
            try {
                Map<String, Double> numbers = JsonNumbers.of(line);
                objects += numbers.isEmpty() ? 0 : 1;
                numbers.forEach((path, value) ->
                        byPath.computeIfAbsent(path, k -> new ArrayList<>()).add(value));
            } catch (JsonNumbers.NoObject e) {
                // One of the lines to be set aside.
            }
        }
        int enough = Math.max(1, objects / 10);
        byPath.values().removeIf(values -> values.size() < enough);
        if (byPath.isEmpty() || byPath.size() > 1024) {
            return Optional.empty();
        }
        List<Column> columns = new ArrayList<>();
        List<double[]> values = new ArrayList<>();
        Set<String> taken = new HashSet<>();
        for (Map.Entry<String, List<Double>> entry : byPath.entrySet()) {
            Column column = column(entry.getKey());
            columns.add(column.withName(Columns.unique(column.name(), taken)));
            values.add(entry.getValue().stream()
                    .mapToDouble(d -> d)
                    .filter(d -> !Double.isNaN(d))
                    .toArray());
        }
        Roles.Found roles = Roles.find(columns, values);
        return Optional.of(new JsonFormat(List.copyOf(byPath.keySet()), roles.columns(), roles.clock()));
    }

    /** A path that ends in a unit's name, such as air.C, gives the unit. */
    private static Column column(String path) {
        int cut = path.lastIndexOf('.');
        String unit = cut > 0 ? UnitWords.known(path.substring(cut + 1)) : null;
        return new Column(unit == null ? path : path.substring(0, cut), unit == null ? "" : unit);
    }
}
