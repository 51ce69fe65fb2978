package zesty.signal.takes;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.prove.FitModel;
import zesty.signal.core.prove.Proof;
import zesty.signal.core.prove.ReferencePoint;

/** A proof as JSON. */
final class ProofJson {
    private ProofJson() {}

    static void put(ObjectNode node, Proof proof) {
        node.put("epoch_seconds", proof.epochSeconds());
        node.put("model", Nodes.lower(proof.model()));
        node.put("adopted", proof.adopted());
        node.put("unit", proof.unit());
        for (ReferencePoint point : proof.points()) {
            node.withArray("points")
                    .addObject()
                    .put("raw", point.raw())
                    .put("reference", point.reference())
                    .put("uncertainty", point.uncertainty());
        }
    }

    static Proof get(JsonNode node) {
        List<ReferencePoint> points = new ArrayList<>();
        for (JsonNode each : node.path("points")) {
            points.add(new ReferencePoint(
                    Nodes.number(each, "raw"), Nodes.number(each, "reference"), Nodes.number(each, "uncertainty")));
        }
        return new Proof(
                node.path("epoch_seconds").asLong(),
                Nodes.choice(FitModel.class, Nodes.text(node, "model")),
                points,
                node.path("adopted").asBoolean(),
                Nodes.text(node, "unit"));
    }
}
