package zesty.signal.core.decode;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Recognises labelled text. */
final class LabelledFinder {
    private LabelledFinder() {}

    static Optional<StreamFormat> find(TextLines text) {
        Optional<StreamFormat> point = find(text, false);
        return point.isPresent() ? point : find(text, true);
    }

    private static Optional<StreamFormat> find(TextLines text, boolean decimalComma) {
        NumberText number = new NumberText(decimalComma);
        List<List<Labels.Pair>> good = new ArrayList<>();
        for (String line : text.lines()) {
            List<Labels.Pair> pairs = line.isBlank() ? null : Labels.of(line, number);
            if (pairs != null) {
                good.add(pairs);
            }
        }
        // A banner's labels come once; what belongs to the rows comes again and again.
        Map<String, Integer> often = new LinkedHashMap<>();
        Map<String, String> units = new LinkedHashMap<>();
        for (List<Labels.Pair> pairs : good) {
            for (Labels.Pair pair : pairs) {
                often.merge(pair.label(), 1, Integer::sum);
                if (!pair.unit().isEmpty()) {
                    units.putIfAbsent(pair.label(), pair.unit());
                }
            }
        }
        int most = often.values().stream().mapToInt(i -> i).max().orElse(0);
        Set<String> labels = new LinkedHashSet<>();
        often.forEach((label, count) -> {
            if (count * 10 >= most) {
                labels.add(label);
            }
        });
        good.removeIf(pairs -> pairs.stream().anyMatch(p -> !labels.contains(p.label())));
        if (good.isEmpty() || labels.size() > 1024) {
            return Optional.empty();
        }
        // A spoilt line may have come first: the order is that of lines which belong to the rows.
        Set<String> inOrder = new LinkedHashSet<>();
        good.forEach(pairs -> pairs.forEach(pair -> inOrder.add(pair.label())));
        boolean overLines = labels.size() > 1
                && good.stream().filter(p -> p.size() * 2 <= labels.size()).count() * 2 > good.size();
        List<String> order = new ArrayList<>(overLines ? inTurn(text, labels, number) : inOrder);
        List<Column> columns = new ArrayList<>();
        for (String label : order) {
            columns.add(new Column(label, units.getOrDefault(label, "")));
        }
        List<double[]> values = new ArrayList<>();
        for (String label : order) {
            values.add(good.stream()
                    .flatMap(List::stream)
                    .filter(p -> p.label().equals(label) && !p.missing())
                    .mapToDouble(Labels.Pair::value)
                    .toArray());
        }
        Roles.Found roles = Roles.find(columns, values);
        return Optional.of(new LabelledFormat(order, roles.columns(), overLines, decimalComma, roles.clock()));
    }

    /** @return the labels in the order of a row: from the first after a blank or ruled line, or from the stream's first */
    private static List<String> inTurn(TextLines text, Set<String> labels, NumberText number) {
        List<String> order = new ArrayList<>();
        boolean parted = false;
        for (String line : text.lines()) {
            List<Labels.Pair> pairs = Labels.of(line, number);
            if (pairs == null) {
                if (line.matches("[-=*_\\s]*")) {
                    if (order.size() == labels.size()) {
                        break;
                    }
                    order.clear();
                    parted = true;
                }
                continue;
            }
            for (Labels.Pair pair : pairs) {
                if (labels.contains(pair.label()) && !order.contains(pair.label())) {
                    order.add(pair.label());
                }
            }
        }
        if (parted && order.size() < labels.size()) {
            order.clear();
        }
        for (String label : labels) {
            if (!order.contains(label)) {
                order.add(label);
            }
        }
        return order;
    }
}
