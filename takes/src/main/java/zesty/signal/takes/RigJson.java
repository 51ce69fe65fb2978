package zesty.signal.takes;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import zesty.signal.core.act.Band;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.BoardClock;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.read.PulseKind;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.PulseSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Scaling;

/** A rig as JSON; its sections are the stops of the trail. */
public final class RigJson {
    private static final String VERSION = "zesty_rig";
    private static final ObjectMapper JSON = new ObjectMapper();

    private RigJson() {}

    /** @return the rig as JSON text, indented */
    public static String write(Rig rig) throws TakeException {
        ObjectNode root = JSON.createObjectNode();
        root.put(VERSION, 1);
        root.put("name", rig.name());
        root.putObject("source").put("address", rig.source());
        ObjectNode decode = root.putObject("decode");
        if (!Double.isNaN(rig.statedRateHz())) {
            decode.put("stated_rate_hz", rig.statedRateHz());
        }
        if (rig.format() != null) {
            format(decode, rig.format());
        }
        ArrayNode scale = root.putArray("scale");
        ArrayNode clean = root.putArray("clean");
        for (Channel channel : rig.channels()) {
            scale(scale.addObject(), channel);
            clean.addObject()
                    .put("column", channel.column())
                    .put("recipe", channel.recipe().text());
        }
        ArrayNode read = root.putArray("read");
        ArrayNode act = root.putArray("act");
        for (PulseSetup pulse : rig.pulses()) {
            read.addObject()
                    .put("column", pulse.column())
                    .put("reader", "pulse")
                    .put("kind", lower(pulse.kind()));
            act.addObject()
                    .put("column", pulse.column())
                    .put("reading", "pulse")
                    .put("low", pulse.band().low())
                    .put("high", pulse.band().high())
                    .put("slack", pulse.band().slack());
        }
        try {
            return JSON.writerWithDefaultPrettyPrinter().writeValueAsString(root);
        } catch (JsonProcessingException e) {
            throw new TakeException("the rig cannot be written: " + e.getOriginalMessage(), e);
        }
    }

    private static String lower(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }

    private static void format(ObjectNode decode, DelimitedFormat format) {
        decode.put("format", "delimited");
        decode.put("delimiter", format.delimiterName());
        decode.put("decimal_comma", format.decimalComma());
        decode.put("trailing_delimiter", format.trailingDelimiter());
        decode.put("header", format.header());
        ArrayNode columns = decode.putArray("columns");
        for (Column column : format.columns()) {
            columns.addObject().put("name", column.name()).put("unit", column.unit());
        }
        if (format.clock() != null) {
            decode.putObject("clock")
                    .put("column", format.columns().get(format.clock().column()).name())
                    .put("ticks_per_second", format.clock().ticksPerSecond())
                    .put("wraps_at", format.clock().wrapTicks());
        }
    }

    private static void scale(ObjectNode node, Channel channel) {
        node.put("column", channel.column());
        node.put("name", channel.name());
        node.put("shown", channel.shown());
        Scaling scaling = channel.scaling();
        scaling.throughConverter().ifPresent(converter -> node.putObject("converter")
                .put("bits", converter.bits())
                .put("reference_volts", converter.referenceVolts())
                .put("divisor", lower(converter.divisor())));
        node.put("slope", scaling.slope());
        node.put("offset", scaling.offset());
        node.put("unit", scaling.unit());
    }

    /**
     * @param where the text comes from, for the error
     * @throws TakeException when it is no rig, saying which part is wrong and what would be right
     */
    public static Rig read(String text, String where) throws TakeException {
        try {
            JsonNode root = JSON.readTree(text);
            if (root == null || !root.isObject() || root.path(VERSION).asInt(0) < 1) {
                throw new TakeException(where + " is no rig: it has no \"" + VERSION + "\"");
            }
            if (root.path(VERSION).asInt() > 1) {
                throw new TakeException(where + " is a rig of a later version");
            }
            return rig(root);
        } catch (JsonProcessingException e) {
            throw new TakeException(
                    where + " is no JSON: " + e.getOriginalMessage() + " (line "
                            + (e.getLocation() == null ? 0 : e.getLocation().getLineNr()) + ")",
                    e);
        } catch (IllegalArgumentException e) {
            throw new TakeException(where + ": " + e.getMessage(), e);
        }
    }

