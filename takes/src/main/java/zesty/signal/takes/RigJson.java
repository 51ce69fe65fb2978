package zesty.signal.takes;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import zesty.signal.core.act.Band;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.prove.Proof;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.rig.BandSetup;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Limits;
import zesty.signal.core.rig.Protocol;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.RecordingSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Sensor;
import zesty.signal.core.rig.Source;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Correction;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.text.Messages;

/** A rig as JSON; its sections are the stops of the trail. */
public final class RigJson {
    private static final String VERSION = "zesty_rig";
    private static final int CURRENT = 3;
    private static final String RECORD = "record";
    private static final String MARKERS = "markers";
    private static final String PROTOCOL = "protocol";
    private static final String LEFT_OUT = "left_out";
    private static final String DECIDE = "decide";
    private static final String OTHERS = "other_sources";
    private static final ObjectMapper JSON = Nodes.strict();
    private static final KnownKeys KEYS = new KnownKeys("/rig.schema.json");

    private RigJson() {}

    /** @return the rig as JSON text, indented */
    public static String write(Rig rig) throws TakeException {
        ObjectNode root = JSON.createObjectNode();
        root.put(VERSION, CURRENT);
        root.put("name", rig.name());
        source(root, rig.sources().get(0));
        for (Source other : rig.sources().subList(1, rig.sources().size())) {
            source(root.withArray(OTHERS).addObject().put("name", other.name()), other);
        }
        rig.acknowledged().stream().sorted().forEach(caution -> root.withArray("acknowledged")
                .add(Nodes.lower(caution)));
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
        for (ReaderSetup reader : rig.readers()) {
            ObjectNode node = read.addObject().put("reader", reader.kind());
            reader.columns().forEach(node.putArray("columns")::add);
            if (!reader.settings().isEmpty()) {
                ObjectNode settings = node.putObject("settings");
                new TreeMap<>(reader.settings()).forEach(settings::put);
            }
        }
        for (BandSetup band : rig.bands()) {
            for (ReaderSetup reader : rig.readers()) {
                if (reader.id().equals(band.reader())) {
                    ObjectNode node = act.addObject().put("reader", reader.kind());
                    reader.columns().forEach(node.putArray("columns")::add);
                    node.put("scalar", band.scalar())
                            .put("low", band.band().low())
                            .put("high", band.band().high())
                            .put("hysteresis", band.band().hysteresis());
                }
            }
        }
        recording(root, rig.recording());
        if (!rig.act().isNone()) {
            RulesOut.put(root.putObject(DECIDE), rig.act());
        }
        try {
            return JSON.writerWithDefaultPrettyPrinter().writeValueAsString(root);
        } catch (JsonProcessingException e) {
            throw new TakeException(Messages.of("takes.the-rig-cannot-be-written", e.getOriginalMessage()), e);
        }
    }

    private static void recording(ObjectNode root, RecordingSetup of) {
        if (of.isNone()) {
            return;
        }
        ObjectNode node = root.putObject(RECORD);
        if (!of.markers().isEmpty()) {
            of.markers().forEach(node.putArray(MARKERS)::add);
        }
        if (!of.protocol().isNone()) {
            node.put(PROTOCOL, of.protocol().text());
        }
        if (!of.leftOut().isEmpty()) {
            of.leftOut().forEach(node.putArray(LEFT_OUT)::add);
        }
    }

    private static RecordingSetup recording(JsonNode node) {
        return new RecordingSetup(
                Nodes.texts(node, MARKERS),
                Protocol.parse(node.path(PROTOCOL).asText("")),
                Nodes.texts(node, LEFT_OUT));
    }

