package zesty.signal.app.window.parts;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import javafx.collections.ListChangeListener;
import javafx.geometry.VPos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Shelf;

/** The takes with a search above them, and at their right what is chosen of them or comes from elsewhere. */
public final class Logbook extends HBox {
    private static final int MOST_TAGS = 12;
    private static final String ANY = Messages.of("parts.any-rig");
    private static final double RIGS_WIDTH = 110;
    /** What a card of the shelf, and the pages that stand in its place, need at the usual size of text. */
    private static final double ROOM_WIDTH = 374;

    private final Workspace workspace;
    private final TakesView shelf;
    private final TextField search = new TextField();
    /** What narrows the shelf down; as many rows as it needs. */
    private final FlowPane bar = new FlowPane(8, 6);

    private final Label found = new Label();
    private final Set<String> tagged = new HashSet<>();
    private final TakePanel panel;
    private final VBox left = new VBox(8);
    private final StackPane room = new StackPane();
    private final ComboBox<String> rigs = new ComboBox<>();
    private final ComboBox<TakesView.Order> orders = new ComboBox<>();
    private List<String> offered = List.of();

    public Logbook(Workspace workspace) {
        super(12);
        this.workspace = workspace;
        shelf = new TakesView(workspace);
        shelf.show(this::wanted);
        panel = new TakePanel(workspace, shelf.chosen()::clear, this::showWide);
        search.setId("take-search");
        search.setPromptText(Messages.of("parts.search-words-tags-days"));
        Tip.on(search, Messages.of("parts.in-titles-notes-tags-markers-rigs"));
        search.setPrefColumnCount(17);
        search.setMinWidth(Region.USE_PREF_SIZE);
        search.textProperty().addListener((p, was, is) -> filter());
        search.setOnKeyPressed(event -> {
            if (event.getCode() == KeyCode.ESCAPE && !search.getText().isEmpty()) {
                search.clear();
                event.consume();
            }
        });
        found.getStyleClass().add("hint");
        found.setId("takes-found");
        found.setMinWidth(Region.USE_PREF_SIZE);
        Button bring = new Button(Messages.of("parts.import-a-file"));
        bring.setId("import-file");
        bring.getStyleClass().setAll("small-button");
        bring.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(bring, Messages.of("parts.a-table-sound-edf-arrays-hdf5-or"));
        bring.setOnAction(event -> importFile(null));
        rigs.setId("take-rigs");
        rigs.getItems().setAll(ANY);
        rigs.setValue(ANY);
        Tip.on(rigs, Messages.of("parts.only-takes-that-were-recorded-with"));
        rigs.valueProperty().addListener((p, was, is) -> filter());
        orders.setId("take-order");
        orders.getItems().setAll(TakesView.Order.values());
        orders.setValue(TakesView.Order.NEWEST);
        Tip.on(orders, Messages.of("parts.in-which-order-they-stand"));
        orders.valueProperty().addListener((p, was, is) -> shelf.order(is));
        Button where = new Button(Messages.of("parts.folders-2"));
        where.setId("take-folders");
        where.getStyleClass().setAll("small-button");
        where.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(where, Messages.of("parts.which-folders-takes-are-looked-for"));
        where.setOnAction(event -> showWide(new FoldersPage(workspace)));
        bar.getChildren().setAll(search, rigs, orders, found, where, bring);
        bar.setRowValignment(VPos.CENTER);
        bar.setMinWidth(0);
        left.getChildren().setAll(bar, shelf);
        left.setMinWidth(0);
        VBox.setVgrow(shelf, Priority.ALWAYS);
        HBox.setHgrow(left, Priority.ALWAYS);
        room.setMinWidth(0);
        HBox.setHgrow(room, Priority.ALWAYS);
        room.getChildren().setAll(left);
        getChildren().addAll(room, panel);
        panel.managedProperty().bind(panel.visibleProperty());
        panel.setVisible(false);
        widthProperty().addListener((p, was, is) -> part());
        workspace.view().textSize().addListener((p, was, is) -> part());
        part();
        shelf.chosen().addListener((ListChangeListener<Path>) change -> {
            if (!room.getChildren().contains(left)) {
                room.getChildren().setAll(left);
            }
            choose();
        });
        workspace.takes().all().addListener((p, was, is) -> listed(is));
        workspace.view().takesOpen().addListener((p, was, is) -> {
            if (is) {
                workspace.takes().numbers();
            }
        });
        listed(workspace.takes().all().get());
    }

