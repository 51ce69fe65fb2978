package zesty.signal.app.window.bench.source;

import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.stream.Collectors;
import javafx.scene.control.Button;
import javafx.scene.control.ContentDisplay;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Pane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.SVGPath;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.boards.sim.SimulatedBoards;
import zesty.signal.core.text.Messages;

/** The made-up boards where they sit: on the dinghy, and a row of those in the shed. */
final class Dinghy extends VBox {
    private static final double WIDTH = 330;
    private static final double HEIGHT = 150;

    /** Where a board sits; left when its word stands at its left. */
    private record Berth(String board, double x, double y, boolean left) {}

    private static final List<Berth> BERTHS = List.of(
            new Berth("masthead", 186, 9, false),
            new Berth("masthead-edges", 186, 27, false),
            new Berth("halyard", 186, 56, false),
            new Berth("forearm", 172, 82, true),
            new Berth("chest", 104, 88, true),
            new Berth("motion", 186, 100, false),
            new Berth("deck", 246, 99, false),
            new Berth("locker", 256, 117, false),
            new Berth("cowling", 76, 104, true),
            new Berth("hull", 88, 124, true),
            new Berth("battery", 150, 122, false),
            new Berth("sounder", 216, 136, false));

    /** @param plug called with the name of the board that is chosen */
    Dinghy(Consumer<String> plug) {
        super(4);
        Map<String, SimulatedBoards.Entry> boards = SimulatedBoards.all().stream()
                .collect(Collectors.toMap(SimulatedBoards.Entry::name, Function.identity()));
        Pane boat = new Pane();
        boat.setMinSize(WIDTH, HEIGHT);
        boat.setPrefSize(WIDTH, HEIGHT);
        boat.setMaxSize(WIDTH, HEIGHT);
        boat.getChildren().addAll(path("sail", "M182 14 L182 92 L108 92 Q150 62 182 14 Z"));
        boat.getChildren().add(path("sail", "M191 24 Q232 66 262 92 L191 92 Z"));
        boat.getChildren().add(path("hull", "M80 100 L312 96 Q292 132 236 136 L124 136 Q92 132 80 100 Z"));
        Line mast = new Line(186, 9, 186, 100);
        mast.getStyleClass().add("mast");
        boat.getChildren().add(mast);
        for (Berth berth : BERTHS) {
            Button button = button(boards.get(berth.board()), plug);
            button.getStyleClass().setAll("berth");
            Circle dot = new Circle(5);
            dot.getStyleClass().add("berth-dot");
            button.setGraphic(dot);
            button.setContentDisplay(berth.left() ? ContentDisplay.RIGHT : ContentDisplay.LEFT);
            button.setLayoutY(berth.y() - 9);
            if (berth.left()) {
                button.layoutXProperty().bind(button.widthProperty().negate().add(berth.x() + 7));
            } else {
                button.setLayoutX(berth.x() - 7);
            }
            boat.getChildren().add(button);
        }
        FlowPane shed = new FlowPane(5, 5, Bench.small(Messages.of("bench.source.in-the-shed")));
        for (SimulatedBoards.Entry board : SimulatedBoards.all()) {
            if (BERTHS.stream().noneMatch(b -> b.board().equals(board.name()))) {
                Button button = button(board, plug);
                button.getStyleClass().setAll("small-button");
                shed.getChildren().add(button);
            }
        }
        getChildren().addAll(boat, shed);
    }

    private static Button button(SimulatedBoards.Entry board, Consumer<String> plug) {
        Button button = new Button(board.name());
        button.setId("plug-" + board.name());
        Tip.on(button, board.about());
        button.setAccessibleText(Messages.of("bench.source.simulated-board", board.name(), board.about()));
        button.setOnAction(event -> plug.accept(board.name()));
        return button;
    }

    private static SVGPath path(String style, String content) {
        SVGPath path = new SVGPath();
        path.setContent(content);
        path.getStyleClass().add(style);
        return path;
    }
}
