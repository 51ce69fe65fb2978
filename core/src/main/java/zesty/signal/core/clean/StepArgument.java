package zesty.signal.core.clean;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;

/**
 * A number that a step is given, as a control shows it.
 *
 * @param words its name, with its unit behind a comma where it has one
 */
public record StepArgument(String words) {
    private static final Pattern PARTED = Pattern.compile("\\.\\.|@");

    static List<StepArgument> named(String... words) {
        List<StepArgument> all = new ArrayList<>();
        for (String one : words) {
            all.add(new StepArgument(one));
        }
        return all;
    }

    /** @return what the numbers of a step are now, in the order of its arguments, as a recipe writes them */
    public static List<String> values(Step step) {
        String text = step.text();
        int colon = text.indexOf(':');
        return colon < 0 ? List.of() : List.of(PARTED.split(text.substring(colon + 1)));
    }

    /**
     * @return the step with another number in one place
     * @throws RecipeException when it cannot be that, saying why
     */
    public static Step with(Step step, int index, String value) {
        List<String> values = values(step);
        StringBuilder text =
                new StringBuilder(step.text().substring(0, step.text().indexOf(':') + 1));
        String rest = step.text().substring(text.length());
        int at = 0;
        for (int i = 0; i < values.size(); i++) {
            text.append(i == index ? value.strip() : values.get(i));
            at += values.get(i).length();
            int next = i + 1 < values.size() ? rest.indexOf(values.get(i + 1), at) : rest.length();
            text.append(rest, at, next);
            at = next;
        }
        return StepParser.parse(text.toString());
    }
}
