package zesty.signal.takes;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import zesty.signal.core.plan.Plan;
import zesty.signal.core.text.Messages;

/** A plan as JSON; a key that there is not is refused. */
public final class PlanJson {
    private static final double BITS_A_BYTE = 10;

    private PlanJson() {}

    /** @param where it comes from, for what is said. @throws TakeException when it makes no sense, saying what and where */
    public static Plan read(String text, String where) throws TakeException {
        return Nodes.reading(where, () -> {
            JsonNode root = Nodes.strict().readTree(text);
            if (root == null || !root.isObject()) {
                throw new IllegalArgumentException(Messages.of("takes.a-plan-is-an-object"));
            }
            keys(
                    root,
                    Messages.of("takes.a-plan"),
                    "line",
                    "row",
                    "converter",
                    "signal",
                    "recipe",
                    "memory",
                    "battery",
                    "divider",
                    "shunt",
                    "bridge");
            return new Plan(
                    part(root, "line", PlanJson::line, "baud", "bits_a_byte"),
                    part(root, "row", PlanJson::row, "rate_hz", "text", "bytes", "numbered"),
                    part(root, "converter", PlanJson::converter, "bits", "ref", "noise_counts", "average"),
                    part(root, "signal", PlanJson::signal, "highest_hz", "tones"),
                    root.has("recipe") ? Nodes.text(root, "recipe") : "",
                    part(
                            root,
                            "memory",
                            node -> new Plan.Memory(Nodes.number(node, "bytes"), Nodes.number(node, "bytes_a_row")),
                            "bytes",
                            "bytes_a_row"),
                    part(root, "battery", PlanJson::battery, "mah", "states"),
                    part(root, "divider", PlanJson::divider, "top", "bottom", "tolerance", "source_max"),
                    part(
                            root,
                            "shunt",
                            node -> new Plan.Shunt(
                                    Nodes.number(node, "ohms"), Nodes.number(node, "max_a"), or(node, "gain", 1)),
                            "ohms",
                            "max_a",
                            "gain"),
                    part(root, "bridge", PlanJson::bridge, "mv_per_v", "excitation", "gain", "full_scale"));
        });
    }

    private static <T> T part(JsonNode root, String key, Function<JsonNode, T> reader, String... known) {
        if (!root.has(key)) {
            return null;
        }
        JsonNode node = root.path(key);
        if (!node.isObject()) {
            throw new IllegalArgumentException(Messages.of("takes.must-be-an-object-was", key, node));
        }
        keys(node, key, known);
        try {
            return reader.apply(node);
        } catch (IllegalArgumentException e) {
            boolean placed = e.getMessage().startsWith(key);
            throw placed ? e : new IllegalArgumentException(key + ": " + e.getMessage(), e);
        }
    }

    private static void keys(JsonNode node, String what, String... known) {
        List<String> all = List.of(known);
        node.fieldNames().forEachRemaining(key -> {
            if (!all.contains(key)) {
                throw new IllegalArgumentException(
                        Messages.of("takes.is-no-key-of-there-are", key, what, String.join(", ", all)));
            }
        });
    }

    private static double or(JsonNode node, String key, double usual) {
        return node.has(key) ? Nodes.number(node, key) : usual;
    }

    private static Plan.Line line(JsonNode node) {
        return new Plan.Line(Nodes.number(node, "baud"), or(node, "bits_a_byte", BITS_A_BYTE));
    }

    private static Plan.Row row(JsonNode node) {
        if (node.has("text") == node.has("bytes")) {
            throw new IllegalArgumentException(Messages.of("takes.a-row-is-described-by-a-text-or-by"));
        }
        String text = node.has("text") ? Nodes.text(node, "text") : null;
        double bytes = text == null ? Nodes.number(node, "bytes") : text.getBytes(StandardCharsets.UTF_8).length;
        return new Plan.Row(
                Nodes.number(node, "rate_hz"),
                text,
                bytes,
                node.path("numbered").asBoolean(false));
    }

    private static Plan.Converter converter(JsonNode node) {
        return new Plan.Converter(
                Nodes.whole(node, "bits"),
                Nodes.number(node, "ref"),
                or(node, "noise_counts", 0),
                or(node, "average", 1));
    }

    private static Plan.Signal signal(JsonNode node) {
        List<Double> tones = new ArrayList<>();
        for (JsonNode tone : node.path("tones")) {
            if (!tone.isNumber()) {
                throw new IllegalArgumentException(Messages.of("takes.tones-are-numbers-was", tone));
            }
            tones.add(tone.asDouble());
        }
        return new Plan.Signal(or(node, "highest_hz", Double.NaN), tones);
    }

    private static Plan.Battery battery(JsonNode node) {
        List<Plan.State> states = new ArrayList<>();
        for (JsonNode state : node.path("states")) {
            keys(state, "battery.states", "ma", "s");
            states.add(new Plan.State(Nodes.number(state, "ma"), Nodes.number(state, "s")));
        }
        return new Plan.Battery(Nodes.number(node, "mah"), states);
    }

    private static Plan.Divider divider(JsonNode node) {
        return new Plan.Divider(
                Nodes.number(node, "top"),
                Nodes.number(node, "bottom"),
                or(node, "tolerance", 0),
                Nodes.number(node, "source_max"));
    }

    private static Plan.Bridge bridge(JsonNode node) {
        return new Plan.Bridge(
                Nodes.number(node, "mv_per_v"),
                Nodes.number(node, "excitation"),
                or(node, "gain", 1),
                Nodes.number(node, "full_scale"));
    }
}
