package zesty.signal.takes;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.TreeMap;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.Profile;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.Watch;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.rig.OutputUse;

/** Writes what a rig decides and drives as {@link RulesJson} reads it; what is as usual is left out. */
final class RulesOut {
    private RulesOut() {}

    static void put(ObjectNode root, ActSetup setup) {
        ArrayNode rules = root.putArray("rules");
        setup.book().rules().forEach(rule -> {
            ObjectNode node = rules.addObject().put("name", rule.name());
            rule(node, rule);
            if (setup.inPercent().contains(rule.name())) {
                node.put("percent", true);
            }
            setup.deedsOf(rule.name()).stream().sorted().forEach(deed -> node.withArray("do")
                    .add(Nodes.lower(deed)));
        });
        ArrayNode outputs = root.putArray("outputs");
        setup.book().outputs().forEach(output -> {
            ObjectNode node = outputs.addObject().put("name", output.name()).put("safe", output.safe());
            output(node, output);
            if (setup.inPercent().contains(output.name())) {
                node.put("percent", true);
            }
            OutputUse use = setup.use(output.name());
            if (!use.source().isEmpty()) {
                node.put("to", use.source());
            }
            if (use.live()) {
                node.put("live", true);
            }
            if (!use.watchdog().isEmpty()) {
                node.put("watchdog", use.watchdog());
            }
            use.takesCare().ifPresent(caution -> node.put("caution", Nodes.lower(caution)));
        });
        for (Profile profile : setup.profiles()) {
            ObjectNode node = root.withArray("profiles").addObject().put("name", profile.name());
            ArrayNode spans = node.putArray("spans");
            for (Profile.Span span : profile.spans()) {
                ObjectNode one = spans.addObject();
                watch(one, span.watch());
                one.put("rest", span.rest()).put("full", span.full());
            }
        }
        if (!setup.profile().isEmpty()) {
            root.put("profile", setup.profile());
        }
    }

    private static void rule(ObjectNode node, Rule rule) {
        if (rule instanceof Rule.Made made) {
            String key = Nodes.lower(made.how());
            if (made.how() == Rule.Together.NOT) {
                node.put(key, made.parts().get(0));
            } else {
                made.parts().forEach(node.withArray(key)::add);
            }
            if (made.how() == Rule.Together.THEN) {
                node.put("within_s", made.withinSeconds());
            }
        } else if (rule instanceof Rule.InBands bands) {
            watch(node, bands.watch());
            for (double edge : bands.edges()) {
                node.withArray("bands").add(edge);
            }
            unlessNothing(node, "hysteresis", bands.hysteresis());
            unlessNothing(node, "least_s", bands.leastSeconds());
        } else if (rule instanceof Rule.OnSamples one) {
            watch(node, one.watch());
            condition(node, one.when());
            unlessNothing(node, "hysteresis", one.hysteresis());
            unlessNothing(node, "for_s", one.holds().forSeconds());
            unlessNothing(node, "off_for_s", one.holds().offForSeconds());
            unlessNothing(node, "dead_s", one.holds().deadSeconds());
            if (one.holds().latch()) {
                node.put("latch", true);
            }
        }
    }

    private static void condition(ObjectNode node, Condition when) {
        if (when instanceof Condition.Above one) {
            node.put("when", "above").put("limit", one.limit());
        } else if (when instanceof Condition.Below one) {
            node.put("when", "below").put("limit", one.limit());
        } else if (when instanceof Condition.Inside one) {
            node.put("when", "inside").put("low", one.low()).put("high", one.high());
        } else if (when instanceof Condition.Outside one) {
            node.put("when", "outside").put("low", one.low()).put("high", one.high());
        } else if (when instanceof Condition.Rising one) {
            node.put("when", "rising").put("limit", one.limit()).put("over_s", one.overSeconds());
        } else if (when instanceof Condition.Falling one) {
            node.put("when", "falling").put("limit", one.limit()).put("over_s", one.overSeconds());
        } else if (when instanceof Condition.Silent one) {
            node.put("when", "silent").put("for_s", one.forSeconds());
        } else if (when instanceof Condition.Events one) {
            node.put("when", "event").put("count", one.count()).put("within_s", one.withinSeconds());
        }
    }

    private static void output(ObjectNode node, Output output) {
        if (output instanceof Output.ByRule one) {
            node.put("rule", one.rule()).put("on", one.on()).put("off", one.off());
            if (one.longestOnSeconds() < Double.POSITIVE_INFINITY) {
                node.put("longest_on_s", one.longestOnSeconds());
            }
        } else if (output instanceof Output.ByValue one) {
            watch(node, one.watch());
            for (double[] point : one.map()) {
                node.withArray("map").addArray().add(point[0]).add(point[1]);
            }
            unlessNothing(node, "smooth_s", one.smoothSeconds());
            if (one.slewPerSecond() < Double.POSITIVE_INFINITY) {
                node.put("slew_per_s", one.slewPerSecond());
            }
            unlessNothing(node, "dead_zone", one.deadZone());
            node.put("period_s", one.periodSeconds()).put("line", one.line());
        }
    }

    private static void watch(ObjectNode node, Watch watch) {
        ObjectNode of = node.putObject("watch");
        if (watch instanceof Watch.Column column) {
            of.put("column", column.name());
        } else if (watch instanceof Watch.Number number) {
            of.put("reader", number.kind()).put("column", number.column());
            if (!number.settings().isEmpty()) {
                ObjectNode set = of.putObject("set");
                new TreeMap<>(number.settings()).forEach(set::put);
            }
            if (!number.number().isEmpty()) {
                of.put("number", number.number());
            }
            if (number.windowSeconds() != RulesJson.WINDOW_SECONDS) {
                of.put("window_s", number.windowSeconds());
            }
        }
    }

    private static void unlessNothing(ObjectNode node, String key, double value) {
        if (value != 0) {
            node.put(key, value);
        }
    }
}
