package zesty.signal.app.window.parts;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.compare.Difference;
import zesty.signal.core.compare.Spread;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.Comparison;
import zesty.signal.exchange.report.Report;
import zesty.signal.takes.Shelf;

/** Two groups of takes: which takes are in which, and whether a reader's numbers differ by more than chance. */
final class GroupTest extends VBox {
    private static final int MOST_SENTENCES = 4;
    private static final int MOST_NUMBERS = 2;

    private final Workspace workspace;
    private final List<Shelf.Entry> takes;
    private final ComboBox<Choice> readers = new ComboBox<>();
    private final List<ToggleButton> seconds = new ArrayList<>();
    private final ToggleButton pairs = new ToggleButton(Messages.of("parts.in-pairs"));
    private final VBox said = new VBox(4);

    /** A reader that all the takes have. */
    private record Choice(ReaderSetup setup) {
        @Override
        public String toString() {
            return Messages.of("parts.of-2", setup.readerKind().title(), String.join(", ", setup.columns()));
        }
    }

    GroupTest(Workspace workspace, List<Shelf.Entry> takes) {
        super(6);
        this.workspace = workspace;
        this.takes = takes;
        setId("group-test");
        readers.setId("group-reader");
        Tip.on(readers, Messages.of("parts.whose-numbers-are-compared"));
        Label title = new Label(Messages.of("parts.is-the-difference-real"));
        title.getStyleClass().add("table-group");
        GridPane groups = new GridPane();
        groups.setHgap(8);
        groups.setVgap(4);
        for (int i = 0; i < takes.size(); i++) {
            ToggleButton second = new ToggleButton();
            second.getStyleClass().setAll("chip");
            second.setId("group-" + (char) ('a' + i));
            second.setSelected(i >= takes.size() / 2);
            second.textProperty()
                    .bind(javafx.beans.binding.Bindings.when(second.selectedProperty())
                            .then(Messages.of("parts.second-group"))
                            .otherwise(Messages.of("parts.first-group")));
            second.setOnAction(event -> ask());
            seconds.add(second);
            groups.addRow(i, hint((char) ('A' + i) + "  " + takes.get(i).title()), second);
        }
        pairs.getStyleClass().setAll("chip");
        pairs.setId("group-pairs");
        pairs.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(pairs, Messages.of("parts.the-first-of-one-group-belongs-to"));
        pairs.setOnAction(event -> ask());
        HBox whose = new HBox(8, hint(Messages.of("parts.by")), readers, pairs);
        whose.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(title, whose, groups, said);
        // The value itself: the action event was seen not to come for a value chosen before the box is laid out.
        readers.valueProperty().addListener((value, was, now) -> ask());
        workspace.takes().commonReaders(files(), found -> {
            if (found.isEmpty()) {
                said.getChildren().setAll(hint(Messages.of("parts.no-reader-is-set-up-in-all-of-them")));
            } else {
                readers.getItems().setAll(found.stream().map(Choice::new).toList());
                readers.getSelectionModel().selectFirst();
            }
        });
    }

    private static Label hint(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("hint");
        label.setWrapText(true);
        return label;
    }

    private List<Path> files() {
        return takes.stream().map(Shelf.Entry::file).toList();
    }

    private List<Path> group(boolean second) {
        List<Path> of = new ArrayList<>();
        for (int i = 0; i < takes.size(); i++) {
            if (seconds.get(i).isSelected() == second) {
                of.add(takes.get(i).file());
            }
        }
        return of;
    }

    private void ask() {
        Choice choice = readers.getValue();
        if (choice == null) {
            return;
        }
        List<Path> first = group(false);
        List<Path> second = group(true);
        boolean paired = pairs.isSelected();
        if (paired && first.size() != second.size()) {
            said.getChildren().setAll(hint(Messages.of("parts.pairs-need-as-many-takes-in-one")));
            return;
        }
        said.getChildren().setAll(hint(Messages.of("parts.reading")));
        workspace.takes().compare(files(), choice.setup(), compared -> {
            if (choice.equals(readers.getValue())
                    && first.equals(group(false))
                    && second.equals(group(true))
                    && paired == pairs.isSelected()) {
                said.getChildren().setAll(sentences(choice.setup(), compared, first, second, paired));
                trials(choice.setup(), compared).ifPresent(said.getChildren()::add);
            }
        });
    }

