package zesty.signal.app.window.bench.read;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.ComboBox;
import javafx.scene.layout.FlowPane;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Port;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.text.Messages;

/** Which column is which of a reader that reads several. */
final class PortRow extends FlowPane {
    private final Workspace workspace;

    PortRow(Workspace workspace) {
        super(6, 6);
        this.workspace = workspace;
        setAlignment(Pos.CENTER_LEFT);
        setVisible(false);
    }

    /** @param offered the columns that come with the same rows */
    void show(ReaderSetup reader, List<String> offered) {
        getChildren().clear();
        if (reader == null || reader.readerKind().ports().size() < 2 || offered.size() < 2) {
            return;
        }
        for (int i = 0; i < reader.columns().size(); i++) {
            Port port = reader.readerKind().ports().get(i);
            int index = i;
            ComboBox<String> box = new ComboBox<>();
            box.setId("port-" + port.key());
            box.getItems().setAll(offered);
            box.setValue(reader.columns().get(i));
            Tip.on(box, port.words() + (port.unit().isEmpty() ? "" : ", in " + port.unit()));
            box.setOnAction(event -> replug(reader, index, box.getValue()));
            getChildren().addAll(Bench.small(port.key()), box);
        }
        List<String> free =
                offered.stream().filter(c -> !reader.columns().contains(c)).toList();
        int next = reader.columns().size();
        if (reader.readerKind().fewestPorts() == 1
                && next < reader.readerKind().ports().size()
                && !free.isEmpty()) {
            ComboBox<String> more = new ComboBox<>();
            more.setId("port-more");
            more.setAccessibleText(Messages.of("bench.read.another-column-to-read"));
            more.setPromptText(Messages.of(
                    "bench.read.add", reader.readerKind().ports().get(next).words()));
            more.getItems().setAll(free);
            more.setOnAction(event -> {
                List<String> columns = new ArrayList<>(reader.columns());
                columns.add(more.getValue());
                workspace.change(rig -> rig.withoutReader(reader.id()).withReader(reader.onColumns(columns)));
            });
            getChildren().add(more);
        }
    }

    /** Reads another column at a port; where that was at another port, the two change places. */
    private void replug(ReaderSetup reader, int port, String other) {
        List<String> columns = new ArrayList<>(reader.columns());
        int was = columns.indexOf(other);
        if (was >= 0) {
            columns.set(was, columns.get(port));
        }
        columns.set(port, other);
        ReaderSetup changed = reader.onColumns(columns);
        workspace.change(rig -> rig.withoutReader(reader.id()).withReader(changed));
        workspace.view().focus().set(columns.get(0));
    }
}
