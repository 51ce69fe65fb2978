package zesty.signal.core.rig;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * Named phases with times that a recording goes through, one after the other: {@code rest 60 s, 3 x (pull 5 s, pause 10 s),
 * rest 60 s}. Phases that come more than once are numbered.
 *
 * @param text as the maker wrote it, without blanks at its ends
 * @param phases in their order; none for no protocol
 */
public record Protocol(String text, List<Phase> phases) {
    public static final Protocol NONE = new Protocol("", List.of());

    /** So many phases are kept in sight by nobody. */
    private static final int MOST_PHASES = 200;

    private static final Pattern PHASE = Pattern.compile("(.*\\S)\\s+(\\d+(?:\\.\\d+)?)\\s*(s|min|h)");
    private static final Pattern REPEATED = Pattern.compile("(\\d{1,3})\\s*[x\u00d7]\\s*\\((.*)\\)");
    private static final String LIKE = Messages.of("rig.write-for-example-rest-60-s-3-x");

    /** @param name one of its own in the protocol. @param startSeconds from the protocol's begin */
    public record Phase(String name, double startSeconds, double seconds) {
        public double endSeconds() {
            return startSeconds + seconds;
        }
    }

    public Protocol {
        phases = List.copyOf(phases);
    }

    /** @throws IllegalArgumentException when the text is none, saying what would be */
    public static Protocol parse(String text) {
        String stripped = text.strip();
        if (stripped.isEmpty()) {
            return NONE;
        }
        List<Phase> plain = new ArrayList<>();
        for (String part : parted(stripped)) {
            Matcher repeated = REPEATED.matcher(part);
            if (repeated.matches()) {
                List<String> within = parted(repeated.group(2));
                for (int n = 0; n < Integer.parseInt(repeated.group(1)); n++) {
                    within.forEach(one -> add(plain, one));
                }
            } else {
                add(plain, part);
            }
        }
        return new Protocol(stripped, numbered(plain));
    }

    /** @return what stands between the commas outside of brackets */
    private static List<String> parted(String text) {
        List<String> parts = new ArrayList<>();
        int depth = 0;
        int from = 0;
        for (int i = 0; i <= text.length(); i++) {
            char c = i == text.length() ? ',' : text.charAt(i);
            depth += c == '(' ? 1 : c == ')' ? -1 : 0;
            if (depth < 0 || i == text.length() && depth > 0) {
                throw new IllegalArgumentException(Messages.of("rig.a-bracket-of-the-protocol-has-no", LIKE));
            }
            if (c == ',' && depth == 0) {
                parts.add(text.substring(from, i).strip());
                from = i + 1;
            }
        }
        return parts;
    }

    private static void add(List<Phase> to, String part) {
        Matcher phase = PHASE.matcher(part);
        double seconds = phase.matches()
                ? Double.parseDouble(phase.group(2))
                        * (phase.group(3).equals("s") ? 1 : phase.group(3).equals("min") ? 60 : 3600)
                : Double.NaN;
        if (!(seconds > 0)) {
            throw new IllegalArgumentException(Messages.of("rig.is-no-phase-of-a-protocol-which", part, LIKE));
        }
        if (to.size() == MOST_PHASES) {
            throw new IllegalArgumentException(Messages.of("rig.a-protocol-has-at-most-phases", MOST_PHASES));
        }
        double start = to.isEmpty() ? 0 : to.get(to.size() - 1).endSeconds();
        to.add(new Phase(phase.group(1).strip(), start, seconds));
    }

    private static List<Phase> numbered(List<Phase> plain) {
        Map<String, Integer> often = new HashMap<>();
        plain.forEach(phase -> often.merge(phase.name(), 1, Integer::sum));
        Map<String, Integer> seen = new HashMap<>();
        return plain.stream()
                .map(phase -> often.get(phase.name()) == 1
                        ? phase
                        : new Phase(
                                phase.name() + " " + seen.merge(phase.name(), 1, Integer::sum),
                                phase.startSeconds(),
                                phase.seconds()))
                .toList();
    }

    public boolean isNone() {
        return phases.isEmpty();
    }

    /** @return how long all of it takes, in s */
    public double seconds() {
        return isNone() ? 0 : phases.get(phases.size() - 1).endSeconds();
    }

    /** @return index of the phase at that many seconds from its begin; as many as there are when it is over */
    public int at(double seconds) {
        int index = 0;
        while (index < phases.size() && phases.get(index).endSeconds() <= seconds) {
            index++;
        }
        return index;
    }

    /** @return its length in words, such as "2 min 45 s" */
    public String length() {
        long whole = Math.round(seconds());
        return whole < 60
                ? Digits.of(seconds()) + " s"
                : whole / 60 + " min" + (whole % 60 == 0 ? "" : " " + whole % 60 + " s");
    }
}