    private static List<Node> sentences(
            ReaderSetup setup, Comparison compared, List<Path> first, List<Path> second, boolean paired) {
        List<Node> nodes = new ArrayList<>();
        for (Comparison.Row row : compared.rows()) {
            if (!row.leftOut().isEmpty()) {
                nodes.add(hint(Messages.of("parts.is-left-out", row.title(), row.leftOut())));
            }
        }
        int told = 0;
        boolean few = false;
        for (ScalarInfo scalar : setup.readerKind().scalars()) {
            Spread a = Spread.of(compared.numbers(scalar.key(), first));
            Spread b = Spread.of(compared.numbers(scalar.key(), second));
            if (told == MOST_SENTENCES || a.n() == 0 || b.n() == 0) {
                continue;
            }
            told++;
            String unit = scalar.unit("");
            Optional<Difference> found = compared.difference(scalar.key(), first, second, paired);
            few |= found.isEmpty();
            Label sentence = new Label(found.map(one -> one.words(
                            scalar.words(),
                            unit,
                            Messages.of("parts.the-first-group"),
                            Messages.of("parts.the-second")))
                    .orElseGet(() -> few(scalar, unit, a, b)));
            nodes.add(styled(sentence));
        }
        double[] a = compared.sizes(first);
        double[] b = compared.sizes(second);
        if (a.length >= Difference.FEWEST && b.length >= Difference.FEWEST) {
            // Each event counts by itself: also one take a group can be told apart.
            Difference.welch(a, b)
                    .ifPresent(one -> nodes.add(styled(new Label(Messages.of(
                            "parts.counted-by-event-and",
                            one.words(
                                    Messages.of("parts.height-of-each-event"),
                                    "",
                                    Messages.of("parts.the-first-group"),
                                    Messages.of("parts.the-second")),
                            a.length,
                            b.length)))));
        }
        if (few) {
            nodes.add(styled(new Label(Messages.of("parts.below-takes-in-each-group-it", Difference.FEWEST))));
        }
        if (told == 0) {
            nodes.add(hint(Messages.of("parts.a-group-has-no-number-to-compare")));
        }
        return nodes;
    }

    /** Repeated trials: what the takes with each tag say, one below the other. */
    private Optional<Node> trials(ReaderSetup setup, Comparison compared) {
        List<String> tags = takes.stream()
                .flatMap(one -> one.tags().stream())
                .filter(one -> !one.equals(Shelf.Entry.STAR))
                .distinct()
                .sorted()
                .filter(tag -> takes.stream().anyMatch(one -> !one.tags().contains(tag)))
                .toList();
        List<ScalarInfo> scalars = setup.readerKind().scalars().stream()
                .filter(one -> compared.spread(one.key()).n() > 0)
                .limit(MOST_NUMBERS)
                .toList();
        if (tags.size() < 2 || scalars.isEmpty()) {
            return Optional.empty();
        }
        List<String> head = new ArrayList<>(
                List.of(Messages.of("parts.tag"), Messages.of("parts.takes").strip()));
        scalars.forEach(one -> head.add(one.words() + (one.unit("").isEmpty() ? "" : ", " + one.unit(""))));
        List<List<String>> rows = new ArrayList<>();
        for (String tag : tags) {
            List<Path> of = takes.stream()
                    .filter(one -> one.tags().contains(tag))
                    .map(Shelf.Entry::file)
                    .toList();
            List<String> row = new ArrayList<>(List.of(tag, String.valueOf(of.size())));
            for (ScalarInfo scalar : scalars) {
                Spread spread = Spread.of(compared.numbers(scalar.key(), of));
                row.add(
                        spread.n() == 0
                                ? Messages.of("parts.none")
                                : Digits.about(spread.mean(), 4)
                                        + (spread.sd() > 0 ? " \u00b1 " + Digits.about(spread.sd(), 2) : ""));
            }
            rows.add(row);
        }
        Label title = new Label(Messages.of("parts.trials-by-tag"));
        title.getStyleClass().add("table-group");
        GridPane grid = TablePage.grid(new Report.Table("", head, rows));
        grid.setId("trials");
        return Optional.of(new VBox(4, title, grid));
    }

    private static Label styled(Label sentence) {
        sentence.setWrapText(true);
        sentence.getStyleClass().add("group-sentence");
        return sentence;
    }

    private static String few(ScalarInfo scalar, String unit, Spread a, Spread b) {
        String of = unit.isEmpty() ? "" : " " + unit;
        return Messages.of(
                "parts.in-the-first-group-in-the-second",
                Character.toUpperCase(scalar.words().charAt(0)) + scalar.words().substring(1),
                Digits.about(a.mean(), 4),
                of,
                Digits.about(b.mean(), 4),
                of);
    }
}
