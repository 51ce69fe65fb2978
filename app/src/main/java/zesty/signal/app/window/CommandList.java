package zesty.signal.app.window;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.PlainScroll;
import zesty.signal.core.text.Messages;

/** Every command and its key, over the window. */
final class CommandList extends StackPane {
    private static final int COLUMNS = 2;

    CommandList(List<Command> commands, Runnable close) {
        getStyleClass().add("command-shade");
        setId("command-list");
        Label title = new Label(Messages.of("window.what-you-can-do-and-its-key"));
        title.getStyleClass().add("bench-title");
        VBox[] columns = new VBox[COLUMNS];
        for (int i = 0; i < COLUMNS; i++) {
            columns[i] = new VBox(9);
        }
        List<String> groups = commands.stream().map(Command::group).distinct().toList();
        int half = commands.size() / 2;
        int placed = 0;
        for (String group : groups) {
            List<Command> members =
                    commands.stream().filter(c -> c.group().equals(group)).toList();
            columns[placed + members.size() / 2 >= half ? 1 : 0].getChildren().add(group(group, members));
            placed += members.size();
        }
        for (VBox column : columns) {
            HBox.setHgrow(column, Priority.ALWAYS);
            column.setPrefWidth(300);
        }
        HBox both = new HBox(36, columns);
        Label hint = new Label(Messages.of("window.escape-or-closes-this-list-the"));
        hint.getStyleClass().add("hint");
        hint.setWrapText(true);
        VBox sheet = new VBox(14, title, both, hint);
        sheet.getStyleClass().add("command-sheet");
        PlainScroll scroll = new PlainScroll(sheet);
        scroll.getStyleClass().add("command-scroll");
        scroll.setMaxHeight(USE_PREF_SIZE);
        getChildren().add(scroll);
        setAlignment(Pos.CENTER);
        setOnMouseClicked(event -> close.run());
    }

    private static VBox group(String name, List<Command> members) {
        Label heading = new Label(name);
        heading.getStyleClass().add("command-group");
        GridPane grid = new GridPane();
        grid.setHgap(12);
        grid.setVgap(2);
        for (int row = 0; row < members.size(); row++) {
            Label key = new Label(members.get(row).keyText());
            key.getStyleClass().add("key");
            Label text = new Label(members.get(row).text());
            text.setWrapText(true);
            text.setMinHeight(USE_PREF_SIZE);
            grid.addRow(row, key, text);
        }
        return new VBox(5, heading, grid);
    }
}
