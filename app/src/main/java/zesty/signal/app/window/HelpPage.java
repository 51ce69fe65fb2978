package zesty.signal.app.window;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import zesty.signal.app.help.HelpBook;
import zesty.signal.app.help.HelpTopic;
import zesty.signal.app.window.drawing.PlainScroll;
import zesty.signal.core.text.Messages;

/** Help over the window: what is looked for at the left, what is told of it at the right. JavaFX thread. */
final class HelpPage extends StackPane {
    private static final double LIST = 230;
    private static final double SHEET = 880;

    private final HelpBook book;
    private final TextField search = new TextField();
    private final ListView<HelpTopic> list = new ListView<>();
    private final Label group = new Label();
    private final Label title = new Label();
    private final VBox text = new VBox(9);
    private final Label none = new Label();
    private final StackPane picture = new StackPane();
    private String meant = "";

    HelpPage(HelpBook book, Runnable close) {
        this.book = book;
        getStyleClass().add("command-shade");
        setId("help");
        search.setId("help-search");
        search.setPromptText(Messages.of("window.look-for-a-word"));
        search.textProperty().addListener((p, was, is) -> look());
        search.setOnKeyPressed(event -> {
            if (event.getCode() == KeyCode.DOWN) {
                list.requestFocus();
                event.consume();
            }
        });
        list.setId("help-list");
        list.setCellFactory(view -> new ListCell<>() {
            @Override
            protected void updateItem(HelpTopic topic, boolean empty) {
                super.updateItem(topic, empty);
                setText(empty || topic == null ? "" : topic.title());
            }
        });
        list.getSelectionModel().selectedItemProperty().addListener((p, was, is) -> tell(is));
        VBox.setVgrow(list, Priority.ALWAYS);
        none.getStyleClass().add("hint");
        none.setWrapText(true);
        none.setMinHeight(USE_PREF_SIZE);
        none.managedProperty().bind(none.textProperty().isNotEmpty());
        VBox left = new VBox(8, search, none, list);
        left.setMinWidth(LIST);
        left.setPrefWidth(LIST);
        left.setMaxWidth(LIST);
        group.getStyleClass().add("hint");
        title.setId("help-title");
        title.getStyleClass().add("bench-title");
        text.setId("help-text");
        VBox right = new VBox(8, group, title, picture, text);
        PlainScroll scroll = new PlainScroll(right);
        HBox.setHgrow(scroll, Priority.ALWAYS);
        HBox both = new HBox(22, left, scroll);
        VBox.setVgrow(both, Priority.ALWAYS);
        Label hint = new Label(Messages.of("window.f1-shows-what-belongs-to-the-place"));
        hint.getStyleClass().add("hint");
        VBox sheet = new VBox(12, both, hint);
        sheet.getStyleClass().add("command-sheet");
        sheet.setMaxWidth(SHEET);
        sheet.setOnMouseClicked(event -> event.consume());
        getChildren().add(sheet);
        setAlignment(Pos.CENTER);
        setOnMouseClicked(event -> close.run());
        list.getItems().setAll(book.all());
    }

    /** Tells of a topic. @param id behind a # the word that the paragraph begins with which is meant */
    void show(String id) {
        search.clear();
        int part = id.indexOf('#');
        meant = part < 0 ? "" : id.substring(part + 1) + ":";
        HelpTopic wanted = book.topic(part < 0 ? id : id.substring(0, part))
                .orElse(book.all().get(0));
        list.getSelectionModel().clearSelection();
        list.getSelectionModel().select(wanted);
        list.scrollTo(Math.max(0, list.getItems().indexOf(wanted) - 2));
        search.requestFocus();
    }

    private void look() {
        List<HelpTopic> found = book.find(search.getText());
        none.setText(
                found.isEmpty()
                        ? Messages.of(
                                "window.nothing-about-try-another-word",
                                search.getText().strip())
                        : "");
        list.getItems().setAll(found);
        if (!found.isEmpty() && !search.getText().isBlank()) {
            list.getSelectionModel().selectFirst();
        }
    }

    private void tell(HelpTopic topic) {
        if (topic == null) {
            return;
        }
        group.setText(topic.group());
        title.setText(topic.title());
        text.getChildren().clear();
        picture.getChildren().setAll(HelpPicture.of(topic.id()).stream().toList());
        for (String paragraph : topic.paragraphs()) {
            Label label = new Label(paragraph);
            label.setWrapText(true);
            label.setMinHeight(USE_PREF_SIZE);
            if (!meant.isEmpty() && paragraph.startsWith(meant)) {
                label.getStyleClass().add("help-meant");
            }
            text.getChildren().add(label);
        }
    }
}
