package zesty.signal.takes;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import zesty.signal.core.decode.BoardClock;
import zesty.signal.core.decode.Check;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.decode.Field;
import zesty.signal.core.decode.Framing;
import zesty.signal.core.decode.JsonFormat;
import zesty.signal.core.decode.LabelledFormat;
import zesty.signal.core.decode.PacketFormat;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.decode.Role;
import zesty.signal.core.decode.SentenceFormat;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.text.Messages;

/** A stream's format as JSON: a small file to share, and part of a rig. Its schema is docs/format.schema.json. */
public final class FormatJson {
    private static final String VERSION = "zesty_format";
    private static final ObjectMapper JSON = Nodes.strict();

    private FormatJson() {}

    /** @return the format as JSON text of its own, indented */
    public static String write(StreamFormat format) throws TakeException {
        ObjectNode root = JSON.createObjectNode();
        root.put(VERSION, 1);
        put(root, format);
        try {
            return JSON.writerWithDefaultPrettyPrinter().writeValueAsString(root);
        } catch (JsonProcessingException e) {
            throw new TakeException(Messages.of("takes.the-format-cannot-be-written", e.getOriginalMessage()), e);
        }
    }

    /**
     * @param where the text comes from, for the error
     * @throws TakeException when it is no format, saying which part is wrong and what would be right
     */
    public static StreamFormat read(String text, String where) throws TakeException {
        return Nodes.reading(where, () -> {
            JsonNode root = JSON.readTree(text);
            if (root == null || !root.isObject() || root.path(VERSION).asInt(0) != 1) {
                throw new IllegalArgumentException(Messages.of("takes.it-is-no-format-of-version-1-is", VERSION));
            }
            return get(root);
        });
    }

    /** Puts the format's keys into a node. */
    static void put(ObjectNode node, StreamFormat format) {
        node.put("format", format.kind());
        if (format instanceof DelimitedFormat delimited) {
            node.put("delimiter", delimited.delimiterName());
            node.put("decimal_comma", delimited.decimalComma());
            node.put("trailing_delimiter", delimited.trailingDelimiter());
            node.put("header", delimited.header());
        } else if (format instanceof LabelledFormat labelled) {
            strings(node.putArray("labels"), labelled.labels());
            node.put("over_lines", labelled.overLines());
            node.put("decimal_comma", labelled.decimalComma());
        } else if (format instanceof SentenceFormat sentence) {
            strings(node.putArray("pieces"), sentence.pieces());
            node.put("header", sentence.header());
            node.put("decimal_comma", sentence.decimalComma());
        } else if (format instanceof JsonFormat json) {
            strings(node.putArray("paths"), json.paths());
        } else if (format instanceof PacketFormat packet) {
            packet(node, packet);
        } else if (format instanceof PictureFormat picture) {
            node.put("delimiter", DelimitedFormat.nameOf(picture.delimiter()));
            node.put("decimal_comma", picture.decimalComma());
            node.put("rows", picture.rows());
            node.put("width", picture.width());
            node.put("per_line", picture.perLine());
            PictureJson.put(node, picture.setup());
        }
        columns(node.putArray("columns"), format);
        if (format.clock() != null) {
            node.putObject("clock")
                    .put("column", format.columns().get(format.clock().column()).name())
                    .put("ticks_per_second", format.clock().ticksPerSecond())
                    .put("wraps_at", format.clock().wrapTicks());
        }
    }

    private static void columns(ArrayNode array, StreamFormat format) {
        for (Column column : format.columns()) {
            if (column.role() == Role.REGION) {
                continue;
            }
            ObjectNode each = array.addObject().put("name", column.name()).put("unit", column.unit());
            if (column.role() != Role.VALUE) {
                each.put("role", Nodes.lower(column.role()));
            }
            if (!column.kept()) {
                each.put("kept", false);
            }
        }
    }

    private static void strings(ArrayNode array, List<String> texts) {
        texts.forEach(array::add);
    }

