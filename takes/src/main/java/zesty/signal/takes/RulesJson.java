package zesty.signal.takes;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Deed;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.Profile;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.RuleBook;
import zesty.signal.core.act.Watch;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.OutputUse;
import zesty.signal.core.rig.WatchCheck;
import zesty.signal.core.text.Messages;

/** Rules and outputs as JSON. A key that there is not is refused, so that no slip of the pen decides nothing in silence. */
public final class RulesJson {
    static final double WINDOW_SECONDS = 10;
    static final double PERIOD_SECONDS = 0.05;
    private static final List<String> HOLDS = List.of("hysteresis", "for_s", "off_for_s", "dead_s", "latch");
    /** By what it is: the keys of its numbers. */
    private static final Map<String, List<String>> WHEN = Map.of(
            "above", List.of("limit"),
            "below", List.of("limit"),
            "inside", List.of("low", "high"),
            "outside", List.of("low", "high"),
            "rising", List.of("limit", "over_s"),
            "falling", List.of("limit", "over_s"),
            "silent", List.of("for_s"),
            "event", List.of("count", "within_s"));

    private RulesJson() {}

    /** @param where it comes from, for what is said. @throws TakeException when it makes no sense, saying what and where */
    public static RuleBook read(String text, String where) throws TakeException {
        return Nodes.reading(where, () -> {
            JsonNode root = Nodes.strict().readTree(text);
            if (root == null || !root.isObject()) {
                throw new IllegalArgumentException(Messages.of("takes.rules-are-an-object-rules-outputs"));
            }
            return setup(root).inForce();
        });
    }

    /** @return what a rig decides and drives, of a node such as a file of rules is. @throws IllegalArgumentException as said */
    static ActSetup setup(JsonNode root) {
        keys(root, Messages.of("takes.the-book"), List.of("rules", "outputs", "profiles", "profile"));
        List<Rule> rules = new ArrayList<>();
        Map<String, Set<Deed>> deeds = new TreeMap<>();
        Set<String> inPercent = new TreeSet<>();
        for (JsonNode node : list(root, "rules")) {
            Rule rule = named(node, Messages.of("takes.rule"), RulesJson::rule);
            rules.add(rule);
            Set<Deed> done = EnumSet.noneOf(Deed.class);
            texts(list(node, "do")).forEach(word -> done.add(Nodes.choice(Deed.class, word)));
            deeds.put(rule.name(), done);
            if (flag(node, "percent")) {
                inPercent.add(rule.name());
            }
        }
        List<Output> outputs = new ArrayList<>();
        Map<String, OutputUse> uses = new TreeMap<>();
        for (JsonNode node : list(root, "outputs")) {
            Output output = named(node, Messages.of("takes.output"), RulesJson::output);
            outputs.add(output);
            if (flag(node, "percent")) {
                inPercent.add(output.name());
            }
            uses.put(
                    output.name(),
                    new OutputUse(
                            node.path("to").asText(""),
                            flag(node, "live"),
                            node.has("caution") ? Nodes.choice(Caution.class, Nodes.text(node, "caution")) : null,
                            node.has("watchdog") ? Nodes.text(node, "watchdog") : ""));
        }
        List<Profile> profiles = new ArrayList<>();
        for (JsonNode node : list(root, "profiles")) {
            keys(node, Messages.of("takes.a-profile"), List.of("name", "spans"));
            List<Profile.Span> spans = new ArrayList<>();
            for (JsonNode span : list(node, "spans")) {
                keys(span, Messages.of("takes.a-span"), List.of("watch", "rest", "full"));
                spans.add(new Profile.Span(watch(span), Nodes.number(span, "rest"), Nodes.number(span, "full")));
            }
            profiles.add(new Profile(Nodes.text(node, "name"), spans));
        }
        return new ActSetup(
                new RuleBook(rules, outputs),
                deeds,
                inPercent,
                uses,
                profiles,
                root.path("profile").asText(""));
    }

