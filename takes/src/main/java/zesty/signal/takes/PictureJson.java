package zesty.signal.takes;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.picture.PictureMend;
import zesty.signal.core.picture.PictureSetup;
import zesty.signal.core.picture.Region;
import zesty.signal.core.text.Messages;

/** What is made of a source's pictures, as JSON under the key {@code picture} of its format. */
final class PictureJson {
    private static final String KEY = "picture";

    private PictureJson() {}

    static void put(ObjectNode format, PictureSetup setup) {
        if (setup.isNone()) {
            return;
        }
        ObjectNode node = format.putObject(KEY);
        ArrayNode regions = node.putArray("regions");
        for (Region region : setup.regions()) {
            ObjectNode each = regions.addObject().put("name", region.name()).put("form", Nodes.lower(region.form()));
            each.putArray("from").add(region.x1()).add(region.y1());
            each.putArray("to").add(region.x2()).add(region.y2());
            each.put("measure", region.measure().word());
            Nodes.putKnown(each, "limit", region.limit());
        }
        PictureMend mend = setup.mend();
        if (!mend.dead().isEmpty()) {
            ArrayNode dead = node.putArray("dead");
            mend.dead().forEach(dead::add);
        }
        if (mend.lid().length > 0) {
            ArrayNode lid = node.putArray("lid");
            for (double value : mend.lid()) {
                lid.add(value);
            }
        }
        node.put("emissivity", mend.emissivity()).put("reflected", mend.reflected());
        node.put("quarter_turns", setup.quarterTurns()).put("mirrored", setup.mirrored());
    }

    /** @throws IllegalArgumentException when something of it is wrong, saying what */
    static PictureSetup get(JsonNode format) {
        JsonNode node = format.path(KEY);
        if (!node.isObject()) {
            return PictureSetup.NONE;
        }
        List<Region> regions = new ArrayList<>();
        for (JsonNode each : node.path("regions")) {
            regions.add(new Region(
                    Nodes.text(each, "name"),
                    Nodes.choice(Region.Form.class, Nodes.text(each, "form")),
                    corner(each, "from", 0),
                    corner(each, "from", 1),
                    corner(each, "to", 0),
                    corner(each, "to", 1),
                    Nodes.choice(Region.Measure.class, Nodes.text(each, "measure")),
                    each.has("limit") ? Nodes.number(each, "limit") : Double.NaN));
        }
        List<Integer> dead = new ArrayList<>();
        node.path("dead").forEach(one -> dead.add(one.asInt(-1)));
        double[] lid = new double[node.path("lid").size()];
        for (int p = 0; p < lid.length; p++) {
            lid[p] = node.path("lid").get(p).asDouble();
        }
        PictureMend mend = new PictureMend(
                dead,
                lid,
                node.has("emissivity") ? Nodes.number(node, "emissivity") : 1,
                node.has("reflected") ? Nodes.number(node, "reflected") : PictureMend.NONE.reflected());
        return new PictureSetup(
                regions,
                mend,
                node.path("quarter_turns").asInt(0),
                node.path("mirrored").asBoolean());
    }

    private static int corner(JsonNode region, String key, int at) {
        JsonNode value = region.path(key).path(at);
        if (!value.isInt()) {
            throw new IllegalArgumentException(
                    Messages.of("takes.of-a-region-is-a-column-and-a-row", key, region.path(key)));
        }
        return value.asInt();
    }
}