    private static void source(ObjectNode root, Source of) {
        SourceSetup setup = of.setup();
        ObjectNode source = root.putObject("source").put("address", setup.address());
        if (setup.warmUpSeconds() > 0) {
            source.put("warm_up_seconds", setup.warmUpSeconds());
        }
        if (!setup.orders().isEmpty()) {
            setup.orders().forEach(source.putArray("orders")::add);
        }
        if (!setup.passOver().isEmpty()) {
            setup.passOver().forEach(source.putArray("pass_over")::add);
        }
        ObjectNode decode = root.putObject("decode");
        if (!Double.isNaN(setup.statedRateHz())) {
            decode.put("stated_rate_hz", setup.statedRateHz());
        }
        if (of.format() != null) {
            FormatJson.put(decode, of.format());
        }
    }

    private static void scale(ObjectNode node, Channel channel) {
        node.put("column", channel.column());
        node.put("name", channel.name());
        node.put("shown", channel.shown());
        Scaling scaling = channel.scaling();
        scaling.throughConverter().ifPresent(converter -> {
            ObjectNode through = node.putObject("converter")
                    .put("bits", converter.bits())
                    .put("reference_volts", converter.referenceVolts())
                    .put("divisor", Nodes.lower(converter.divisor()));
            if (converter.signed()) {
                through.put("signed", true);
            }
            if (!converter.referenceFrom().isEmpty()) {
                through.put("reference_from", converter.referenceFrom());
            }
        });
        ConversionJson.put(node.putObject("conversion"), scaling.conversion());
        for (Correction correction : scaling.corrections()) {
            node.withArray("corrections")
                    .addObject()
                    .put("name", correction.name())
                    .put("offset", correction.offset())
                    .put("epoch_seconds", correction.epochSeconds());
        }
        if (!channel.shownIn().isEmpty()) {
            node.put("shown_in", channel.shownIn());
        }
        if (!channel.sensor().isUnknown()) {
            KindJson.putSensor(node.putObject("sensor"), channel.sensor());
        }
        if (!channel.limits().none()) {
            ObjectNode limits = node.putObject("limits");
            Nodes.putKnown(limits, "low", channel.limits().low());
            Nodes.putKnown(limits, "high", channel.limits().high());
        }
        channel.proofs().forEach(proof -> ProofJson.put(node.withArray("proofs").addObject(), proof));
        node.put("unit", scaling.unit());
    }

    /**
     * @param where the text comes from, for the error
     * @throws TakeException when it is no rig, saying which part is wrong and what would be right
     */
    public static Rig read(String text, String where) throws TakeException {
        return Nodes.reading(where, () -> {
            JsonNode root = JSON.readTree(text);
            if (root == null || !root.isObject() || root.path(VERSION).asInt(0) < 1) {
                throw new TakeException(Messages.of("takes.is-no-rig-it-has-no", where, VERSION));
            }
            int version = root.path(VERSION).asInt();
            if (version > CURRENT) {
                throw new TakeException(Messages.of("takes.is-a-rig-of-a-later-version", where));
            }
            if (version < CURRENT) {
                OldRigs.bringUp((ObjectNode) root);
            }
            KEYS.keys(root);
            Rig read = rig(root);
            // What a part says of its own numbers comes first: it knows what they mean.
            KEYS.numbers(root);
            return read;
        });
    }

