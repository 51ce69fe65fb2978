package zesty.signal.takes;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.StreamReadFeature;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import zesty.signal.core.text.Messages;

/** Takes values out of JSON, and says what is wrong with one that cannot be taken. */
final class Nodes {
    private Nodes() {}

    /** @return reads JSON as it is defined: each key once, and nothing behind its end */
    static ObjectMapper strict() {
        return JsonMapper.builder()
                .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
                .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
                .build();
    }

    /** Reading that may find the JSON broken, or a value of it wrong. */
    interface Reading<T> {
        T read() throws JsonProcessingException, TakeException;
    }

    /** Runs the reading; what goes wrong is said with where the text comes from. */
    static <T> T reading(String where, Reading<T> reading) throws TakeException {
        try {
            return reading.read();
        } catch (JsonProcessingException e) {
            throw new TakeException(
                    Messages.of(
                            "takes.is-no-json-line",
                            where,
                            e.getOriginalMessage(),
                            (e.getLocation() == null ? 0 : e.getLocation().getLineNr())),
                    e);
        } catch (IllegalArgumentException e) {
            throw new TakeException(where + ": " + e.getMessage(), e);
        }
    }

    static String lower(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }

    static <E extends Enum<E>> E choice(Class<E> kind, String text) {
        try {
            return Enum.valueOf(kind, text.toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            List<String> names = new ArrayList<>();
            for (E constant : kind.getEnumConstants()) {
                names.add(lower(constant));
            }
            throw new IllegalArgumentException(Messages.of("takes.is-none-of", text, String.join(", ", names)), e);
        }
    }

    static String text(JsonNode node, String key) {
        if (!node.path(key).isTextual()) {
            throw new IllegalArgumentException(Messages.of("takes.must-be-a-text-was", key, node.path(key)));
        }
        return node.path(key).asText();
    }

    static List<String> texts(JsonNode node, String key) {
        List<String> texts = new ArrayList<>();
        for (JsonNode each : node.path(key)) {
            texts.add(each.asText());
        }
        return texts;
    }

    static double number(JsonNode node, String key) {
        if (!node.path(key).isNumber()) {
            throw new IllegalArgumentException(Messages.of("takes.must-be-a-number-was", key, node.path(key)));
        }
        return node.path(key).asDouble();
    }

    /** Puts a number that may be unknown: then its key is left out, since JSON holds no NaN. */
    static void putKnown(ObjectNode node, String key, double value) {
        if (!Double.isNaN(value)) {
            node.put(key, value);
        }
    }

    static int whole(JsonNode node, String key) {
        if (!node.path(key).isInt()) {
            throw new IllegalArgumentException(Messages.of("takes.must-be-a-whole-number-was", key, node.path(key)));
        }
        return node.path(key).asInt();
    }
}
