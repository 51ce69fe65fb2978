package zesty.signal.exchange.portable;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import zesty.signal.core.act.Rule;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.RecipeException;
import zesty.signal.core.fixed.FixedChain;
import zesty.signal.core.fixed.FixedException;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

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
     * @return the files' texts by name, in floating point
     * @throws PortableException when something cannot go onto a board, naming it
     */
    public static Map<String, String> files(Rig rig, List<Channel> channels) {
        return files(rig, channels, PortableRig::floating);
    }

    /**
     * @param channels one at least, of the rig
     * @param largest by column: how large its raw numbers come, where it has no converter; may lack any
     * @return the files' texts by name, in whole numbers
     * @throws PortableException when something cannot go onto a board, or not in whole numbers, naming it
     */
    public static Map<String, String> fixedFiles(Rig rig, List<Channel> channels, Map<String, Double> largest) {
        return files(
                rig,
                channels,
                (one, channel, name) -> fixed(
                        one, channel, name, chain(one, channel, largest.getOrDefault(channel.column(), Double.NaN))));
    }

    /** @throws PortableException when it cannot be computed in whole numbers, naming what */
    public static FixedChain chain(Rig rig, Channel channel, double largest) {
        if (!channel.scaling().columns().isEmpty()) {
            // The same refusal, in the same words.
            new ScalingCode(channel.column(), channel.scaling());
        }
        try {
            return new FixedChain(channel, rate(rig, channel), largest);
        } catch (FixedException | RecipeException e) {
            throw new PortableException(Messages.of("portable.in-whole-numbers", channel.column(), e.getMessage()));
        }
    }

    private static double rate(Rig rig, Channel channel) {
        return rig.sources().get(rig.sourceOf(channel.column())).setup().statedRateHz();
    }

    /** The places of a channel's two files, and how they are called. */
    private record Filled(String template, Map<String, String> values, List<String> rules) {}

    private interface Form {
        Filled of(Rig rig, Channel channel, String name);
    }

    private static Map<String, String> files(Rig rig, List<Channel> channels, Form form) {
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
            Filled filled = form.of(rig, channel, name);
            files.put(name + ".h", Template.of(filled.template() + ".h", filled.values()));
            files.put(name + ".c", Template.of(filled.template() + ".c", filled.values()));
            StringBuilder states = new StringBuilder();
            for (String rule : filled.rules()) {
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

    private static Map<String, String> common(Rig rig, Channel channel, String name, RuleCode rules) {
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
        String unit = channel.scaling().unit().isEmpty()
                ? "the column's own unit"
                : channel.scaling().unit();
        double rateHz = rate(rig, channel);
        Map<String, String> values = new LinkedHashMap<>();
        values.put("rig", Template.comment(rig.name()));
        values.put("column", Template.comment(channel.column()));
        values.put("name", name);
        values.put("guard", name.toUpperCase(Locale.ROOT) + "_H");
        values.put("unit", Template.comment(unit));
        values.put("rate", rateHz > 0 ? Template.comment(Digits.exact(rateHz) + " a second") : "at any rate");
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
        return values;
    }

    private static String helpers(Set<String> names) {
        // What others call comes first.
        return names.stream()
                .sorted(Comparator.comparing((String one) -> !one.equals("fixed_times.c")))
                .map(Template::text)
                .collect(Collectors.joining());
    }

    private static Filled floating(Rig rig, Channel channel, String name) {
        double rateHz = rate(rig, channel);
        RuleCode rules = new RuleCode(rig, channel, rateHz, new Arithmetic.Floating());
        ScalingCode scaling = new ScalingCode(channel.column(), channel.scaling());
        RecipeCode recipe = new RecipeCode(channel.column(), channel.recipe(), rateHz);
        Set<String> helpers = new TreeSet<>(scaling.helpers());
        helpers.addAll(recipe.helpers());
        helpers.addAll(rules.helpers());
        String body = scaling.body() + recipe.body();
        String help = helpers(helpers);
        boolean mathematics = (body + help).matches("(?s).*(NAN|log|pow|fabs|sqrt).*");
        Map<String, String> values = common(rig, channel, name, rules);
        values.put("state", recipe.state() + rules.state());
        values.put("includes", mathematics ? "#include <math.h>\n" : "");
        values.put("helpers", help);
        values.put("body", body);
        return new Filled("channel", values, rules.names());
    }

    private static Filled fixed(Rig rig, Channel channel, String name, FixedChain chain) {
        RuleCode rules = new RuleCode(rig, channel, rate(rig, channel), new Arithmetic.Whole(chain.fraction()));
        FixedCode code = new FixedCode(chain);
        Set<String> helpers = new TreeSet<>(code.helpers());
        helpers.addAll(rules.helpers());
        Map<String, String> values = common(rig, channel, name, rules);
        values.putAll(code.cost());
        values.put("state", code.state() + rules.state());
        values.put("helpers", helpers(helpers));
        values.put("body", code.body());
        values.put("error", String.format(Locale.ROOT, "%.2g", chain.error()));
        values.put("full", Template.comment(Digits.of(chain.fullScale())));
        values.put("low", String.valueOf(chain.rawLow()));
        values.put("high", String.valueOf(chain.rawHigh()));
        values.put("out_shift", String.valueOf(chain.fraction() - chain.outFraction()));
        values.put("raw_unit", Template.number(Math.scalb(1.0, chain.rawFraction())));
        values.put("out_unit", Template.number(Math.scalb(1.0, -chain.outFraction())));
        values.put("y_unit", "2^" + -chain.fraction());
        values.put(
                "raw_words",
                chain.rawFraction() == 0 ? "counts" : "2^" + -chain.rawFraction() + " of the column's unit");
        return new Filled("channel_fixed", values, rules.names());
    }
}
