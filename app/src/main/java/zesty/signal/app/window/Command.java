package zesty.signal.app.window;

import javafx.scene.input.KeyCombination;

/**
 * Something the maker can do by key.
 *
 * @param group under which heading it stands in the list
 * @param plain whether the key is a bare one, which belongs to a text field while one is being written in
 */
record Command(String group, String text, KeyCombination key, boolean plain, Runnable action) {

    /** @return the key as it stands in the list */
    String keyText() {
        // A question mark is typed with Shift on some keyboards and not on others.
        return key.getDisplayText().equals("Shift+/") ? "?" : key.getDisplayText();
    }
}
