package zesty.signal.app.window.parts;

import java.nio.file.InvalidPathException;
import java.util.List;
import java.util.Locale;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.HomePath;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Shelf;

/** Where a page about takes goes, and the press that writes it. */
final class ReportForm extends VBox {
    private final Workspace workspace;

    ReportForm(Workspace workspace, List<Shelf.Entry> of) {
        super(4);
        this.workspace = workspace;
        String name = of.size() == 1 ? of.get(0).title().replaceAll("[^\\p{L}\\p{N} .,-]", "_") : of.size() + " takes";
        TextField path = new TextField(HomePath.shown(name + ".pdf"));
        path.setId("report-path");
        Tip.on(path, Messages.of("parts.where-the-page-goes-pdf-to-print"));
        HBox.setHgrow(path, Priority.ALWAYS);
        Runnable go = () -> write(of, path.getText().strip());
        path.setOnAction(event -> go.run());
        Button write = TakePanel.button(
                Messages.of("parts.report"), "write-report", Messages.of("parts.write-a-page-with-lanes-numbers"), go);
        getChildren()
                .addAll(TakePanel.hint(Messages.of("parts.a-page-to-print-pdf-or-for-a")), new HBox(6, path, write));
    }

    private void write(List<Shelf.Entry> of, String path) {
        boolean right = path.toLowerCase(Locale.ROOT).matches(".+\\.(pdf|html)");
        try {
            if (!right) {
                throw new InvalidPathException(path, "ending");
            }
            workspace.takes().report(of.stream().map(Shelf.Entry::file).toList(), HomePath.of(path));
        } catch (InvalidPathException e) {
            workspace.trouble(Messages.of("parts.is-no-name-for-a-page-write-for", path));
        }
    }
}
