package zesty.signal.app.window.bench.act;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.MenuButton;
import javafx.scene.control.SeparatorMenuItem;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Deed;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.Rule;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.text.Messages;

/** What is done when a rule turns on, and what else can be asked of it. */
record RuleMenu(Workspace workspace, ActSetup act, Rule rule, String id) {
    private void put(Rule other) {
        workspace.acting().change(now -> now.book().rules().contains(rule) ? now.withRule(other) : now);
    }

    MenuButton button() {
        Set<Deed> done = act.deedsOf(rule.name());
        List<String> sent = act.book().outputs().stream()
                .filter(one -> one instanceof Output.ByRule by && by.rule().equals(rule.name()))
                .map(one -> Messages.of("bench.act.send", ((Output.ByRule) one).on()))
                .toList();
        List<String> said = new ArrayList<>(sent);
        done.stream().sorted().map(Deed::words).forEach(said::add);
        MenuButton menu = Parts.menu(
                id,
                said.isEmpty() ? Messages.of("bench.act.then") : String.join(", ", said),
                Messages.of("bench.act.what-is-done-when-it-turns-on"));
        for (Deed deed : Deed.values()) {
            CheckMenuItem item = new CheckMenuItem(deed.words());
            item.setSelected(done.contains(deed));
            item.setOnAction(
                    event -> workspace.acting().change(now -> now.withDeed(rule.name(), deed, item.isSelected())));
            menu.getItems().add(item);
        }
        menu.getItems().add(Parts.item(Messages.of("bench.act.send-lines-to-a-board"), () -> workspace
                .acting()
                .change(now -> NewParts.output(now, rule.name()))));
        if (rule instanceof Rule.OnSamples one) {
            menu.getItems().add(new SeparatorMenuItem());
            if (!(one.when() instanceof Condition.Events) && !(one.when() instanceof Condition.Silent)) {
                CheckMenuItem percent = new CheckMenuItem(Messages.of("bench.act.limits-in-percent-of-a-profile"));
                percent.setSelected(act.inPercent().contains(one.name()));
                percent.setOnAction(
                        event -> workspace.acting().change(now -> NewParts.percent(now, one, percent.isSelected())));
                menu.getItems().add(percent);
            }
            CheckMenuItem latch = new CheckMenuItem(Messages.of("bench.act.stay-on-until-acknowledged"));
            latch.setSelected(one.holds().latch());
            latch.setOnAction(event -> put(RuleEdits.holds(
                    one,
                    new Rule.Holds(
                            one.holds().forSeconds(),
                            one.holds().offForSeconds(),
                            one.holds().deadSeconds(),
                            latch.isSelected()))));
            menu.getItems().add(latch);
            if (one.holds().deadSeconds() == 0) {
                menu.getItems()
                        .add(Parts.item(
                                Messages.of("bench.act.a-dead-time"),
                                () -> put(RuleEdits.holds(one, RuleEdits.holds(one.holds(), 2, 1)))));
            }
            if (one.holds().offForSeconds() == 0
                    && !(one.when() instanceof Condition.Silent)
                    && !(one.when() instanceof Condition.Events)) {
                menu.getItems()
                        .add(Parts.item(
                                Messages.of("bench.act.turn-off-late"),
                                () -> put(RuleEdits.holds(one, RuleEdits.holds(one.holds(), 1, 1)))));
            }
        }
        return menu;
    }
}