    private interface Part<T> {
        T of(JsonNode node, String name);
    }

    private static <T> T named(JsonNode node, String what, Part<T> part) {
        if (!node.isObject()) {
            throw new IllegalArgumentException(Messages.of("takes.a-is-an-object-was", what, node));
        }
        String name = Nodes.text(node, "name");
        try {
            return part.of(node, name);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(what + " '" + name + "': " + e.getMessage(), e);
        }
    }

    private static JsonNode list(JsonNode node, String key) {
        JsonNode list = node.path(key);
        if (!list.isMissingNode() && !list.isArray()) {
            throw new IllegalArgumentException(Messages.of("takes.must-be-a-list-was", key, list));
        }
        return list;
    }

    private static void keys(JsonNode node, String what, List<String> known) {
        node.fieldNames().forEachRemaining(key -> {
            if (!known.contains(key)) {
                throw new IllegalArgumentException(
                        Messages.of("takes.is-no-key-of-there-are", key, what, String.join(", ", known)));
            }
        });
    }

    private static List<String> with(List<String> some, String... more) {
        List<String> all = new ArrayList<>(some);
        all.addAll(List.of(more));
        return all;
    }

    private static double or(JsonNode node, String key, double usual) {
        return node.has(key) ? Nodes.number(node, key) : usual;
    }

    private static boolean flag(JsonNode node, String key) {
        if (node.has(key) && !node.path(key).isBoolean()) {
            throw new IllegalArgumentException(Messages.of("takes.must-be-true-or-false-was", key, node.path(key)));
        }
        return node.path(key).asBoolean(false);
    }

    private static Rule rule(JsonNode node, String name) {
        for (Rule.Together how : Rule.Together.values()) {
            String key = Nodes.lower(how);
            if (node.has(key)) {
                keys(
                        node,
                        Messages.of("takes.a-rule-made-of-others"),
                        how == Rule.Together.THEN
                                ? List.of("name", "do", key, "within_s")
                                : List.of("name", "do", key));
                List<String> parts = how == Rule.Together.NOT ? List.of(Nodes.text(node, key)) : texts(list(node, key));
                double within = how == Rule.Together.THEN ? Nodes.number(node, "within_s") : 0;
                return new Rule.Made(name, how, parts, within);
            }
        }
        Watch watch = watch(node);
        if (node.has("bands")) {
            keys(
                    node,
                    Messages.of("takes.a-rule-of-bands"),
                    List.of("name", "do", "watch", "bands", "hysteresis", "least_s"));
            double[] edges = numbers(list(node, "bands"));
            return new Rule.InBands(name, watch, edges, or(node, "hysteresis", 0), or(node, "least_s", 0));
        }
        String when = Nodes.text(node, "when");
        List<String> own = WHEN.get(when);
        if (own == null) {
            throw new IllegalArgumentException(Messages.of("takes.when-is-one-of-above-below-inside", when));
        }
        keys(
                node,
                Messages.of("takes.a-rule-with", when),
                with(with(HOLDS, "name", "watch", "when", "do", "percent"), own.toArray(String[]::new)));
        boolean silent = when.equals("silent");
        Rule.Holds holds = new Rule.Holds(
                silent ? 0 : or(node, "for_s", 0),
                or(node, "off_for_s", 0),
                or(node, "dead_s", 0),
                flag(node, "latch"));
        return new Rule.OnSamples(name, watch, condition(node, when), or(node, "hysteresis", 0), holds);
    }

    private static List<String> texts(JsonNode list) {
        List<String> texts = new ArrayList<>();
        for (JsonNode one : list) {
            if (!one.isTextual()) {
                throw new IllegalArgumentException(Messages.of("takes.names-of-rules-are-needed-was", one));
            }
            texts.add(one.asText());
        }
        return texts;
    }

