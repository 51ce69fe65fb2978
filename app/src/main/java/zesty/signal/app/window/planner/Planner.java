package zesty.signal.app.window.planner;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javafx.beans.binding.Bindings;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Planning;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.plan.Bar;
import zesty.signal.core.plan.Bars;
import zesty.signal.core.plan.Draft;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.PlannedAgainst;
import zesty.signal.takes.Shelf;

/** The plan at the left, its budgets as bars in the middle, parts, wiring and cautions at the right. JavaFX thread. */
public final class Planner extends VBox {
    private static final double FORM = 300;
    private static final double SIDE = 236;
    /** The bars have as much room at least. */
    private static final double LEAST_BARS = 400;

    private static final int TAKES_OFFERED = 12;

    private final Workspace workspace;
    private final Planning planning;
    private final Label about = Bench.small("");
    private final PlanForm form;
    private final PartsCard parts;
    private final List<BarView> bars = new ArrayList<>();
    private final VBox middle = new VBox(2);
    private final Label row = new Label();
    private final Label clock = Bench.small("");
    private final VBox wiring = new VBox(3);
    private final Label limits = Bench.small("");
    private final Label caution = new Label();
    private final Button undo = Bench.button(
            "plan-undo", Messages.of("planner.undo"), Messages.of("planner.goes-back-to-the-plan-before-the"));
    private final MenuButton compare = new MenuButton(Messages.of("planner.compare-with-a-take"));
    private final VBox against = new VBox(6);
    private final VBox right;
    private final VBox left = new VBox(10);
    private final HBox all = new HBox(18);
    private String wired = "";

    public Planner(Workspace workspace) {
        super(8);
        this.workspace = workspace;
        planning = workspace.planning();
        setId("planner");
        getStyleClass().add("bench");
        Label title = new Label(Messages.of("planner.will-it-work"));
        title.getStyleClass().add("bench-title");
        about.setId("plan-about");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        undo.setOnAction(event -> planning.undo());
        compare.setId("plan-compare");
        compare.getStyleClass().add("small-button");
        Tip.on(compare, Messages.of("planner.rate-noise-loss-and-delay-of-a"));
        compare.setOnShowing(event -> offer());
        Button print = Bench.button(
                "plan-print", Messages.of("planner.print"), Messages.of("planner.saves-the-plan-as-a-page-pdf"));
        print.setOnAction(event -> planning.print());
        HBox head = new HBox(12, title, about, space, undo, compare, print);
        head.setAlignment(Pos.CENTER_LEFT);
        parts = new PartsCard(planning::scaleFocused);
        form = new PlanForm(planning::ask, planning::change);
        wide(form, FORM);
        HBox.setHgrow(middle, Priority.ALWAYS);
        middle.setMinWidth(0);
        String[] ids = {"line", "frequency", "resolution", "delay", "memory", "disk", "battery"};
        for (String id : ids) {
            bars.add(new BarView(id, this::paint, planning::change));
        }
        middle.getChildren().setAll(bars);
        middle.getChildren().add(foot());
        against.setId("plan-against");
        right = new VBox(8, parts, wiringCard());
        wide(right, SIDE);
        VBox.setVgrow(all, Priority.ALWAYS);
        getChildren().addAll(head, all);
        widthProperty().addListener((p, was, is) -> arrange());
        workspace.view().textSize().addListener((p, was, is) -> arrange());
        arrange();
        planning.draft().addListener((p, was, is) -> show(is));
        workspace
                .view()
                .focus()
                .addListener((p, was, is) -> paint(planning.draft().get()));
        workspace
                .view()
                .plannerOpen()
                .addListener((p, was, is) -> paint(planning.draft().get()));
        planning.load();
        show(planning.draft().get());
    }

    /** As wide as its words at any size of text. */
    private void wide(Region column, double usual) {
        var width = Bindings.createDoubleBinding(
                () -> workspace.view().textSize().get().of(usual),
                workspace.view().textSize());
        column.minWidthProperty().bind(width);
        column.prefWidthProperty().bind(width);
        column.maxWidthProperty().bind(width);
    }

    /** Three columns beside each other, or two where the bars would have too little room. */
    private void arrange() {
        double room = getWidth() - workspace.view().textSize().get().of(FORM + SIDE);
        boolean narrow = getWidth() > 0 && room < LEAST_BARS;
        if (all.getChildren().isEmpty() || narrow != (all.getChildren().size() == 2)) {
            all.getChildren().clear();
            left.getChildren().clear();
            if (narrow) {
                left.getChildren().setAll(form, right);
                all.getChildren().setAll(left, middle);
            } else {
                all.getChildren().setAll(form, middle, right);
            }
        }
    }

