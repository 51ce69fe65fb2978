package zesty.signal.app.command;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.charset.StandardCharsets;

/** JSON for standard output: one value, no NaN and no infinity. */
final class Json {
    private static final ObjectMapper MAPPER = new ObjectMapper();

    private Json() {}

    static ObjectNode object() {
        return MAPPER.createObjectNode();
    }

    static ArrayNode list() {
        return MAPPER.createArrayNode();
    }

    /** Puts the number, or null where it is none. */
    static void put(ObjectNode node, String key, double value) {
        if (Double.isFinite(value)) {
            node.put(key, value);
        } else {
            node.putNull(key);
        }
    }

    static void put(ObjectNode node, String key, double[] values) {
        ArrayNode array = node.putArray(key);
        for (double value : values) {
            add(array, value);
        }
    }

    static void add(ArrayNode array, double value) {
        if (Double.isFinite(value)) {
            array.add(value);
        } else {
            array.addNull();
        }
    }

    /** Prints a value as one line in UTF-8, whatever the computer's own encoding is. */
    static void print(JsonNode node) {
        try {
            byte[] line = (MAPPER.writeValueAsString(node) + "\n").getBytes(StandardCharsets.UTF_8);
            System.out.write(line, 0, line.length);
            System.out.flush();
        } catch (JsonProcessingException e) {
            throw new IllegalStateException(e);
        }
    }
}
