package zesty.signal.takes;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import zesty.signal.core.read.pulse.Pulse;

/** Says in today's words what rigs of versions 1 and 2 say, so that they are read like any other. */
final class OldRigs {
    private OldRigs() {}

    /** @param root a rig of version 1 or 2, which becomes one of version 3; keys that nobody knows stay as they are */
    static void bringUp(ObjectNode root) {
        for (JsonNode node : root.path("scale")) {
            if (node instanceof ObjectNode scale && !scale.has("conversion") && scale.has("slope")) {
                ObjectNode line = scale.putObject("conversion").put("kind", "line");
                move(scale, "slope", line, "slope");
                move(scale, "offset", line, "offset");
            }
        }
        for (JsonNode node : root.path("read")) {
            if (node instanceof ObjectNode read) {
                columns(read);
                if (read.has(Pulse.SOURCE)) {
                    move(read, Pulse.SOURCE, read.withObject("/settings"), Pulse.SOURCE);
                }
            }
        }
        for (JsonNode node : root.path("act")) {
            if (node instanceof ObjectNode act) {
                columns(act);
                move(act, "reading", act, "reader");
                move(act, "slack", act, "hysteresis");
                if (!act.has("scalar")) {
                    act.put("scalar", Pulse.RATE);
                }
            }
        }
    }

    /** The one column, or several of which the first stood there as well, become a list; a reader that was not named is a pulse. */
    private static void columns(ObjectNode node) {
        JsonNode one = node.remove("column");
        if (!node.has("columns") && one != null) {
            ArrayNode columns = node.putArray("columns");
            columns.add(one);
        }
        if (!node.has("reader") && !node.has("reading")) {
            node.put("reader", Pulse.NAME);
        }
    }

    private static void move(ObjectNode from, String was, ObjectNode to, String is) {
        JsonNode value = from.remove(was);
        if (value != null) {
            to.set(is, value);
        }
    }
}