    private VBox foot() {
        Label words = Bench.small(Messages.of("planner.a-row-as-it-will-be-sent"));
        row.getStyleClass().add("mono");
        row.setId("plan-row");
        row.setMinWidth(0);
        Button tryIt = Bench.button(
                "plan-try", Messages.of("planner.try-it"), Messages.of("planner.a-simulated-board-sends-exactly"));
        tryIt.setOnAction(event -> planning.tryIt());
        Button code = Bench.button(
                "plan-code",
                Messages.of("planner.board-code-c"),
                Messages.of("planner.saves-board-c-and-board-h-which"));
        code.setOnAction(event -> planning.boardCode());
        Button rig = Bench.button(
                "plan-rig", Messages.of("planner.make-the-rig"), Messages.of("planner.saves-a-rig-with-this-scaling"));
        rig.setOnAction(event -> planning.keepRig());
        words.setMinWidth(USE_PREF_SIZE);
        clock.setMinWidth(USE_PREF_SIZE);
        HBox line = new HBox(10, words, row, clock);
        line.setAlignment(Pos.BASELINE_LEFT);
        HBox buttons = new HBox(8, tryIt, code, rig);
        VBox foot = new VBox(7, line, buttons, against);
        foot.getStyleClass().add("plan-card");
        return foot;
    }

    private VBox wiringCard() {
        Label title = new Label(Messages.of("planner.wiring"));
        title.getStyleClass().add("plan-name");
        Label heed = new Label(Messages.of("planner.cautions"));
        heed.getStyleClass().add("plan-name");
        for (Label one : new Label[] {limits, caution}) {
            one.setWrapText(true);
            one.setMinHeight(USE_PREF_SIZE);
        }
        caution.getStyleClass().addAll("error", "plan-caution");
        VBox card = new VBox(5, title, wiring, limits, heed, caution);
        card.getStyleClass().add("plan-card");
        return card;
    }

    private void show(Draft now) {
        paint(now);
        form.show(now);
    }

    /** All that follows from a plan, but the boxes that it is typed in: it may be on its way. */
    private void paint(Draft now) {
        ReaderKind kind = ReaderKinds.of(now.kind());
        about.setText(Messages.of(
                "planner.plan-for", Messages.within(kind.title()), now.need().sensor()));
        List<Bar> worked = Bars.of(now);
        for (int i = 0; i < bars.size(); i++) {
            bars.get(i).show(worked.get(i));
        }
        parts.show(now, planning.focused());
        row.setText(
                now.packets()
                        ? Messages.of("planner.a5-5a-clock-number-counts-sum", now.channels())
                        : now.rowText().strip());
        clock.setText(now.packets() ? "" : Messages.of("planner.s-row-number-then-counts"));
        String key = now.kind() + now.need().sensor();
        if (!key.equals(wired)) {
            wired = key;
            wiring.getChildren().clear();
            for (String line : now.need().wiring()) {
                CheckBox box = new CheckBox(line);
                box.setWrapText(true);
                box.setMinHeight(USE_PREF_SIZE);
                wiring.getChildren().add(box);
            }
            limits.setText(now.need().limits());
            caution.setText((kind.onBody() ? Caution.BODY : Caution.VOLTAGE).words());
            against.getChildren().clear();
        }
    }

    private void offer() {
        compare.getItems().clear();
        for (Shelf.Entry entry :
                workspace.takes().all().get().stream().limit(TAKES_OFFERED).toList()) {
            MenuItem item = new MenuItem(entry.title());
            Path file = entry.file();
            item.setOnAction(event -> planning.compare(file, rows -> compared(entry.title(), rows)));
            compare.getItems().add(item);
        }
        if (compare.getItems().isEmpty()) {
            MenuItem none = new MenuItem(Messages.of("planner.no-take-yet-record-one-first"));
            none.setDisable(true);
            compare.getItems().add(none);
        }
    }

    private void compared(String title, List<PlannedAgainst.Row> rows) {
        GridPane table = new GridPane();
        table.setHgap(14);
        table.setVgap(2);
        table.add(Bench.small(Messages.of("planner.planned")), 1, 0);
        table.add(Bench.small(title), 2, 0);
        for (int i = 0; i < rows.size(); i++) {
            PlannedAgainst.Row one = rows.get(i);
            table.add(Bench.small(one.name()), 0, i + 1);
            table.add(Bench.mono(one.planned()), 1, i + 1);
            Label real = Bench.mono((one.asPlanned() ? "" : "\u25b2 ") + one.real());
            table.add(real, 2, i + 1);
            Label why = Bench.small(one.why());
            why.setWrapText(true);
            why.setMinHeight(USE_PREF_SIZE);
            table.add(why, 3, i + 1);
            GridPane.setHgrow(why, Priority.ALWAYS);
        }
        against.getChildren().setAll(table);
    }
}
