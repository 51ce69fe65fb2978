package zesty.signal.core.decode;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.core.StreamReadConstraints;
import java.io.IOException;
import java.util.ArrayDeque;
import java.util.LinkedHashMap;
import java.util.Map;
import zesty.signal.core.text.Messages;

/** Takes the numbers out of one JSON object, each under its path. Depth and size are bounded, so a bomb is no harm. */
final class JsonNumbers {
    private static final int MOST_DEPTH = 16;
    private static final int MOST_NUMBERS = 1024;
    private static final JsonFactory JSON = JsonFactory.builder()
            .streamReadConstraints(StreamReadConstraints.builder()
                    .maxNestingDepth(MOST_DEPTH)
                    .maxNumberLength(100)
                    .maxStringLength(LineDecoder.LINE_LIMIT)
                    .build())
            .build();

    private JsonNumbers() {}

    /** A line that is no JSON object; the message says why. */
    static final class NoObject extends Exception {
        NoObject(String message) {
            super(message, null, false, false);
        }
    }

    /** One place on the way down: a field's name or an array's index. */
    private static final class Level {
        final boolean array;
        String name = "";
        int index = -1;

        Level(boolean array) {
            this.array = array;
        }
    }

    /** @return path to number; true and false are 1 and 0, null is NaN, texts are left out */
    static Map<String, Double> of(String line) throws NoObject {
        Map<String, Double> numbers = new LinkedHashMap<>();
        try (JsonParser parser = JSON.createParser(line)) {
            if (parser.nextToken() != JsonToken.START_OBJECT) {
                throw new NoObject(Messages.of("decode.no-json-object"));
            }
            ArrayDeque<Level> levels = new ArrayDeque<>();
            levels.addLast(new Level(false));
            while (!levels.isEmpty()) {
                token(parser, levels, numbers);
            }
            if (parser.nextToken() != null) {
                throw new NoObject(Messages.of("decode.more-than-one-json-object"));
            }
            return numbers;
        } catch (JsonProcessingException e) {
            throw new NoObject(Messages.of(
                    "decode.no-whole-json-object", e.getOriginalMessage().split("\\R")[0]));
        } catch (IOException e) {
            throw new NoObject(Messages.of("decode.no-json-object"));
        }
    }

    private static void token(JsonParser parser, ArrayDeque<Level> levels, Map<String, Double> numbers)
            throws IOException, NoObject {
        JsonToken token = parser.nextToken();
        if (token == null) {
            throw new NoObject(Messages.of("decode.the-json-object-has-no-end"));
        }
        Level level = levels.getLast();
        if (token == JsonToken.FIELD_NAME) {
            level.name = parser.currentName();
            return;
        }
        if (token == JsonToken.END_OBJECT || token == JsonToken.END_ARRAY) {
            levels.removeLast();
            return;
        }
        level.index++;
        switch (token) {
            case START_OBJECT -> levels.addLast(new Level(false));
            case START_ARRAY -> levels.addLast(new Level(true));
            case VALUE_TRUE -> numbers.put(path(levels), 1.0);
            case VALUE_FALSE -> numbers.put(path(levels), 0.0);
            case VALUE_NULL -> numbers.put(path(levels), Double.NaN);
            case VALUE_NUMBER_INT, VALUE_NUMBER_FLOAT -> numbers.put(path(levels), parser.getDoubleValue());
            default -> {
                // A text is no reading.
            }
        }
        if (numbers.size() > MOST_NUMBERS) {
            throw new NoObject(Messages.of("decode.more-than-numbers-in-one-json", MOST_NUMBERS));
        }
    }

    private static String path(ArrayDeque<Level> levels) {
        StringBuilder path = new StringBuilder();
        for (Level level : levels) {
            if (level.array) {
                path.append('[').append(level.index).append(']');
            } else {
                path.append(path.length() == 0 ? "" : ".").append(level.name);
            }
        }
        return path.toString();
    }
}
