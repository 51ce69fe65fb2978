package zesty.signal.app.window.bench.act;

import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.Region;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.core.scale.Digits;

/** What sentences are made of besides pills. */
final class Parts {
    private Parts() {}

    /** @return words between the pills */
    static Label words(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("rule-words");
        label.setMinWidth(Region.USE_PREF_SIZE);
        return label;
    }

    /** @return a pill that offers a choice */
    static MenuButton menu(String id, String text, String tip) {
        MenuButton menu = new MenuButton(text);
        menu.setId(id);
        menu.getStyleClass().add("pill");
        menu.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(menu, tip);
        return menu;
    }

    /** @return an entry of a menu whose text is taken as it is */
    static MenuItem item(String text, Runnable action) {
        MenuItem item = new MenuItem(text);
        item.setMnemonicParsing(false);
        item.setOnAction(event -> action.run());
        return item;
    }

    /** @return a number as somebody wrote it. @throws NumberFormatException when it is none */
    static double number(String typed) {
        return Digits.typed(typed);
    }
}
