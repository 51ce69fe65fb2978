package zesty.signal.core.act;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * Settings of an output one after the other, with what ends it early: {@code 0 20 s, 40 60 s, 80 settled 120 s, 0 60 s; stop above 70}.
 *
 * @param stopAbove what is watched ends it above that; NaN for no such limit. {@code stopBelow} likewise
 */
public record StepPlan(List<Phase> phases, double stopAbove, double stopBelow) {
    private static final String LIKE = Messages.of("act.write-for-example-0-20-s-40-60-s");
    private static final String NUMBER = "([-+]?\\d+(?:[.]\\d+)?)";
    private static final Pattern PHASE = Pattern.compile(NUMBER + "\\s+(settled\\s+)?(\\d+(?:[.]\\d+)?)\\s*(s|min)");
    private static final Pattern STOP = Pattern.compile("stop\\s+(above|below)\\s+" + NUMBER);
    private static final int MOST = 100;
    private static final double MOST_SECONDS = 6 * 3600;

    /**
     * @param value that the output is set to
     * @param seconds for how long, or, of one that is to settle, at most
     * @param settled whether the next one comes as soon as what is watched has settled
     */
    public record Phase(double value, double seconds, boolean settled) {}

    public StepPlan {
        phases = List.copyOf(phases);
        if (phases.isEmpty() || phases.size() > MOST) {
            throw new IllegalArgumentException(Messages.of("act.a-plan-has-1-to-settings-was-to", MOST, phases.size()));
        }
    }

    /** @throws IllegalArgumentException when the text is none, saying what would be */
    public static StepPlan parse(String text) {
        String[] parts = text.strip().split("\\s*;\\s*");
        double above = Double.NaN;
        double below = Double.NaN;
        for (int i = 1; i < parts.length; i++) {
            Matcher stop = STOP.matcher(parts[i].strip());
            if (!stop.matches()) {
                throw new IllegalArgumentException(Messages.of("act.is-no-limit-that-ends-a-plan", parts[i], LIKE));
            }
            if (stop.group(1).equals("above")) {
                above = Double.parseDouble(stop.group(2));
            } else {
                below = Double.parseDouble(stop.group(2));
            }
        }
        List<Phase> phases = new ArrayList<>();
        for (String part : parts[0].split(",")) {
            Matcher phase = PHASE.matcher(part.strip());
            double seconds = phase.matches()
                    ? Double.parseDouble(phase.group(3)) * (phase.group(4).equals("s") ? 1 : 60)
                    : Double.NaN;
            if (!(seconds > 0 && seconds <= MOST_SECONDS)) {
                throw new IllegalArgumentException(
                        Messages.of("act.is-no-setting-of-a-plan-which-has", part.strip(), LIKE));
            }
            phases.add(new Phase(Double.parseDouble(phase.group(1)), seconds, phase.group(2) != null));
        }
        return new StepPlan(phases, above, below);
    }

    /** @return how long it takes at most, in s */
    public double seconds() {
        return phases.stream().mapToDouble(Phase::seconds).sum();
    }

    /** @return it as it is written */
    public String text() {
        String settings = phases.stream()
                .map(one -> Digits.exact(one.value()) + (one.settled() ? " settled " : " ")
                        + Digits.exact(one.seconds()) + " s")
                .collect(Collectors.joining(", "));
        return settings
                + (Double.isNaN(stopAbove) ? "" : "; stop above " + Digits.exact(stopAbove))
                + (Double.isNaN(stopBelow) ? "" : "; stop below " + Digits.exact(stopBelow));
    }
}