    private static Condition condition(JsonNode node, String when) {
        return switch (when) {
            case "above" -> new Condition.Above(Nodes.number(node, "limit"));
            case "below" -> new Condition.Below(Nodes.number(node, "limit"));
            case "inside" -> new Condition.Inside(Nodes.number(node, "low"), Nodes.number(node, "high"));
            case "outside" -> new Condition.Outside(Nodes.number(node, "low"), Nodes.number(node, "high"));
            case "rising" -> new Condition.Rising(Nodes.number(node, "limit"), Nodes.number(node, "over_s"));
            case "falling" -> new Condition.Falling(Nodes.number(node, "limit"), Nodes.number(node, "over_s"));
            case "silent" -> new Condition.Silent(Nodes.number(node, "for_s"));
            default -> new Condition.Events(Nodes.whole(node, "count"), Nodes.number(node, "within_s"));
        };
    }

    private static double[] numbers(JsonNode list) {
        double[] numbers = new double[list.size()];
        for (int i = 0; i < numbers.length; i++) {
            if (!list.get(i).isNumber()) {
                throw new IllegalArgumentException(Messages.of("takes.numbers-are-needed-was", list.get(i)));
            }
            numbers[i] = list.get(i).asDouble();
        }
        return numbers;
    }

    private static Watch watch(JsonNode node) {
        JsonNode watch = node.path("watch");
        if (!watch.isObject()) {
            throw new IllegalArgumentException(Messages.of("takes.watch-must-be-column-name-or", watch));
        }
        if (!watch.has("reader")) {
            keys(watch, Messages.of("takes.a-watched-column"), List.of("column"));
            return new Watch.Column(Nodes.text(watch, "column"));
        }
        keys(watch, Messages.of("takes.a-watched-reader"), List.of("reader", "column", "set", "number", "window_s"));
        Map<String, String> settings = new TreeMap<>();
        for (Map.Entry<String, JsonNode> one : watch.path("set").properties()) {
            settings.put(one.getKey(), one.getValue().asText());
        }
        double window = watch.has("window_s") ? Nodes.number(watch, "window_s") : or(node, "window_s", WINDOW_SECONDS);
        Watch.Number number = new Watch.Number(
                Nodes.text(watch, "reader"),
                Nodes.text(watch, "column"),
                settings,
                watch.has("number") ? Nodes.text(watch, "number") : "",
                window);
        WatchCheck.check(number);
        return number;
    }

    private static Output output(JsonNode node, String name) {
        String safe = Nodes.text(node, "safe");
        if (node.has("rule")) {
            keys(
                    node,
                    Messages.of("takes.an-output-by-a-rule"),
                    List.of("name", "safe", "rule", "on", "off", "longest_on_s", "to", "live", "caution", "watchdog"));
            return new Output.ByRule(
                    name,
                    safe,
                    Nodes.text(node, "rule"),
                    Nodes.text(node, "on"),
                    Nodes.text(node, "off"),
                    or(node, "longest_on_s", Double.POSITIVE_INFINITY));
        }
        keys(
                node,
                Messages.of("takes.an-output-by-a-value"),
                List.of(
                        "name",
                        "safe",
                        "watch",
                        "map",
                        "smooth_s",
                        "slew_per_s",
                        "dead_zone",
                        "period_s",
                        "line",
                        "to",
                        "live",
                        "percent",
                        "watchdog",
                        "caution"));
        JsonNode points = list(node, "map");
        double[][] map = new double[points.size()][];
        for (int i = 0; i < map.length; i++) {
            map[i] = numbers(points.get(i));
            if (map[i].length != 2) {
                throw new IllegalArgumentException(Messages.of("takes.map-is-a-list-of-in-out-was", points));
            }
        }
        return new Output.ByValue(
                name,
                safe,
                watch(node),
                map,
                or(node, "smooth_s", 0),
                or(node, "slew_per_s", Double.POSITIVE_INFINITY),
                or(node, "dead_zone", 0),
                or(node, "period_s", PERIOD_SECONDS),
                Nodes.text(node, "line"));
    }
}
