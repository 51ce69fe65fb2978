package zesty.signal.takes;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.plan.Draft;
import zesty.signal.core.plan.Plan;
import zesty.signal.core.read.Need;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.kinds.ReaderKinds;

/** A plan in the making as JSON, to go on with another day. */
public final class DraftJson {
    private DraftJson() {}

    public static String write(Draft draft) {
        ObjectNode root = JsonNodeFactory.instance.objectNode();
        root.put("kind", draft.kind()).put("sensor", draft.need().sensor());
        root.put("rate_hz", draft.rateHz()).put("channels", draft.channels());
        root.put("baud", draft.baud()).put("packets", draft.packets());
        Plan.Converter converter = draft.converter();
        root.put("bits", converter.bits()).put("ref", converter.ref());
        root.put("noise_counts", converter.noiseCounts()).put("average", converter.average());
        root.put("swing_v", draft.swingVolts()).put("recipe", draft.recipe());
        ArrayNode tones = root.putArray("tones");
        draft.tones().forEach(tones::add);
        root.put("memory_bytes", draft.memoryBytes());
        root.put("mah", draft.milliampHours()).put("ma", draft.milliamps()).put("hours", draft.wantedHours());
        return root.toPrettyString();
    }

    /** @param where it comes from, for what is said. @throws TakeException when it makes no sense, saying what */
    public static Draft read(String text, String where) throws TakeException {
        return Nodes.reading(where, () -> {
            JsonNode root = Nodes.strict().readTree(text);
            String kind = Nodes.text(root, "kind");
            String sensor = Nodes.text(root, "sensor");
            List<Double> tones = new ArrayList<>();
            root.path("tones").forEach(tone -> tones.add(tone.asDouble()));
            return new Draft(
                    kind,
                    need(kind, sensor),
                    new Draft.Stream(
                            Nodes.number(root, "rate_hz"),
                            Nodes.whole(root, "channels"),
                            Nodes.number(root, "baud"),
                            root.path("packets").asBoolean()),
                    new Plan.Converter(
                            Nodes.whole(root, "bits"),
                            Nodes.number(root, "ref"),
                            Nodes.number(root, "noise_counts"),
                            Nodes.number(root, "average")),
                    new Draft.Signal(Nodes.number(root, "swing_v"), Nodes.text(root, "recipe"), tones),
                    new Draft.Board(
                            Nodes.number(root, "memory_bytes"),
                            Nodes.number(root, "mah"),
                            Nodes.number(root, "ma"),
                            Nodes.number(root, "hours")));
        });
    }

    private static Need need(String kind, String sensor) {
        try {
            List<Need> needs = ReaderKinds.of(kind).needs();
            return needs.stream()
                    .filter(one -> one.sensor().equals(sensor))
                    .findFirst()
                    .orElse(needs.get(0));
        } catch (ReaderException e) {
            throw new IllegalArgumentException(e.getMessage());
        }
    }
}
