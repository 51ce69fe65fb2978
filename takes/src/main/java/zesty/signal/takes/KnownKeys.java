package zesty.signal.takes;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import zesty.signal.core.text.Messages;

/**
 * Holds JSON against its published schema as far as a slip of the pen goes: keys that there are not, and numbers beyond
 * their bounds. What belongs together is checked where it is read. Thread-safe.
 */
final class KnownKeys {
    private final JsonNode schema;

    /** @param resource name of a schema that ships with this package */
    KnownKeys(String resource) {
        try (InputStream stream = KnownKeys.class.getResourceAsStream(resource)) {
            schema = new ObjectMapper().readTree(stream);
        } catch (IOException e) {
            throw new UncheckedIOException(Messages.of("takes.the-schema-does-not-ship", resource), e);
        }
    }

    /** @throws IllegalArgumentException at the first key that there is not, saying where and which there are */
    void keys(JsonNode node) {
        check(node, schema, "", false);
    }

    /** @throws IllegalArgumentException at the first number beyond its bounds, saying where and what they are */
    void numbers(JsonNode node) {
        check(node, schema, "", true);
    }

    private void check(JsonNode node, JsonNode rule, String at, boolean numbers) {
        JsonNode own = rule;
        while (own.has("$ref")) {
            own = schema.at(own.path("$ref").asText().substring(1));
        }
        if (numbers && node.isNumber()) {
            bounds(node.asDouble(), own, at);
        }
        if (node.isArray() && own.has("items")) {
            for (int i = 0; i < node.size(); i++) {
                check(node.get(i), own.path("items"), at + "[" + i + "]", numbers);
            }
        }
        if (!node.isObject() || !own.has("properties")) {
            return;
        }
        JsonNode known = own.path("properties");
        boolean open = !own.has("additionalProperties")
                || own.path("additionalProperties").asBoolean(true);
        for (Map.Entry<String, JsonNode> field : node.properties()) {
            String place = at.isEmpty() ? field.getKey() : at + "." + field.getKey();
            if (known.has(field.getKey())) {
                check(field.getValue(), known.path(field.getKey()), place, numbers);
            } else if (!open) {
                List<String> names = new ArrayList<>();
                known.fieldNames().forEachRemaining(names::add);
                throw new IllegalArgumentException(
                        Messages.of("takes.is-no-key-of-it-there-are", place, String.join(", ", names)));
            }
        }
    }

    private static void bounds(double value, JsonNode rule, String at) {
        boolean low = rule.has("minimum") && value < rule.path("minimum").asDouble()
                || rule.has("exclusiveMinimum")
                        && value <= rule.path("exclusiveMinimum").asDouble();
        boolean high = rule.has("maximum") && value > rule.path("maximum").asDouble();
        if (low || high) {
            JsonNode bound = high
                    ? rule.path("maximum")
                    : rule.has("minimum") ? rule.path("minimum") : rule.path("exclusiveMinimum");
            throw new IllegalArgumentException(Messages.of(
                    "takes.must-be-was",
                    at,
                    (high
                            ? Messages.of("takes.at-most")
                            : rule.has("minimum") ? Messages.of("takes.at-least") : Messages.of("takes.above")),
                    bound.asText(),
                    value));
        }
    }
}
