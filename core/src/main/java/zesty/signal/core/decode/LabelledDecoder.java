package zesty.signal.core.decode;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import zesty.signal.core.text.Messages;

/** Decodes labelled text. A label that a row lacks leaves a missing value; a label that no column has is set aside. */
final class LabelledDecoder extends LineDecoder {
    private static final int MOST_TEMPLATES = 64;

    /** Lines that carried all labels before one without the last is taken for cut. */
    private static final int ALWAYS = 8;

    private final LabelledFormat format;
    private final NumberText number;
    private final Map<String, Integer> places = new HashMap<>();
    private final double[] row;
    private final boolean[] seen;
    private int filled;
    private final List<LabelledTemplate> templates = new ArrayList<>();
    private int next;
    private long wholeLines;
    private boolean otherLines;

    LabelledDecoder(LabelledFormat format, RejectedLines rejectedLines) {
        super(format.columns().size(), "", rejectedLines);
        this.format = format;
        number = new NumberText(format.decimalComma());
        for (int i = 0; i < format.labels().size(); i++) {
            places.put(format.labels().get(i), i);
        }
        row = new double[format.columns().size()];
        seen = new boolean[row.length];
        clear();
    }

    private void clear() {
        Arrays.fill(row, Double.NaN);
        Arrays.fill(seen, false);
        filled = 0;
    }

    @Override
    public LabelledFormat format() {
        return format;
    }

    @Override
    public void restart(boolean midStream) {
        super.restart(midStream);
        clear();
    }

    @Override
    boolean passesOver(String line) {
        // Blank and ruled lines part the rows of a format that is spread over lines.
        return format.overLines() && line.matches("[-=*_\\s]*");
    }

    @Override
    int line(byte[] bytes, int from, int last) {
        int stop = from;
        while (bytes[stop] != '\n') {
            stop++;
        }
        int to = stop > from && bytes[stop - 1] == '\r' ? stop - 1 : stop;
        for (int i = 0; !firstMayBeHalf && to - from <= LINE_LIMIT && i < templates.size(); i++) {
            int which = (next + i) % templates.size();
            LabelledTemplate template = templates.get(which);
            if (template.reads(bytes, from, to, number)) {
                for (int k = 0; k < template.count(); k++) {
                    put(template.place(k), template.value(k), false);
                }
                if (!format.overLines()) {
                    emit();
                }
                if (template.count() == format.labels().size()) {
                    wholeLines++;
                }
                lines++;
                understood += to - from + 1;
                next = which + 1;
                return stop + 1;
            }
        }
        careful(bytes, from, to);
        return stop + 1;
    }

    private void learn(String line, List<Labels.Pair> pairs) {
        if (templates.size() < MOST_TEMPLATES) {
            byte[] bytes = line.getBytes(StandardCharsets.UTF_8);
            LabelledTemplate learned = LabelledTemplate.of(bytes, pairs, places, number);
            if (learned != null) {
                templates.add(learned);
            }
        }
    }

    @Override
    String accept(String line) {
        List<Labels.Pair> pairs = Labels.of(line, number);
        if (pairs == null) {
            return Messages.of("decode.no-list-of-labels-with-their");
        }
        Set<String> labels = new HashSet<>();
        for (Labels.Pair pair : pairs) {
            if (!places.containsKey(pair.label())) {
                return Messages.of("decode.is-none-of-the-labels", pair.label(), few(format.labels()));
            }
            if (!labels.add(pair.label()) && !format.overLines()) {
                return Messages.of("decode.stands-twice-in-one-line", pair.label());
            }
        }
        if (!format.overLines() && breaksOff(pairs)) {
            return Messages.of(
                    "decode.it-breaks-off-before-which-every",
                    format.labels().get(format.labels().size() - 1));
        }
        if (!format.overLines() && pairs.stream().allMatch(Labels.Pair::missing)) {
            return Messages.of("decode.no-number-behind-any-label");
        }
        learn(line, pairs);
        for (Labels.Pair pair : pairs) {
            put(places.get(pair.label()), pair.value(), pair.missing());
        }
        if (!format.overLines()) {
            emit();
        }
        return null;
    }

    /**
     * Where lines so far have always carried all labels in their order, one that has only the first of them was cut. A
     * line with other labels ends that for good: some come with some lines only.
     */
    private boolean breaksOff(List<Labels.Pair> pairs) {
        int all = format.labels().size();
        boolean inOrder = true;
        for (int i = 0; i < pairs.size(); i++) {
            inOrder &= pairs.get(i).label().equals(format.labels().get(i));
        }
        if (inOrder && pairs.size() == all) {
            wholeLines++;
            return false;
        }
        if (inOrder && pairs.size() < all && wholeLines >= ALWAYS && !otherLines) {
            return true;
        }
        otherLines = true;
        return false;
    }

    private void put(int place, double value, boolean missing) {
        if (format.overLines() && (seen[place] || place == 0 && filled > 0)) {
            emit();
        }
        seen[place] = true;
        row[place] = missing ? Double.NaN : value;
        filled++;
        if (format.overLines() && place == row.length - 1) {
            emit();
        }
    }

    private void emit() {
        if (filled > 0) {
            rows.add(row);
        }
        clear();
    }
}
