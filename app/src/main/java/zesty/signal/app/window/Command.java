package zesty.signal.app.window;

import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.scene.input.KeyCombination;
import zesty.signal.core.text.Messages;

/**
 * Something the maker can do by key.
 *
 * @param group under which heading it stands in the list
 * @param action null for a key that whatever has the focus answers itself
 * @param plain whether the key is a bare one, which belongs to a text field while one is being written in
 */
record Command(String group, String text, KeyCombination key, boolean plain, Runnable action) {

    /** @return the key as it stands in the list */
    String keyText() {
        // A question mark is typed with Shift on some keyboards and not on others; arrows are not in every font.
        String text = key.getDisplayText()
                .replace("Shift+/", "?")
                .replace("\u21B5", "Enter")
                .replace("\u2191", "Up")
                .replace("\u2193", "Down")
                .replace("\u2190", "Left")
                .replace("\u2192", "Right");
        return Stream.of(text.split("(?<=.)\\+(?=.)")).map(Messages::token).collect(Collectors.joining("+"));
    }
}