    private static void packet(ObjectNode node, PacketFormat packet) {
        node.put("start", packet.start());
        node.put("length", packet.length());
        node.put("rows_each", packet.rowsEach());
        node.put("check", Nodes.lower(packet.check()));
        node.put("check_little_endian", packet.checkLittleEndian());
        node.put("check_from_start", packet.checkFromStart());
        node.put("header", packet.header());
        ArrayNode fields = node.putArray("fields");
        for (Field field : packet.fields()) {
            fields.addObject()
                    .put("offset", field.offset())
                    .put("type", Nodes.lower(field.type()))
                    .put("little_endian", field.littleEndian())
                    .put("shift", field.shift())
                    .put("bits", field.bits())
                    .put("stride", field.stride());
        }
    }

    /** @throws IllegalArgumentException when a key is missing or wrong, saying which and what would be right */
    static StreamFormat get(JsonNode node) {
        List<Column> columns = new ArrayList<>();
        for (JsonNode each : node.path("columns")) {
            Role role = each.has("role") ? Nodes.choice(Role.class, Nodes.text(each, "role")) : Role.VALUE;
            columns.add(new Column(
                    Nodes.text(each, "name"),
                    Nodes.text(each, "unit"),
                    role,
                    each.path("kept").asBoolean(true)));
        }
        BoardClock clock = clock(node.path("clock"), columns);
        boolean comma = node.path("decimal_comma").asBoolean();
        String header = node.path("header").asText("");
        String kind = Nodes.text(node, "format");
        return switch (kind) {
            case "delimited" ->
                new DelimitedFormat(
                        delimiter(node), comma, node.path("trailing_delimiter").asBoolean(), header, columns, clock);
            case "labelled" ->
                new LabelledFormat(
                        Nodes.texts(node, "labels"),
                        columns,
                        node.path("over_lines").asBoolean(),
                        comma,
                        clock);
            case "sentence" -> new SentenceFormat(Nodes.texts(node, "pieces"), header, columns, comma, clock);
            case "json" -> new JsonFormat(Nodes.texts(node, "paths"), columns, clock);
            case "picture" ->
                new PictureFormat(
                        Nodes.whole(node, "rows"),
                        Nodes.whole(node, "width"),
                        delimiter(node),
                        comma,
                        node.path("per_line").asBoolean(),
                        columns,
                        PictureJson.get(node));
            default -> packet(node, kind, header, columns, clock);
        };
    }

    private static char delimiter(JsonNode node) {
        String name = Nodes.text(node, "delimiter");
        for (char delimiter : DelimitedFormat.DELIMITERS.toCharArray()) {
            if (DelimitedFormat.nameOf(delimiter).equals(name)) {
                return delimiter;
            }
        }
        throw new IllegalArgumentException(Messages.of("takes.delimiter-is-comma-semicolon-tab", name));
    }

    private static BoardClock clock(JsonNode ticking, List<Column> columns) {
        if (!ticking.isObject()) {
            return null;
        }
        String column = Nodes.text(ticking, "column");
        int index = columns.stream().map(Column::name).toList().indexOf(column);
        if (index < 0) {
            throw new IllegalArgumentException(Messages.of("takes.the-clock-s-column-is-not-among", column));
        }
        return new BoardClock(index, Nodes.number(ticking, "ticks_per_second"), Nodes.number(ticking, "wraps_at"));
    }

    private static StreamFormat packet(
            JsonNode node, String kind, String header, List<Column> columns, BoardClock clock) {
        Framing framing = null;
        for (Framing each : Framing.values()) {
            framing = each.kind().equals(kind) ? each : framing;
        }
        if (framing == null) {
            throw new IllegalArgumentException(Messages.of("takes.no-format-is-called", kind));
        }
        List<Field> fields = new ArrayList<>();
        for (JsonNode each : node.path("fields")) {
            fields.add(new Field(
                    Nodes.whole(each, "offset"),
                    Nodes.choice(Field.Type.class, Nodes.text(each, "type")),
                    each.path("little_endian").asBoolean(),
                    each.path("shift").asInt(),
                    each.path("bits").asInt(),
                    each.path("stride").asInt()));
        }
        return new PacketFormat(
                framing,
                node.path("start").asText("").toUpperCase(Locale.ROOT),
                Nodes.whole(node, "length"),
                node.path("rows_each").asInt(1),
                fields,
                Nodes.choice(Check.class, node.path("check").asText("none")),
                node.path("check_little_endian").asBoolean(),
                node.path("check_from_start").asBoolean(),
                header,
                columns,
                clock);
    }
}
