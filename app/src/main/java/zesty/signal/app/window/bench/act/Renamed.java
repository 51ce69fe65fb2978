package zesty.signal.app.window.bench.act;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import zesty.signal.core.act.Deed;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.RuleBook;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.rig.OutputUse;

/** Rules and outputs under other names: what goes by them goes along. */
final class Renamed {
    private Renamed() {}

    /** @throws IllegalArgumentException when there is one of that name */
    static ActSetup rule(ActSetup act, String was, String name) {
        List<Rule> rules = new ArrayList<>();
        for (Rule rule : act.book().rules()) {
            String own = rule.name().equals(was) ? name : rule.name();
            if (rule instanceof Rule.OnSamples one) {
                rules.add(RuleEdits.named(one, own));
            } else if (rule instanceof Rule.InBands one) {
                rules.add(new Rule.InBands(own, one.watch(), one.edges(), one.hysteresis(), one.leastSeconds()));
            } else {
                Rule.Made one = (Rule.Made) rule;
                List<String> parts =
                        one.parts().stream().map(p -> p.equals(was) ? name : p).toList();
                rules.add(new Rule.Made(own, one.how(), parts, one.withinSeconds()));
            }
        }
        List<Output> outputs = new ArrayList<>();
        for (Output output : act.book().outputs()) {
            outputs.add(
                    output instanceof Output.ByRule one && one.rule().equals(was)
                            ? new Output.ByRule(
                                    one.name(), one.safe(), name, one.on(), one.off(), one.longestOnSeconds())
                            : output);
        }
        Map<String, Set<Deed>> deeds = new HashMap<>(act.deeds());
        if (deeds.containsKey(was)) {
            deeds.put(name, deeds.remove(was));
        }
        Set<String> percent = new HashSet<>(act.inPercent());
        if (percent.remove(was)) {
            percent.add(name);
        }
        return new ActSetup(new RuleBook(rules, outputs), deeds, percent, act.uses(), act.profiles(), act.profile());
    }

    /** @throws IllegalArgumentException when there is one of that name */
    static ActSetup output(ActSetup act, String was, String name) {
        List<Output> outputs = new ArrayList<>();
        for (Output output : act.book().outputs()) {
            outputs.add(output.name().equals(was) ? NewParts.named(output, name) : output);
        }
        Map<String, OutputUse> uses = new HashMap<>(act.uses());
        uses.put(name, act.use(was));
        return new ActSetup(
                new RuleBook(act.book().rules(), outputs),
                act.deeds(),
                act.inPercent(),
                uses,
                act.profiles(),
                act.profile());
    }
}
