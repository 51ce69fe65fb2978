package zesty.signal.app.command;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Set;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reading;

/** Any reading as JSON: its items under their keys, {@code group.name} within the object {@code group}, then the quality. */
final class ReadingJson {
    /** Bands are counted; all else is measured. */
    private static final Set<String> WHOLE = Set.of("from", "to");

    private ReadingJson() {}

    static ObjectNode of(Reading reading) {
        ObjectNode root = Json.object();
        for (Item item : reading.items()) {
            int dot = item.key().indexOf('.');
            ObjectNode node = dot < 0 ? root : root.withObject("/" + item.key().substring(0, dot));
            put(node, item.key().substring(dot + 1), item);
        }
        Json.put(root, "quality", reading.quality().share());
        return root;
    }

    private static void put(ObjectNode node, String key, Item item) {
        if (item instanceof Item.Scalar scalar) {
            Json.put(node, key, scalar.value());
        } else if (item instanceof Item.Flag flag) {
            node.put(key, flag.value());
        } else if (item instanceof Item.Word word) {
            node.put(key, word.text());
        } else if (item instanceof Item.Numbers numbers) {
            Json.put(node, key, numbers.values());
        } else if (item instanceof Item.Trace trace) {
            ArrayNode points = node.putArray(key);
            for (int i = 0; i < trace.seconds().length; i++) {
                ObjectNode point = points.addObject();
                Json.put(point, "t_s", trace.seconds()[i]);
                Json.put(point, trace.field(), trace.values()[i]);
            }
        } else if (item instanceof Item.Records records) {
            ArrayNode list = node.putArray(key);
            for (double[] one : records.records()) {
                ObjectNode written = list.addObject();
                for (int f = 0; f < one.length; f++) {
                    Json.put(written, records.fields().get(f), one[f]);
                }
            }
        } else if (item instanceof Item.Rows rows) {
            ArrayNode list = node.putArray(key);
            for (List<Object> one : rows.rows()) {
                ObjectNode written = list.addObject();
                for (int f = 0; f < one.size(); f++) {
                    cell(written, rows.fields().get(f), one.get(f));
                }
            }
        } else if (item instanceof Item.Events events) {
            ArrayNode list = node.putArray(key);
            for (Event event : events.events()) {
                if (events.fields().isEmpty()) {
                    Json.add(list, event.startSeconds());
                } else {
                    fields(list.addObject(), events, event);
                }
            }
        }
    }

    private static void cell(ObjectNode node, String field, Object cell) {
        if (cell instanceof Double number) {
            Json.put(node, field, number);
        } else if (cell instanceof Boolean flag) {
            node.put(field, flag);
        } else {
            node.put(field, String.valueOf(cell));
        }
    }

    private static void fields(ObjectNode node, Item.Events events, Event event) {
        int next = 0;
        for (String field : events.fields()) {
            switch (field) {
                case "t_s" -> Json.put(node, field, event.startSeconds());
                case "end_s" -> Json.put(node, field, event.endSeconds());
                case "size" -> Json.put(node, field, event.size());
                case "kind" -> node.put(field, event.kind());
                default -> {
                    double value = event.values()[next++];
                    if (WHOLE.contains(field) && value == Math.rint(value) && Math.abs(value) < 1e9) {
                        node.put(field, (long) value);
                    } else {
                        Json.put(node, field, value);
                    }
                }
            }
        }
    }
}