    private static Rig rig(JsonNode root) {
        Map<String, Recipe> recipes = new HashMap<>();
        for (JsonNode node : root.path("clean")) {
            recipes.put(Nodes.text(node, "column"), Recipe.parse(Nodes.text(node, "recipe")));
        }
        List<Channel> channels = new ArrayList<>();
        for (JsonNode node : root.path("scale")) {
            String column = Nodes.text(node, "column");
            channels.add(new Channel(
                    column,
                    Nodes.text(node, "name"),
                    scaling(node),
                    recipes.getOrDefault(column, Recipe.NONE),
                    node.path("shown").asBoolean(true),
                    node.path("shown_in").asText(""),
                    node.has("sensor") ? KindJson.getSensor(node.path("sensor")) : Sensor.UNKNOWN,
                    new Limits(
                            node.path("limits").path("low").asDouble(Double.NaN),
                            node.path("limits").path("high").asDouble(Double.NaN)),
                    proofs(node)));
        }
        recipes.keySet().forEach(column -> {
            if (channels.stream().noneMatch(channel -> channel.column().equals(column))) {
                throw new IllegalArgumentException(Messages.of(
                        "takes.clean-has-a-recipe-for-the-column",
                        column,
                        channels.stream().map(Channel::column).toList()));
            }
        });
        List<ReaderSetup> readers = new ArrayList<>();
        for (JsonNode node : root.path("read")) {
            readers.add(new ReaderSetup(Nodes.text(node, "reader"), columns(node), settings(node)));
        }
        List<BandSetup> bands = new ArrayList<>();
        for (JsonNode node : root.path("act")) {
            String id = new ReaderSetup(Nodes.text(node, "reader"), columns(node), Map.of()).id();
            bands.add(new BandSetup(
                    id,
                    Nodes.text(node, "scalar"),
                    new Band(Nodes.number(node, "low"), Nodes.number(node, "high"), Nodes.number(node, "hysteresis"))));
        }
        List<Source> sources = new ArrayList<>();
        sources.add(source("", root));
        for (JsonNode other : root.path(OTHERS)) {
            sources.add(source(Nodes.text(other, "name"), other));
        }
        Set<Caution> acknowledged = EnumSet.noneOf(Caution.class);
        Nodes.texts(root, "acknowledged").forEach(word -> acknowledged.add(Nodes.choice(Caution.class, word)));
        return new Rig(
                Nodes.text(root, "name"),
                sources,
                channels,
                readers,
                bands,
                acknowledged,
                recording(root.path(RECORD)),
                root.has(DECIDE) ? decide(root.path(DECIDE)) : ActSetup.NONE);
    }

    private static ActSetup decide(JsonNode node) {
        if (!node.isObject()) {
            throw new IllegalArgumentException(Messages.of("takes.decide-is-an-object-rules-outputs", node));
        }
        return RulesJson.setup(node);
    }

    private static List<String> columns(JsonNode node) {
        List<String> columns = Nodes.texts(node, "columns");
        if (columns.isEmpty()) {
            throw new IllegalArgumentException(Messages.of("takes.a-reader-has-no-columns"));
        }
        return columns;
    }

    private static Map<String, String> settings(JsonNode node) {
        Map<String, String> settings = new TreeMap<>();
        node.path("settings")
                .properties()
                .forEach(field -> settings.put(field.getKey(), field.getValue().asText()));
        return settings;
    }

    private static List<Proof> proofs(JsonNode node) {
        List<Proof> proofs = new ArrayList<>();
        for (JsonNode each : node.path("proofs")) {
            proofs.add(ProofJson.get(each));
        }
        return proofs;
    }

    private static Source source(String name, JsonNode root) {
        JsonNode node = root.path("source");
        JsonNode decode = root.path("decode");
        SourceSetup setup = new SourceSetup(
                node.path("address").asText(""),
                decode.path("stated_rate_hz").asDouble(Double.NaN),
                node.path("warm_up_seconds").asDouble(0),
                Nodes.texts(node, "orders"),
                Nodes.texts(node, "pass_over"));
        return new Source(name, setup, decode.has("format") ? FormatJson.get(decode) : null);
    }

    private static Scaling scaling(JsonNode node) {
        JsonNode converter = node.path("converter");
        Converter through = converter.isMissingNode() || converter.isNull()
                ? null
                : new Converter(
                        (int) Nodes.number(converter, "bits"),
                        Nodes.number(converter, "reference_volts"),
                        Nodes.choice(Divisor.class, Nodes.text(converter, "divisor")),
                        converter.path("signed").asBoolean(false),
                        converter.path("reference_from").asText(""));
        Conversion conversion = ConversionJson.get(node.path("conversion"));
        List<Correction> corrections = new ArrayList<>();
        for (JsonNode each : node.path("corrections")) {
            corrections.add(new Correction(
                    Nodes.text(each, "name"),
                    Nodes.number(each, "offset"),
                    each.path("epoch_seconds").asLong()));
        }
        return new Scaling(through, conversion, corrections, Nodes.text(node, "unit"));
    }
}
