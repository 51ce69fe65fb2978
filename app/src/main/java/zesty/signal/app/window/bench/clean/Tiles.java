package zesty.signal.app.window.bench.clean;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.RecipeException;
import zesty.signal.core.clean.Step;
import zesty.signal.core.clean.StepArgument;
import zesty.signal.core.text.Messages;

/**
 * A recipe as a row of tiles, one a step. Pressing one switches it off to compare and on again; it keeps its place meanwhile, though the
 * recipe does not have it. Its numbers open by three dots. Dragging one onto another, or Alt with an arrow, moves it; its cross takes it out.
 */
final class Tiles extends FlowPane {
    /** A step in the row; off: its place is kept, and the recipe runs without it. */
    private record Tile(Step step, boolean on) {}

    private final Consumer<Recipe> changed;
    private List<Tile> row = new ArrayList<>();
    private final Consumer<String> refused;
    private int dragged = -1;
    /** The step whose numbers are open; -1 for none. */
    private int open = -1;

    /**
     * @param changed is told the recipe of the tiles that are on
     * @param refused is told why a number cannot be; empty once it can
     */
    Tiles(Consumer<Recipe> changed, Consumer<String> refused) {
        super(8, 8);
        this.changed = changed;
        this.refused = refused;
        setId("tiles");
    }

    /** Shows a recipe: what is switched off stays where it is as long as the rest is that recipe. */
    void show(Recipe recipe) {
        if (!recipe().equals(recipe)) {
            row = new ArrayList<>();
            recipe.steps().forEach(step -> row.add(new Tile(step, true)));
            fill();
        }
    }

    /** Shows another channel's recipe: nothing is kept of what was off. */
    void begin(Recipe recipe) {
        open = -1;
        row = new ArrayList<>();
        fill();
        show(recipe);
    }

    private Recipe recipe() {
        return new Recipe(row.stream().filter(Tile::on).map(Tile::step).toList());
    }

    private void fill() {
        getChildren().clear();
        // Without a step the line below says so.
        setManaged(!row.isEmpty());
        for (int i = 0; i < row.size(); i++) {
            getChildren().add(tile(i));
        }
        if (open >= row.size()) {
            open = -1;
        }
        if (open >= 0) {
            getChildren().add(numbers(open));
        }
    }

    /** One box for each number of a step, with its name. */
    private HBox numbers(int index) {
        Step step = row.get(index).step();
        List<StepArgument> arguments = step.arguments();
        List<String> values = StepArgument.values(step);
        HBox boxes = new HBox(10);
        boxes.setAlignment(Pos.CENTER_LEFT);
        boxes.getStyleClass().add("tile-numbers");
        boxes.getChildren().add(Bench.small(Messages.of("bench.clean.step", (index + 1))));
        for (int i = 0; i < arguments.size(); i++) {
            TextField box = new TextField(values.get(i));
            box.setId("step-number-" + (i + 1));
            box.setPrefColumnCount(5);
            int at = i;
            box.setOnAction(event -> {
                try {
                    put(
                            index,
                            new Tile(
                                    StepArgument.with(step, at, box.getText()),
                                    row.get(index).on()));
                    lookup("#" + box.getId()).requestFocus();
                } catch (RecipeException e) {
                    refused.accept(e.getMessage());
                }
            });
            boxes.getChildren().addAll(Bench.small(arguments.get(i).words()), box);
        }
        return boxes;
    }

    private HBox tile(int index) {
        Tile one = row.get(index);
        Button words =
                new Button((index + 1) + "  " + one.step().words() + (one.on() ? "" : Messages.of("bench.clean.off")));
        words.setId("tile-" + (index + 1));
        words.getStyleClass().setAll("tile-words");
        Tip.on(
                words,
                Messages.of(
                        "bench.clean.press-to-drag-or-alt-with-an-arrow",
                        one.step().text(),
                        one.step().about(),
                        (one.on()
                                ? Messages.of("bench.clean.compare-without-it")
                                : Messages.of("bench.clean.put-it-back"))));
        words.setOnAction(event -> put(index, new Tile(one.step(), !one.on())));
        words.addEventFilter(KeyEvent.KEY_PRESSED, event -> {
            if (event.isAltDown() && (event.getCode() == KeyCode.LEFT || event.getCode() == KeyCode.RIGHT)) {
                move(index, index + (event.getCode() == KeyCode.LEFT ? -1 : 1));
                event.consume();
            }
        });
        Button out = new Button("×");
        out.getStyleClass().setAll("tile-off");
        Tip.on(out, Messages.of("bench.clean.take-this-step-out-u-undoes-it"));
        out.setOnAction(event -> {
            row.remove(index);
            tell();
        });
        Button numbers = new Button("…");
        numbers.setId("tile-numbers-" + (index + 1));
        numbers.getStyleClass().setAll("tile-off");
        Tip.on(numbers, Messages.of("bench.clean.change-its-numbers"));
        numbers.setOnAction(event -> {
            open = open == index ? -1 : index;
            fill();
        });
        HBox tile = new HBox(8, words);
        if (!one.step().arguments().isEmpty()) {
            tile.getChildren().add(numbers);
        }
        tile.getChildren().add(out);
        tile.setAlignment(Pos.CENTER_LEFT);
        tile.getStyleClass().add("tile");
        tile.setOpacity(one.on() ? 1 : 0.55);
        tile.addEventFilter(MouseEvent.MOUSE_DRAGGED, event -> dragged = event.isPrimaryButtonDown() ? index : -1);
        tile.addEventFilter(MouseEvent.MOUSE_RELEASED, event -> {
            int from = dragged;
            dragged = -1;
            int to = event.getButton() == MouseButton.PRIMARY ? under(event.getSceneX(), event.getSceneY()) : -1;
            if (from >= 0 && to >= 0 && from != to) {
                event.consume();
                move(from, to);
            }
        });
        return tile;
    }

    private int under(double sceneX, double sceneY) {
        for (int i = 0; i < getChildren().size(); i++) {
            var node = getChildren().get(i);
            if (node.localToScene(node.getBoundsInLocal()).contains(sceneX, sceneY)) {
                return i;
            }
        }
        return -1;
    }

    private void put(int index, Tile tile) {
        row.set(index, tile);
        refused.accept("");
        tell();
    }

    private void move(int from, int to) {
        if (to >= 0 && to < row.size()) {
            row.add(to, row.remove(from));
            tell();
            getChildren().get(to).lookup(".tile-words").requestFocus();
        }
    }

    private void tell() {
        fill();
        changed.accept(recipe());
    }
}
