package zesty.signal.boards.link;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.CRC32;
import zesty.signal.core.decode.Stations;

/**
 * Messages of many topics as lines of one stream: a JSON object a message, with the topic's number in it, by which each topic is a station
 * of its own. A topic's number comes from its name, so that it is the same on another day. Any thread.
 */
final class TopicLines {
    /** Numbers a double and a person can read; two topics in a million share one, and then the later takes the next. */
    private static final int NUMBERS = 1_000_000;

    private static final Pattern NUMBER = Pattern.compile("[-+]?(\\d+\\.?\\d*|\\.\\d+)([eE][-+]?\\d+)?");
    private static final Pattern PAIR = Pattern.compile(
            "\\s*([\\p{L}_][\\p{L}\\p{N}_ .\\-]*?)\\s*[=:]\\s*([-+]?[\\d.]+(?:[eE][-+]?\\d+)?)\\s*\\p{L}*\\s*");
    /** A board's own clock and count are its own: between boards they would tell of losses that are none. */
    private static final Set<String> OWN = Set.of(
            "t",
            "ts",
            "time",
            "timestamp",
            "ms",
            "us",
            "millis",
            "micros",
            "uptime",
            "seq",
            "sequence",
            "n",
            "i",
            "index");

    private static final int DEEPEST = 3;

    private final ObjectMapper json = new ObjectMapper();
    private final String filter;
    private final Map<String, Integer> numbers = new HashMap<>();
    private final Map<Integer, String> names = new HashMap<>();

    /** @param filter that the topics match, with + or # in it */
    TopicLines(String filter) {
        this.filter = filter;
    }

    /** @return what is told apart by the filter's + and #: wren of boats/wren/battery; empty for a number that is none */
    String nameOf(int number) {
        synchronized (names) {
            return names.getOrDefault(number, "");
        }
    }

    /** @param seconds when it came. @return a line for each of the message's lines; of one without numbers, a line with its topic before it, which is set aside */
    byte[] lines(double seconds, String topic, byte[] payload) {
        int number = number(topic);
        String text = new String(payload, StandardCharsets.UTF_8);
        StringBuilder lines = new StringBuilder();
        for (String one : text.split("\\R")) {
            if (!one.isBlank()) {
                ObjectNode fields = fields(one.strip());
                if (fields == null) {
                    lines.append(topic).append(": ").append(printable(one)).append('\n');
                } else {
                    ObjectNode line = json.createObjectNode()
                            .put("t", Math.rint(1e4 * seconds) / 1e4)
                            .put(Stations.TOPIC, number);
                    fields.properties().forEach(field -> line.set(key(field.getKey()), field.getValue()));
                    lines.append(line).append('\n');
                }
            }
        }
        return lines.toString().getBytes(StandardCharsets.UTF_8);
    }

    private static String printable(String text) {
        String plain = text.replaceAll("[^ -~]", "?");
        return plain.length() > 60 ? plain.substring(0, 60) + "…" : plain;
    }

    private static String key(String said) {
        String low = said.toLowerCase(Locale.ROOT);
        return OWN.contains(low) || low.startsWith("t_") || low.equals(Stations.TOPIC) ? "board_" + said : said;
    }

    private ObjectNode fields(String text) {
        if (text.startsWith("{")) {
            return object(text);
        }
        ObjectNode fields = json.createObjectNode();
        String inner = text.startsWith("[") && text.endsWith("]") ? text.substring(1, text.length() - 1) : text;
        String[] parts =
                inner.contains(";") ? inner.replace(',', '.').split("\\s*;\\s*") : inner.split("\\s*[,\\s]\\s*");
        boolean all = parts.length > 0;
        for (int i = 0; i < parts.length && all; i++) {
            all = NUMBER.matcher(parts[i]).matches();
            if (all) {
                fields.put(parts.length == 1 ? Stations.BARE : "column" + (i + 1), Double.parseDouble(parts[i]));
            }
        }
        if (all) {
            return fields;
        }
        fields.removeAll();
        for (String part : text.split("[,;]|\\s+(?=[\\p{L}_][\\p{L}\\p{N}_]*\\s*[=:])")) {
            Matcher pair = PAIR.matcher(part);
            if (pair.matches() && NUMBER.matcher(pair.group(2)).matches()) {
                fields.put(pair.group(1), Double.parseDouble(pair.group(2)));
            }
        }
        if (!fields.isEmpty()) {
            return fields;
        }
        return switch (text.toLowerCase(Locale.ROOT)) {
            case "on", "true", "open", "online" -> fields.put(Stations.BARE, 1);
            case "off", "false", "closed", "offline" -> fields.put(Stations.BARE, 0);
            default -> null;
        };
    }

    private ObjectNode object(String text) {
        try {
            JsonNode read = json.readTree(text);
            if (!(read instanceof ObjectNode object)) {
                return null;
            }
            ObjectNode numbers = json.createObjectNode();
            gather("", object, numbers, 0);
            return numbers.isEmpty() ? null : numbers;
        } catch (JsonProcessingException e) {
            return null;
        }
    }

    /** Numbers of an object, those of objects in it by both names. */
    private static void gather(String before, ObjectNode object, ObjectNode numbers, int depth) {
        for (Map.Entry<String, JsonNode> one : object.properties()) {
            String name = before + one.getKey();
            JsonNode value = one.getValue();
            if (value.isNumber()) {
                numbers.set(name, value);
            } else if (value.isBoolean()) {
                numbers.put(name, value.booleanValue() ? 1 : 0);
            } else if (value.isTextual() && NUMBER.matcher(value.textValue()).matches()) {
                numbers.put(name, Double.parseDouble(value.textValue()));
            } else if (value instanceof ObjectNode inner && depth < DEEPEST) {
                gather(name + " ", inner, numbers, depth + 1);
            }
        }
    }

    private int number(String topic) {
        synchronized (names) {
            return numbers.computeIfAbsent(topic, fresh -> {
                CRC32 sum = new CRC32();
                sum.update(fresh.getBytes(StandardCharsets.UTF_8));
                int number = (int) (sum.getValue() % NUMBERS) + 1;
                while (names.containsKey(number)) {
                    number = number % NUMBERS + 1;
                }
                names.put(number, name(fresh));
                return number;
            });
        }
    }

    private String name(String topic) {
        String[] wanted = filter.split("/", -1);
        String[] parts = topic.split("/", -1);
        StringBuilder name = new StringBuilder();
        for (int i = 0; i < parts.length; i++) {
            boolean open = i >= wanted.length
                    || wanted[i].equals("+")
                    || wanted[i].equals("#")
                    || wanted[wanted.length - 1].equals("#") && i >= wanted.length - 1;
            if (open && !parts[i].isEmpty()) {
                name.append(name.isEmpty() ? "" : " ").append(parts[i]);
            }
        }
        return name.isEmpty() ? topic : name.toString();
    }
}
