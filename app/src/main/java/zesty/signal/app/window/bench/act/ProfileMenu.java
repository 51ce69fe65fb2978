package zesty.signal.app.window.bench.act;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.TextField;
import javafx.scene.layout.Region;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.act.Profile;
import zesty.signal.core.act.Rule;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** What is usual for one person, boat or room, changed in one press: limits in percent go by it. */
final class ProfileMenu {
    private final Workspace workspace;
    private final MenuButton menu = new MenuButton();
    private ActSetup act = ActSetup.NONE;
    private Rule.OnSamples rule;
    private Watched seen;

    ProfileMenu(Workspace workspace) {
        this.workspace = workspace;
        menu.setId("profile");
        menu.getStyleClass().add("pill");
        menu.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(menu, Messages.of("bench.act.a-profile-holds-what-is-rest-0-and"));
        menu.getItems().setAll(new MenuItem(""));
        menu.setOnShowing(event -> offer());
    }

    Node node() {
        return menu;
    }

    /** @param chosen the rule in the picture; null for none. @param watched what is in sight of it; null for nothing */
    void show(ActSetup now, Rule.OnSamples chosen, Watched watched) {
        act = now;
        rule = chosen;
        seen = watched;
        menu.setText(
                now.profile().isEmpty()
                        ? Messages.of("bench.act.no-profile")
                        : Messages.of("bench.act.profile", now.profile()));
    }

    private void offer() {
        menu.getItems().clear();
        for (Profile one : act.profiles()) {
            CheckMenuItem item = new CheckMenuItem(one.name());
            item.setMnemonicParsing(false);
            item.setSelected(one.name().equals(act.profile()));
            item.setOnAction(event -> workspace.acting().change(now -> now.choosing(one.name())));
            menu.getItems().add(item);
        }
        if (!act.profile().isEmpty()) {
            menu.getItems().add(Parts.item(Messages.of("bench.act.none"), () -> workspace
                    .acting()
                    .change(now -> now.choosing(""))));
        }
        menu.getItems().add(name());
        boolean some = rule != null && seen != null && !Double.isNaN(seen.median());
        if (some && !act.profile().isEmpty()) {
            double rest = NewParts.tidy(seen.median());
            double full = NewParts.tidy(seen.range()[1]);
            menu.getItems().add(new SeparatorMenuItem());
            menu.getItems()
                    .add(Parts.item(
                            Messages.of("bench.act.what-is-in-sight-is-rest-0", Digits.about(rest, 4)),
                            () -> measured(rest, Double.NaN)));
            menu.getItems()
                    .add(Parts.item(
                            Messages.of("bench.act.the-hardest-pull-is-in-sight-100", Digits.about(full, 4)),
                            () -> measured(Double.NaN, full)));
        }
    }

    /** A box in the menu: its Enter makes the profile. */
    private MenuItem name() {
        TextField box = new TextField();
        box.setId("new-profile");
        box.setPromptText(Messages.of("bench.act.a-new-profile-whose-enter"));
        box.setPrefColumnCount(16);
        CustomMenuItem item = new CustomMenuItem(box, false);
        box.setOnAction(event -> {
            String name = box.getText().strip();
            if (!name.isEmpty()) {
                menu.hide();
                workspace.acting().change(now -> now.withProfile(new Profile(name, List.of())));
            }
        });
        return item;
    }

    /** Takes one end of the span; the other stays, or begins so that the two differ. */
    private void measured(double rest, double full) {
        Rule.OnSamples of = rule;
        workspace.acting().change(now -> {
            Profile profile = now.chosen().orElseThrow();
            Profile.Span was = profile.of(of.watch()).orElse(null);
            double low = Double.isNaN(rest) ? was == null ? NewParts.tidy(seen.range()[0]) : was.rest() : rest;
            double high = Double.isNaN(full) ? was == null ? NewParts.tidy(seen.range()[1]) : was.full() : full;
            return now.withProfile(profile.with(new Profile.Span(of.watch(), low, high)));
        });
    }
}
