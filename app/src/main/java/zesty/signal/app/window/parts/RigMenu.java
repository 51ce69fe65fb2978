package zesty.signal.app.window.parts;

import java.io.File;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.StackPane;
import javafx.stage.FileChooser;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Rigs;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.text.Messages;

/** The rig's name in the header: what is done with rigs opens from it, and a name is written in its place. */
final class RigMenu extends StackPane {
    private final Workspace workspace;
    private final MenuButton name = new MenuButton();
    private final TextField field = new TextField();
    private final Menu others = new Menu(Messages.of("parts.open"));
    private final Menu away = new Menu(Messages.of("parts.remove-one"));
    private Consumer<String> named = text -> {};

    RigMenu(Workspace workspace) {
        HelpPlace.mark(this, "rig");
        this.workspace = workspace;
        name.setId("rig");
        name.getStyleClass().add("rig-menu");
        Tip.on(name, Messages.of("parts.name-this-rig-save-it-open-another"));
        others.setId("other-rigs");
        name.getItems()
                .addAll(
                        item(Messages.of("parts.name-it"), "rig-rename", () -> write(workspace.rigs()::rename)),
                        item(Messages.of("parts.save"), "rig-keep", () -> workspace
                                .rigs()
                                .keep(workspace.shown().rig().name())),
                        item(Messages.of("parts.save-as"), "rig-copy", () -> write(workspace.rigs()::keep)),
                        new SeparatorMenuItem(),
                        others,
                        item(Messages.of("parts.begin-an-empty-one"), "rig-new", () -> workspace
                                .rigs()
                                .begin()),
                        away,
                        new SeparatorMenuItem(),
                        item(Messages.of("parts.export"), "rig-share", this::share),
                        item(Messages.of("parts.import-2"), "rig-open", this::open));
        name.setOnShowing(event -> workspace.rigs().list(this::fill));
        field.setId("rig-name");
        field.setPrefColumnCount(22);
        field.setVisible(false);
        field.managedProperty().bind(field.visibleProperty());
        name.managedProperty().bind(name.visibleProperty());
        name.visibleProperty().bind(field.visibleProperty().not());
        field.setOnAction(event -> {
            field.setVisible(false);
            named.accept(field.getText());
        });
        field.setOnKeyPressed(event -> {
            if (event.getCode() == KeyCode.ESCAPE) {
                field.setVisible(false);
                event.consume();
            }
        });
        field.focusedProperty().addListener((p, was, is) -> field.setVisible(field.isVisible() && is));
        getChildren().addAll(name, field);
        fill(List.of());
    }

    private static MenuItem item(String text, String id, Runnable action) {
        MenuItem item = new MenuItem(text);
        item.setId(id);
        item.setOnAction(event -> action.run());
        return item;
    }

    private void fill(List<Rigs.Kept> kept) {
        others.getItems().clear();
        away.getItems().clear();
        for (Rigs.Kept rig : kept) {
            others.getItems().add(item(rig.name(), "use-rig-" + rig.file().getFileName(), () -> workspace
                    .rigs()
                    .use(rig.file())));
            away.getItems()
                    .add(item(rig.name(), "remove-rig", () -> workspace.rigs().remove(rig)));
        }
        if (kept.isEmpty()) {
            MenuItem none = new MenuItem(Messages.of("parts.none-is-saved-yet"));
            none.setDisable(true);
            others.getItems().add(none);
        }
        away.setDisable(kept.isEmpty());
    }

    /** Opens it as the key does. */
    void unfold() {
        if (!name.isDisabled()) {
            name.requestFocus();
            name.show();
        }
    }

    /** @param stored whether a take is open, whose own rig it is */
    void show(String title, boolean stored) {
        if (!title.equals(name.getText())) {
            name.setText(title);
        }
        name.setDisable(stored);
    }

    private void write(Consumer<String> what) {
        named = what;
        field.setText(workspace.shown().rig().name());
        field.setVisible(true);
        field.requestFocus();
        field.selectAll();
    }

    private static FileChooser chooser() {
        FileChooser chooser = new FileChooser();
        chooser.getExtensionFilters()
                .add(new FileChooser.ExtensionFilter(Messages.of("parts.rigs"), "*.zrig", "*.json"));
        return chooser;
    }

    private void share() {
        FileChooser chooser = chooser();
        chooser.setInitialFileName("rig.zrig");
        File file = chooser.showSaveDialog(getScene().getWindow());
        if (file != null) {
            workspace.rigs().share(file.toPath());
        }
    }

    private void open() {
        File file = chooser().showOpenDialog(getScene().getWindow());
        if (file != null) {
            workspace.rigs().use(file.toPath());
        }
    }
}
