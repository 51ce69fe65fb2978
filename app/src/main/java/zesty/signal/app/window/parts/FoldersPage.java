package zesty.signal.app.window.parts;

import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.PlainScroll;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.TakeFolders;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.app.wording.Wording;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Shelf;

/** The folders that takes are looked for in, and the bin with what was removed. */
final class FoldersPage extends WidePage {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern(
                    Messages.of("parts.moment-as-written"), Messages.language())
            .withZone(ZoneId.systemDefault());

    private final Workspace workspace;
    private final VBox folders = new VBox(5);
    private final VBox bin = new VBox(5);
    private final TextField more = new TextField();

    FoldersPage(Workspace workspace) {
        super("folders", Messages.of("parts.folders-and-bin"));
        this.workspace = workspace;
        more.setId("folder-path");
        more.setPromptText(Messages.of("parts.a-folder-with-takes-such-as-one-on"));
        more.setPrefColumnCount(36);
        more.setOnAction(event -> add());
        Button add = button(
                Messages.of("parts.add"),
                "folder-add",
                Messages.of("parts.shows-the-takes-of-this-folder-too"),
                this::add);
        HBox adding = new HBox(8, more, add);
        adding.setAlignment(Pos.CENTER_LEFT);
        VBox all = new VBox(
                10, group(Messages.of("parts.folders")), folders, adding, group(Messages.of("parts.bin")), bin);
        PlainScroll scroll = new PlainScroll(all);
        fill(scroll);
        show();
    }

    private static Label group(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("table-group");
        return label;
    }

    private static Button button(String text, String id, String tip, Runnable action) {
        Button button = new Button(text);
        button.setId(id);
        button.getStyleClass().setAll("small-button");
        button.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(button, tip);
        button.setOnAction(event -> action.run());
        return button;
    }

    private void add() {
        try {
            if (more.getText().isBlank()) {
                throw new InvalidPathException("", "empty");
            }
            workspace.takes().addFolder(Path.of(more.getText().strip()), () -> {
                more.clear();
                show();
            });
        } catch (InvalidPathException e) {
            workspace.trouble(Messages.of("parts.is-no-folder-write-its-whole-path", more.getText()));
        }
    }

    private void show() {
        workspace.takes().folders(this::showFolders);
        workspace.takes().removed(this::showBin);
    }

    private void showFolders(List<TakeFolders.State> states) {
        folders.getChildren().clear();
        for (TakeFolders.State one : states) {
            String words = one.there()
                    ? one.takes() + (one.takes() == 1 ? Messages.of("parts.take") : Messages.of("parts.takes"))
                    : Messages.of("parts.not-there-now");
            HBox row = new HBox(10, new Label(one.folder().toString()), hint(words));
            if (!one.own()) {
                row.getChildren()
                        .add(button(
                                Messages.of("parts.take-off-the-list"),
                                "folder-off",
                                Messages.of("parts.the-folder-and-its-takes-stay-as"),
                                () -> workspace.takes().removeFolder(one.folder(), this::show)));
            }
            row.setAlignment(Pos.CENTER_LEFT);
            folders.getChildren().add(row);
        }
    }

    private void showBin(List<Shelf.Removed> removed) {
        bin.getChildren().clear();
        if (removed.isEmpty()) {
            bin.getChildren().add(hint(Messages.of("parts.empty-a-take-that-is-removed-lies")));
            return;
        }
        long bytes = removed.stream().mapToLong(Shelf.Removed::bytes).sum();
        HBox head = new HBox(
                10,
                hint(Messages.of(
                        "parts.each-goes-for-good-after-30-days",
                        removed.size()
                                + (removed.size() == 1 ? Messages.of("parts.take-2") : Messages.of("parts.takes-2"))
                                + Wording.size(bytes))),
                button(
                        Messages.of("parts.empty-the-bin"),
                        "bin-empty",
                        Messages.of("parts.deletes-these-takes-for-good"),
                        () -> confirm(removed)));
        head.setAlignment(Pos.CENTER_LEFT);
        bin.getChildren().add(head);
        for (Shelf.Removed one : removed) {
            HBox row = new HBox(
                    10,
                    new Label(one.file().getFileName().toString()),
                    hint(DAY.format(one.since()) + ", " + Wording.size(one.bytes())),
                    button(
                            Messages.of("parts.put-back"),
                            "bin-back",
                            Messages.of("parts.puts-it-back-on-the-shelf"),
                            () -> workspace.takes().putBack(one, this::show)));
            row.setAlignment(Pos.CENTER_LEFT);
            bin.getChildren().add(row);
        }
    }

    /** What cannot be taken back is asked twice, in the same place. */
    private void confirm(List<Shelf.Removed> removed) {
        HBox head = (HBox) bin.getChildren().get(0);
        head.getChildren()
                .set(
                        1,
                        button(
                                Messages.of("parts.delete-for-good"),
                                "bin-empty-sure",
                                Messages.of("parts.this-cannot-be-taken-back"),
                                () -> workspace.takes().emptyBin(removed, this::show)));
    }
}
