package zesty.signal.exchange.portable;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import zesty.signal.core.act.Rule;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Digits;

/** Channels of a rig as C99: a pair of files each, and a program that runs numbers through them. */
public final class PortableRig {
    private PortableRig() {}

    /** @return channels of a rig that have something to carry: a scaling, a recipe or a rule */
    public static List<Channel> worthCarrying(Rig rig) {
        return rig.channels().stream()
                .filter(one ->
                        !one.scaling().isAsItCame() || !one.recipe().equals(Recipe.NONE) || RuleCode.any(rig, one))
                .toList();
    }

    /** @return the rules of a rig on one channel, in the order in which {@code run.c} prints their states */
    public static List<Rule> rules(Rig rig, Channel channel) {
        return RuleCode.rules(rig, channel);
    }

    /**
     * @param channels one at least, of the rig
     * @return the files' texts by name
     * @throws PortableException when something cannot go onto a board, naming it
     */
    public static Map<String, String> files(Rig rig, List<Channel> channels) {
        Map<String, String> files = new LinkedHashMap<>();
        Set<String> taken = new HashSet<>(Set.of("run"));
        List<String> names = new ArrayList<>();
        StringBuilder includes = new StringBuilder();
        StringBuilder runners = new StringBuilder();
        StringBuilder choices = new StringBuilder();
        for (Channel channel : channels) {
            String plain = Template.identifier(channel.column());
            String name = plain;
            for (int n = 2; !taken.add(name); n++) {
                name = plain + "_" + n;
            }
            names.add(name);
            double rate =
                    rig.sources().get(rig.sourceOf(channel.column())).setup().statedRateHz();
            RuleCode rules = new RuleCode(rig, channel, rate);
            files.putAll(channel(rig, channel, name, rate, rules));
            StringBuilder states = new StringBuilder();
            for (String rule : rules.names()) {
                states.append("        printf(\",%d\", ")
                        .append(name)
                        .append('_')
                        .append(rule)
                        .append("(&state));\n");
            }
            includes.append("#include \"").append(name).append(".h\"\n");
            runners.append(Template.of("runner.c", Map.of("name", name, "states", states.toString())));
            choices.append("    if (strcmp(wanted, \"").append(name).append("\") == 0) {\n        return run_");
            choices.append(name).append("();\n    }\n");
        }
        files.put(
                "run.c",
                Template.of(
                        "run.c",
                        Map.of(
                                "first", names.get(0),
                                "includes", includes.toString(),
                                "runners", runners.toString(),
                                "choices", choices.toString())));
        return files;
    }

    private static Map<String, String> channel(Rig rig, Channel channel, String name, double rateHz, RuleCode rules) {
        ScalingCode scaling = new ScalingCode(channel.column(), channel.scaling());
        RecipeCode recipe = new RecipeCode(channel.column(), channel.recipe(), rateHz);
        Set<String> helpers = new TreeSet<>(scaling.helpers());
        helpers.addAll(recipe.helpers());
        helpers.addAll(rules.helpers());
        StringBuilder asked = new StringBuilder();
        StringBuilder answers = new StringBuilder();
        for (int r = 0; r < rules.names().size(); r++) {
            String head = "bool " + name + "_" + rules.names().get(r) + "(const " + name + "_state *s)";
            asked.append("\n/* Whether the rule is on. */\n").append(head).append(";\n");
            answers.append("\n")
                    .append(head)
                    .append("\n{\n    return (s->rule_flags[")
                    .append(r)
                    .append("] & 1) != 0;\n}\n");
        }
        StringBuilder help = new StringBuilder();
        helpers.forEach(one -> help.append(Template.text(one)));
        String body = scaling.body() + recipe.body();
        boolean mathematics = (body + help).matches("(?s).*(NAN|log|pow|fabs|sqrt).*");
        String unit = channel.scaling().unit().isEmpty()
                ? "the column's own unit"
                : channel.scaling().unit();
        Map<String, String> values = new LinkedHashMap<>();
        values.put("rig", Template.comment(rig.name()));
        values.put("column", Template.comment(channel.column()));
        values.put("name", name);
        values.put("guard", name.toUpperCase(Locale.ROOT) + "_H");
        values.put("unit", Template.comment(unit));
        values.put("rate", rateHz > 0 ? Template.comment(Digits.exact(rateHz) + " a second") : "at any rate");
        values.put("state", recipe.state() + rules.state());
        values.put("types", rules.names().isEmpty() ? "" : "#include <stdbool.h>\n\n");
        values.put("rules", rules.body());
        values.put("asked", asked.toString());
        values.put("answers", answers.toString());
        values.put("scaling", Template.comment(channel.scaling().conversion().words()));
        values.put(
                "recipe",
                channel.recipe().steps().isEmpty()
                        ? "none"
                        : Template.comment(channel.recipe().text()));
        values.put("includes", mathematics ? "#include <math.h>\n" : "");
        values.put("helpers", help.toString());
        values.put("body", body);
        Map<String, String> files = new LinkedHashMap<>();
        files.put(name + ".h", Template.of("channel.h", values));
        files.put(name + ".c", Template.of("channel.c", values));
        return files;
    }
}
