package zesty.signal.core.act;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import zesty.signal.core.text.Messages;

/** Rules and outputs that belong together: each name once, and each rule made of rules above it. Immutable. */
public record RuleBook(List<Rule> rules, List<Output> outputs) {
    /** @throws IllegalArgumentException when a name is there twice or names nothing, saying which */
    public RuleBook {
        rules = List.copyOf(rules);
        outputs = List.copyOf(outputs);
        Set<String> plain = new HashSet<>();
        Set<String> all = new HashSet<>();
        for (Rule rule : rules) {
            if (rule.name().isBlank() || all.contains(rule.name())) {
                throw new IllegalArgumentException(
                        rule.name().isBlank()
                                ? Messages.of("act.a-rule-needs-a-name")
                                : Messages.of("act.two-rules-are-called", rule.name()));
            }
            if (rule instanceof Rule.Made made) {
                made.parts().forEach(part -> known(rule.name(), part, plain, all));
            }
            all.add(rule.name());
            if (!(rule instanceof Rule.InBands)) {
                plain.add(rule.name());
            }
        }
        Set<String> names = new HashSet<>();
        for (Output output : outputs) {
            if (output.name().isBlank() || !names.add(output.name())) {
                throw new IllegalArgumentException(
                        output.name().isBlank()
                                ? Messages.of("act.an-output-needs-a-name")
                                : Messages.of("act.two-outputs-are-called", output.name()));
            }
            if (output instanceof Output.ByRule one) {
                known(output.name(), one.rule(), plain, all);
            }
        }
    }

    private static void known(String who, String named, Set<String> plain, Set<String> all) {
        if (!plain.contains(named)) {
            throw new IllegalArgumentException(Messages.of(
                    "act.names-the-rule",
                    who,
                    named,
                    (all.contains(named)
                            ? Messages.of("act.which-is-a-band-s-number-not-on-or")
                            : Messages.of("act.which-does-not-stand-above-it"))));
        }
    }

    /** @return what is watched, each once, in the order of the rules and then the outputs */
    public List<Watch> watches() {
        List<Watch> watches = new ArrayList<>();
        for (Rule rule : rules) {
            if (rule instanceof Rule.OnSamples one) {
                add(watches, one.watch());
            } else if (rule instanceof Rule.InBands one) {
                add(watches, one.watch());
            }
        }
        for (Output output : outputs) {
            if (output instanceof Output.ByValue one) {
                add(watches, one.watch());
            }
        }
        return watches;
    }

    /** @return the same rules and outputs, looking at what the change makes of what they look at */
    public RuleBook watching(UnaryOperator<Watch> change) {
        List<Rule> others = new ArrayList<>();
        for (Rule rule : rules) {
            if (rule instanceof Rule.OnSamples one) {
                others.add(new Rule.OnSamples(
                        one.name(), change.apply(one.watch()), one.when(), one.hysteresis(), one.holds()));
            } else if (rule instanceof Rule.InBands one) {
                others.add(new Rule.InBands(
                        one.name(), change.apply(one.watch()), one.edges(), one.hysteresis(), one.leastSeconds()));
            } else {
                others.add(rule);
            }
        }
        List<Output> driven = new ArrayList<>();
        for (Output output : outputs) {
            driven.add(
                    output instanceof Output.ByValue one
                            ? new Output.ByValue(
                                    one.name(),
                                    one.safe(),
                                    change.apply(one.watch()),
                                    one.map(),
                                    one.smoothSeconds(),
                                    one.slewPerSecond(),
                                    one.deadZone(),
                                    one.periodSeconds(),
                                    one.line())
                            : output);
        }
        return new RuleBook(others, driven);
    }

    private static void add(List<Watch> watches, Watch watch) {
        if (!watches.contains(watch)) {
            watches.add(watch);
        }
    }
}
