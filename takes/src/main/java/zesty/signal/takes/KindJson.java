package zesty.signal.takes;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import zesty.signal.core.read.pulse.Pulse;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Sensor;
import zesty.signal.core.rig.SensorKind;
import zesty.signal.core.text.Messages;

/** A maker's own sensor kind as JSON, to keep in the library and to share. See docs/kind.schema.json. */
public final class KindJson {
    private static final String VERSION = "zesty_kind";
    private static final ObjectMapper JSON = Nodes.strict();

    private KindJson() {}

    /** @return the kind as JSON text, indented */
    public static String write(SensorKind kind) throws TakeException {
        ObjectNode root = JSON.createObjectNode();
        root.put(VERSION, 1);
        putSensor(root, kind.sensor());
        root.put("counts", kind.counts());
        ConversionJson.put(root.putObject("conversion"), kind.conversion());
        root.put("unit", kind.unit());
        root.put("recipe", kind.recipe());
        ReaderSetup reader = kind.reader();
        if (reader != null && reader.kind().equals(Pulse.NAME)) {
            // As the first version has it.
            root.put("pulse", reader.checked().text(Pulse.SOURCE));
        } else if (reader != null) {
            ObjectNode node = root.putObject("reader").put("kind", reader.kind());
            new TreeMap<>(reader.settings()).forEach(node.putObject("settings")::put);
        }
        try {
            return JSON.writerWithDefaultPrettyPrinter().writeValueAsString(root);
        } catch (JsonProcessingException e) {
            throw new TakeException(Messages.of("takes.the-kind-cannot-be-written", e.getOriginalMessage()), e);
        }
    }

    /**
     * @param where the text comes from, for the error
     * @throws TakeException when it is no sensor kind, saying which part is wrong and what would be right
     */
    public static SensorKind read(String text, String where) throws TakeException {
        return Nodes.reading(where, () -> {
            JsonNode root = JSON.readTree(text);
            if (root == null || !root.isObject() || root.path(VERSION).asInt(0) != 1) {
                throw new IllegalArgumentException(Messages.of("takes.it-is-no-sensor-kind-of-version-1", VERSION));
            }
            return new SensorKind(
                    getSensor(root),
                    root.path("counts").asBoolean(),
                    ConversionJson.get(root.path("conversion")),
                    root.path("unit").asText(""),
                    root.path("recipe").asText(""),
                    reader(root));
        });
    }

    private static ReaderSetup reader(JsonNode root) {
        if (root.has("pulse")) {
            return new ReaderSetup(Pulse.NAME, List.of(), Map.of(Pulse.SOURCE, Nodes.text(root, "pulse")));
        }
        if (!root.has("reader")) {
            return null;
        }
        Map<String, String> settings = new TreeMap<>();
        root.path("reader")
                .path("settings")
                .properties()
                .forEach(field -> settings.put(field.getKey(), field.getValue().asText()));
        return new ReaderSetup(Nodes.text(root.path("reader"), "kind"), List.of(), settings);
    }

    static void putSensor(ObjectNode node, Sensor sensor) {
        node.put("kind", sensor.kind());
        Nodes.putKnown(node, "low", sensor.low());
        Nodes.putKnown(node, "high", sensor.high());
        node.put("trap", sensor.trap());
        sensor.takesCare().ifPresent(caution -> node.put("caution", Nodes.lower(caution)));
    }

    /** A kind of sensor was once called otherwise; rigs of that time still say so. */
    private static String named(String kind) {
        return kind.equals("as it came") ? "raw" : kind;
    }

    static Sensor getSensor(JsonNode node) {
        return new Sensor(
                named(Nodes.text(node, "kind")),
                node.path("low").asDouble(Double.NaN),
                node.path("high").asDouble(Double.NaN),
                node.path("trap").asText(""),
                node.has("caution") ? Nodes.choice(Caution.class, Nodes.text(node, "caution")) : null);
    }
}
