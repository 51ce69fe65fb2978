package zesty.signal.takes;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import zesty.signal.core.text.Messages;

/** What of a take did not check, in words, each once. */
final class Damage {
    private static final int MOST = 200;

    private final Set<String> told = new LinkedHashSet<>();
    private long more;

    void tell(String words) {
        if (told.contains(words)) {
            return;
        }
        if (told.size() == MOST) {
            more++;
            return;
        }
        told.add(words);
    }

    List<String> words() {
        if (more == 0) {
            return List.copyOf(told);
        }
        List<String> words = new java.util.ArrayList<>(told);
        words.add(Messages.of("takes.and-more", more));
        return words;
    }
}
