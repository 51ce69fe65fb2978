package zesty.signal.app.command;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;

/** JSON for standard output: one object, no NaN and no infinity. */
final class Json {
    private static final ObjectMapper MAPPER = new ObjectMapper();

    private Json() {}

    static ObjectNode object() {
        return MAPPER.createObjectNode();
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

    static void print(ObjectNode node) {
        try {
            PrintStream out = new PrintStream(
                    new java.io.FileOutputStream(java.io.FileDescriptor.out), false, StandardCharsets.UTF_8);
            out.println(MAPPER.writeValueAsString(node));
            out.flush();
        } catch (JsonProcessingException e) {
            throw new IllegalStateException(e);
        }
    }
}
