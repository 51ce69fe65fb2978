package zesty.signal.core.read;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * What a reader says of a stretch.
 *
 * @param quality how far to trust it and why
 * @param items what it found, in the order to show and to write it
 * @param working the arithmetic, a line each, with the numbers of this reading in it
 * @param refusal why what was asked and what is there do not fit together, and what would; empty when they do
 */
public record Reading(Quality quality, List<Item> items, List<String> working, String refusal) {
    public Reading {
        items = List.copyOf(items);
        working = List.copyOf(working);
    }

    public Reading(Quality quality, List<Item> items, List<String> working) {
        this(quality, items, working, "");
    }

    /** @return the same, no surer than that, with the reason: before those it has where it is what bounds the quality, else behind them */
    public Reading doubted(double most, String reason) {
        List<String> reasons = new ArrayList<>(quality.reasons());
        reasons.add(most < quality.share() ? 0 : reasons.size(), reason);
        return new Reading(new Quality(Math.min(most, quality.share()), reasons), items, working, refusal);
    }

    /** @return the number of that key; NaN when there is none */
    public double scalar(String key) {
        return items.stream()
                .filter(item -> item instanceof Item.Scalar && item.key().equals(key))
                .mapToDouble(item -> ((Item.Scalar) item).value())
                .findFirst()
                .orElse(Double.NaN);
    }

    /** @return the word of that key; empty when there is none */
    public String word(String key) {
        return items.stream()
                .filter(item -> item instanceof Item.Word && item.key().equals(key))
                .map(item -> ((Item.Word) item).text())
                .findFirst()
                .orElse("");
    }

    /** @return the trace of that key */
    public Optional<Item.Trace> trace(String key) {
        return items.stream()
                .filter(item -> item instanceof Item.Trace && item.key().equals(key))
                .map(item -> (Item.Trace) item)
                .findFirst();
    }

    /** @return the records of that key; none when there are none */
    public List<double[]> records(String key) {
        return items.stream()
                .filter(item -> item instanceof Item.Records && item.key().equals(key))
                .flatMap(item -> ((Item.Records) item).records().stream())
                .toList();
    }

    /** @return the events of that key; none when there are none */
    public List<Event> events(String key) {
        return items.stream()
                .filter(item -> item instanceof Item.Events && item.key().equals(key))
                .flatMap(item -> ((Item.Events) item).events().stream())
                .toList();
    }

    /** @return all events, of each key in turn */
    public List<Event> events() {
        List<Event> all = new ArrayList<>();
        for (Item item : items) {
            if (item instanceof Item.Events events) {
                all.addAll(events.events());
            }
        }
        return all;
    }

    /** @return when the events of that key began, in s */
    public double[] times(String key) {
        return events(key).stream().mapToDouble(Event::startSeconds).toArray();
    }
}
