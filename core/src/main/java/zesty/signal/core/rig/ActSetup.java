package zesty.signal.core.rig;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Deed;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.Profile;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.RuleBook;
import zesty.signal.core.act.Watch;
import zesty.signal.core.text.Messages;

/**
 * What a rig decides and drives. Longer than others: a value with one small method for each thing that a maker changes.
 *
 * @param book rules and outputs as they are written; the limits of those in percent are percents
 * @param deeds by a rule's name what is done when it turns on
 * @param inPercent names of the rules whose limits are percents of the chosen profile, and of the outputs whose map begins with such
 * @param uses by an output's name how it is used; a dry run where none is given
 * @param profile name of the chosen one; empty for none
 */
public record ActSetup(
        RuleBook book,
        Map<String, Set<Deed>> deeds,
        Set<String> inPercent,
        Map<String, OutputUse> uses,
        List<Profile> profiles,
        String profile) {
    public static final ActSetup NONE =
            new ActSetup(new RuleBook(List.of(), List.of()), Map.of(), Set.of(), Map.of(), List.of(), "");

    /** @throws IllegalArgumentException where a profile's name is there twice, or the chosen one is not */
    public ActSetup {
        Map<String, Set<Deed>> done = new TreeMap<>();
        Set<String> names = Set.copyOf(book.rules().stream().map(Rule::name).toList());
        deeds.forEach((name, some) -> {
            if (names.contains(name) && !some.isEmpty()) {
                done.put(name, Set.copyOf(some));
            }
        });
        deeds = Map.copyOf(done);
        List<String> outputs = book.outputs().stream().map(Output::name).toList();
        inPercent = Set.copyOf(inPercent.stream()
                .filter(name -> names.contains(name) || outputs.contains(name))
                .toList());
        Map<String, OutputUse> used = new HashMap<>();
        for (Output output : book.outputs()) {
            used.put(output.name(), uses.getOrDefault(output.name(), OutputUse.DRY));
        }
        uses = Map.copyOf(used);
        profiles = List.copyOf(profiles);
        if (profiles.stream().map(Profile::name).distinct().count() < profiles.size()) {
            throw new IllegalArgumentException(Messages.of("rig.two-profiles-have-the-same-name"));
        }
        String chosen = profile;
        if (!chosen.isEmpty() && profiles.stream().noneMatch(one -> one.name().equals(chosen))) {
            throw new IllegalArgumentException(Messages.of(
                    "rig.there-is-no-profile-there-are",
                    chosen,
                    profiles.stream().map(Profile::name).toList()));
        }
    }

    public boolean isNone() {
        // What else it has is by the names of rules and outputs.
        return book.rules().isEmpty() && book.outputs().isEmpty() && profiles.isEmpty() && profile.isEmpty();
    }

    /** @return what the program does when a rule turns on */
    public Set<Deed> deedsOf(String rule) {
        return deeds.getOrDefault(rule, Set.of());
    }

    /** @return how an output is used */
    public OutputUse use(String output) {
        return uses.getOrDefault(output, OutputUse.DRY);
    }

    /** @return the chosen profile */
    public Optional<Profile> chosen() {
        return profiles.stream().filter(one -> one.name().equals(profile)).findFirst();
    }

    /** @return the rules that a controller goes by: percents are values by the chosen profile, NaN where it knows none */
    public RuleBook inForce() {
        if (inPercent.isEmpty()) {
            return book;
        }
        List<Rule> rules = new ArrayList<>();
        for (Rule rule : book.rules()) {
            rules.add(inPercent.contains(rule.name()) ? inValues(rule) : rule);
        }
        List<Output> outputs = new ArrayList<>();
        for (Output output : book.outputs()) {
            outputs.add(
                    output instanceof Output.ByValue one && inPercent.contains(one.name()) ? inValues(one) : output);
        }
        return new RuleBook(rules, outputs);
    }

    private Output inValues(Output.ByValue one) {
        Profile.Span span = chosen().flatMap(p -> p.of(one.watch())).orElse(null);
        double[][] map = new double[one.map().length][];
        for (int i = 0; i < map.length; i++) {
            map[i] = new double[] {span == null ? 0 : span.at(one.map()[i][0]), one.map()[i][1]};
        }
        if (span == null) {
            // Where nothing is measured it stays at its first end.
            map = map.length == 0 ? map : new double[][] {map[0]};
        } else if (map.length > 1 && map[1][0] < map[0][0]) {
            Collections.reverse(Arrays.asList(map));
        }
        return new Output.ByValue(
                one.name(),
                one.safe(),
                one.watch(),
                map,
                one.smoothSeconds(),
                one.slewPerSecond(),
                one.deadZone(),
                one.periodSeconds(),
                one.line());
    }

    /** @return the span of the chosen profile that a rule in percent goes by */
    public Optional<Profile.Span> span(Rule rule) {
        return rule instanceof Rule.OnSamples one ? chosen().flatMap(p -> p.of(one.watch())) : Optional.empty();
    }

    private Rule inValues(Rule rule) {
        if (!(rule instanceof Rule.OnSamples one)) {
            return rule;
        }
        Profile.Span span = span(one).orElse(null);
        if (span == null) {
            // Nothing is above or below a limit that is not known.
            return new Rule.OnSamples(one.name(), one.watch(), new Condition.Above(Double.NaN), 0, one.holds());
        }
        Condition when = one.when();
        if (when instanceof Condition.Above above) {
            when = new Condition.Above(span.at(above.limit()));
        } else if (when instanceof Condition.Below below) {
            when = new Condition.Below(span.at(below.limit()));
        } else if (when instanceof Condition.Inside inside) {
            when = new Condition.Inside(
                    low(span, inside.low(), inside.high()), high(span, inside.low(), inside.high()));
        } else if (when instanceof Condition.Outside outside) {
            when = new Condition.Outside(
                    low(span, outside.low(), outside.high()), high(span, outside.low(), outside.high()));
        }
        return new Rule.OnSamples(one.name(), one.watch(), when, span.width(one.hysteresis()), one.holds());
    }

    private static double low(Profile.Span span, double low, double high) {
        return Math.min(span.at(low), span.at(high));
    }

    private static double high(Profile.Span span, double low, double high) {
        return Math.max(span.at(low), span.at(high));
    }

    public ActSetup withBook(RuleBook other) {
        return new ActSetup(other, deeds, inPercent, uses, profiles, profile);
    }

    /** @return the same setup with a rule changed, or, where there is none of that name, with one more */
    public ActSetup withRule(Rule rule) {
        List<Rule> rules = new ArrayList<>(book.rules());
        boolean there = rules.stream().anyMatch(one -> one.name().equals(rule.name()));
        if (there) {
            rules.replaceAll(one -> one.name().equals(rule.name()) ? rule : one);
        } else {
            rules.add(rule);
        }
        return withBook(new RuleBook(rules, book.outputs()));
    }

    /** @return the same setup without a rule, the rules made of it and the outputs driven by any of these */
    public ActSetup withoutRule(String name) {
        List<Rule> left = new ArrayList<>();
        Set<String> gone = new java.util.HashSet<>(Set.of(name));
        for (Rule rule : book.rules()) {
            boolean made = rule instanceof Rule.Made one && one.parts().stream().anyMatch(gone::contains);
            if (made || gone.contains(rule.name())) {
                gone.add(rule.name());
            } else {
                left.add(rule);
            }
        }
        List<Output> outputs = book.outputs().stream()
                .filter(output -> !(output instanceof Output.ByRule one && gone.contains(one.rule())))
                .toList();
        return withBook(new RuleBook(left, outputs));
    }

    /** @return the same setup with an output changed, or one more */
    public ActSetup withOutput(Output output, OutputUse use) {
        List<Output> outputs = new ArrayList<>(book.outputs());
        boolean there = outputs.stream().anyMatch(one -> one.name().equals(output.name()));
        if (there) {
            outputs.replaceAll(one -> one.name().equals(output.name()) ? output : one);
        } else {
            outputs.add(output);
        }
        Map<String, OutputUse> more = new HashMap<>(uses);
        more.put(output.name(), use);
        return new ActSetup(new RuleBook(book.rules(), outputs), deeds, inPercent, more, profiles, profile);
    }

    public ActSetup withUse(String output, UnaryOperator<OutputUse> change) {
        Map<String, OutputUse> more = new HashMap<>(uses);
        more.put(output, change.apply(use(output)));
        return new ActSetup(book, deeds, inPercent, more, profiles, profile);
    }

    public ActSetup withoutOutput(String name) {
        return withBook(new RuleBook(
                book.rules(),
                book.outputs().stream().filter(o -> !o.name().equals(name)).toList()));
    }

    public ActSetup withDeed(String rule, Deed deed, boolean done) {
        Map<String, Set<Deed>> more = new HashMap<>(deeds);
        Set<Deed> own = EnumSet.noneOf(Deed.class);
        own.addAll(deedsOf(rule));
        if (done) {
            own.add(deed);
        } else {
            own.remove(deed);
        }
        more.put(rule, own);
        return new ActSetup(book, more, inPercent, uses, profiles, profile);
    }

    /** @return the same setup in which the limits of a rule are percents, or no longer */
    public ActSetup withPercent(String rule, boolean percent) {
        Set<String> more = new java.util.HashSet<>(inPercent);
        if (percent) {
            more.add(rule);
        } else {
            more.remove(rule);
        }
        return new ActSetup(book, deeds, more, uses, profiles, profile);
    }

    /** @return the same setup with a profile put in or changed, and chosen */
    public ActSetup withProfile(Profile other) {
        List<Profile> more = new ArrayList<>(profiles);
        boolean there = more.stream().anyMatch(one -> one.name().equals(other.name()));
        if (there) {
            more.replaceAll(one -> one.name().equals(other.name()) ? other : one);
        } else {
            more.add(other);
        }
        return new ActSetup(book, deeds, inPercent, uses, more, other.name());
    }

    /** @param name of the profile that is in force from here on; empty for none */
    public ActSetup choosing(String name) {
        return new ActSetup(book, deeds, inPercent, uses, profiles, name);
    }

    /** @return the same setup with a column called otherwise */
    ActSetup renamed(String column, String other) {
        UnaryOperator<Watch> moved = watch -> {
            if (watch instanceof Watch.Column one) {
                return one.name().equals(column) ? new Watch.Column(other) : watch;
            }
            Watch.Number number = (Watch.Number) watch;
            return number.column().equals(column)
                    ? new Watch.Number(number.kind(), other, number.settings(), number.number(), number.windowSeconds())
                    : watch;
        };
        List<Profile> spans = profiles.stream()
                .map(one -> new Profile(
                        one.name(),
                        one.spans().stream()
                                .map(s -> new Profile.Span(moved.apply(s.watch()), s.rest(), s.full()))
                                .toList()))
                .toList();
        return new ActSetup(book.watching(moved), deeds, inPercent, uses, spans, profile);
    }
}
