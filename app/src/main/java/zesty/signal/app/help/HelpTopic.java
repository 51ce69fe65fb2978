package zesty.signal.app.help;

import java.util.List;
import java.util.Locale;

/**
 * One thing that help tells about.
 *
 * @param id by which the window finds it
 * @param group under which it stands
 * @param paragraphs what it is, how it comes about, what fools it
 */
public record HelpTopic(String id, String title, String group, List<String> paragraphs) {
    public HelpTopic {
        paragraphs = List.copyOf(paragraphs);
    }

    /** @return how well it answers: 3 for its title, 2 for a word of the title, 1 for its text, 0 for not at all */
    int answers(String query) {
        String wanted = query.strip().toLowerCase(Locale.ROOT);
        String name = title.toLowerCase(Locale.ROOT);
        if (name.startsWith(wanted)) {
            return 3;
        }
        if (name.contains(wanted)) {
            return 2;
        }
        return paragraphs.stream().anyMatch(one -> one.toLowerCase(Locale.ROOT).contains(wanted)) ? 1 : 0;
    }
}