    private static Rig rig(JsonNode root) {
        JsonNode decode = root.path("decode");
        Map<String, Recipe> recipes = new HashMap<>();
        for (JsonNode node : root.path("clean")) {
            recipes.put(text(node, "column"), Recipe.parse(text(node, "recipe")));
        }
        List<Channel> channels = new ArrayList<>();
        for (JsonNode node : root.path("scale")) {
            String column = text(node, "column");
            channels.add(new Channel(
                    column,
                    text(node, "name"),
                    scaling(node),
                    recipes.getOrDefault(column, Recipe.NONE),
                    node.path("shown").asBoolean(true)));
        }
        Map<String, Band> bands = new HashMap<>();
        for (JsonNode node : root.path("act")) {
            bands.put(text(node, "column"), new Band(number(node, "low"), number(node, "high"), number(node, "slack")));
        }
        List<PulseSetup> pulses = new ArrayList<>();
        for (JsonNode node : root.path("read")) {
            String column = text(node, "column");
            PulseKind kind = choice(PulseKind.class, text(node, "kind"));
            pulses.add(new PulseSetup(column, kind, bands.getOrDefault(column, PulseSetup.RESTING)));
        }
        return new Rig(
                text(root, "name"),
                root.path("source").path("address").asText(""),
                decode.has("format") ? format(decode) : null,
                decode.path("stated_rate_hz").asDouble(Double.NaN),
                channels,
                pulses);
    }

    private static Scaling scaling(JsonNode node) {
        JsonNode converter = node.path("converter");
        Converter through = converter.isMissingNode() || converter.isNull()
                ? null
                : new Converter(
                        (int) number(converter, "bits"),
                        number(converter, "reference_volts"),
                        choice(Divisor.class, text(converter, "divisor")));
        return new Scaling(through, number(node, "slope"), number(node, "offset"), text(node, "unit"));
    }

    private static DelimitedFormat format(JsonNode decode) {
        String name = text(decode, "delimiter");
        char delimiter =
                switch (name) {
                    case "comma" -> ',';
                    case "semicolon" -> ';';
                    case "tab" -> '\t';
                    case "blanks" -> ' ';
                    default ->
                        throw new IllegalArgumentException(
                                "\"delimiter\" is comma, semicolon, tab or blanks, was \"" + name + "\"");
                };
        List<Column> columns = new ArrayList<>();
        for (JsonNode node : decode.path("columns")) {
            columns.add(new Column(text(node, "name"), text(node, "unit")));
        }
        BoardClock clock = null;
        JsonNode ticking = decode.path("clock");
        if (ticking.isObject()) {
            String column = text(ticking, "column");
            int index = columns.stream().map(Column::name).toList().indexOf(column);
            if (index < 0) {
                throw new IllegalArgumentException("the clock's column \"" + column + "\" is not among the columns");
            }
            clock = new BoardClock(index, number(ticking, "ticks_per_second"), number(ticking, "wraps_at"));
        }
        return new DelimitedFormat(
                delimiter,
                decode.path("decimal_comma").asBoolean(),
                decode.path("trailing_delimiter").asBoolean(),
                decode.path("header").asText(""),
                columns,
                clock);
    }

    private static <E extends Enum<E>> E choice(Class<E> kind, String text) {
        try {
            return Enum.valueOf(kind, text.toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            List<String> names = new ArrayList<>();
            for (E constant : kind.getEnumConstants()) {
                names.add(lower(constant));
            }
            throw new IllegalArgumentException("\"" + text + "\" is none of " + String.join(", ", names), e);
        }
    }

    private static String text(JsonNode node, String key) {
        if (!node.path(key).isTextual()) {
            throw new IllegalArgumentException("\"" + key + "\" must be a text, was " + node.path(key));
        }
        return node.path(key).asText();
    }

    private static double number(JsonNode node, String key) {
        if (!node.path(key).isNumber()) {
            throw new IllegalArgumentException("\"" + key + "\" must be a number, was " + node.path(key));
        }
        return node.path(key).asDouble();
    }
}