    /** The page leaves the shelf, and what stands in its place, the room that they need. */
    private void part() {
        panel.wide(getWidth() - workspace.view().textSize().get().of(ROOM_WIDTH) - getSpacing());
        rigs.setPrefWidth(workspace.view().textSize().get().of(RIGS_WIDTH));
    }

    /** Looks at a file from elsewhere, to make a take of it. @param file null to ask which */
    public void importFile(Path file) {
        panel.bring(file);
        panel.setVisible(true);
    }

    /** Shows a page in the place of the shelf, until it is closed or another choice is made. */
    private void showWide(WidePage page) {
        page.onClose(() -> room.getChildren().setAll(left));
        room.getChildren().setAll(page);
    }

    /** Chooses these and no others. */
    public void choose(List<Path> files) {
        shelf.chosen().setAll(files);
    }

    private void listed(List<Shelf.Entry> entries) {
        Map<String, Long> counts = entries.stream()
                .flatMap(one -> one.tags().stream())
                .filter(one -> !one.equals(Shelf.Entry.STAR))
                .collect(Collectors.groupingBy(Function.identity(), Collectors.counting()));
        List<String> most = counts.keySet().stream()
                .sorted((a, b) -> counts.get(a).equals(counts.get(b))
                        ? a.compareTo(b)
                        : Long.compare(counts.get(b), counts.get(a)))
                .limit(MOST_TAGS)
                .toList();
        boolean narrowed = false;
        if (!most.equals(offered)) {
            offered = most;
            narrowed = tagged.retainAll(most);
            bar.getChildren().removeIf(node -> node.getStyleClass().contains("chip"));
            bar.getChildren().addAll(most.stream().map(this::chip).toList());
        }
        List<String> names = entries.stream()
                .map(Shelf.Entry::rig)
                .filter(one -> !one.isEmpty())
                .distinct()
                .sorted()
                .toList();
        if (!names.equals(rigs.getItems()
                .subList(Math.min(1, rigs.getItems().size()), rigs.getItems().size()))) {
            String was = rigs.getValue();
            rigs.getItems().setAll(ANY);
            rigs.getItems().addAll(names);
            rigs.setValue(was != null && names.contains(was) ? was : ANY);
        }
        // The shelf has heard of the list itself: to arrange it again would take a card from under the pointer.
        if (narrowed) {
            filter();
        } else {
            count();
        }
        choose();
        if (workspace.view().takesOpen().get()) {
            workspace.takes().numbers();
        }
    }

    private ToggleButton chip(String tag) {
        ToggleButton chip = new ToggleButton(tag);
        chip.getStyleClass().setAll("chip");
        chip.setSelected(tagged.contains(tag));
        Tip.on(chip, Messages.of("parts.only-takes-with-this-tag"));
        chip.setOnAction(event -> {
            if (!tagged.remove(tag)) {
                tagged.add(tag);
            }
            filter();
        });
        return chip;
    }

    private boolean wanted(Shelf.Entry entry) {
        boolean ofRig = rigs.getValue() == null
                || rigs.getValue().equals(ANY)
                || rigs.getValue().equals(entry.rig());
        return ofRig && entry.tags().containsAll(tagged) && (search.getText().isBlank() || entry.has(search.getText()));
    }

    private void filter() {
        shelf.show(this::wanted);
        count();
    }

    private void count() {
        List<Shelf.Entry> all = workspace.takes().all().get();
        long some = all.stream().filter(this::wanted).count();
        found.setText(
                some == all.size()
                        ? Messages.of("parts.takes-3", all.size())
                        : Messages.of("parts.of-2", some, all.size()));
    }

    private void choose() {
        List<Shelf.Entry> chosen = new ArrayList<>();
        for (Path file : shelf.chosen()) {
            workspace.takes().all().get().stream()
                    .filter(one -> one.file().equals(file))
                    .forEach(chosen::add);
        }
        if (!chosen.isEmpty()) {
            panel.show(chosen);
            panel.setVisible(true);
        } else if (!panel.brings()) {
            panel.setVisible(false);
        }
    }
}
