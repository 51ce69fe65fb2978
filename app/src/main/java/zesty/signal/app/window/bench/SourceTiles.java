package zesty.signal.app.window.bench;

import java.util.ArrayList;
import java.util.List;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;
import zesty.signal.app.window.desk.Desk;
import zesty.signal.app.window.lanes.StateSign;
import zesty.signal.app.window.lanes.Wording;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.core.rig.Source;
import zesty.signal.engine.LinkHealth;
import zesty.signal.engine.Sight;

/** A tile for each of several sources, with its state: pressing one takes it in hand, × lets it go. */
final class SourceTiles extends FlowPane {
    private static final PseudoClass IN_HAND = PseudoClass.getPseudoClass("in-hand");

    private final Desk desk;
    private final List<Button> tiles = new ArrayList<>();
    private final List<StateSign> signs = new ArrayList<>();
    private List<Source> shown = List.of();

    SourceTiles(Desk desk) {
        super(6, 6);
        this.desk = desk;
        setId("source-tiles");
        managedProperty().bind(visibleProperty());
        setMinHeight(Region.USE_PREF_SIZE);
    }

    void show(Sight live) {
        List<Source> sources = live.rig().sources();
        setVisible(sources.size() > 1);
        if (!isVisible()) {
            return;
        }
        if (sources.size() != tiles.size()
                || !sources.stream()
                        .map(Source::name)
                        .toList()
                        .equals(shown.stream().map(Source::name).toList())) {
            build(sources);
        }
        for (int i = 0; i < tiles.size(); i++) {
            LinkHealth link = live.health(i);
            tiles.get(i)
                    .setText((i + 1) + "  " + called(sources.get(i)) + "  " + Wording.speed(link.bytesPerSecond())
                            + ", " + Wording.state(link.state()));
            tiles.get(i).pseudoClassStateChanged(IN_HAND, i == desk.wire().source());
            signs.get(i).show(link.state(), desk.night().get() ? Color.web("#EEEADD") : Color.web("#22302A"));
        }
    }

    private static String called(Source source) {
        return source.name().isEmpty()
                ? LinkAddress.parse(source.setup().address()).shortName()
                : source.name();
    }

    private void build(List<Source> sources) {
        shown = sources;
        tiles.clear();
        signs.clear();
        getChildren().clear();
        for (int i = 0; i < sources.size(); i++) {
            int index = i;
            StateSign sign = new StateSign();
            Button tile = new Button();
            tile.setId("source-" + i);
            tile.setGraphic(sign);
            tile.getStyleClass().add("source-tile");
            tile.setTooltip(new Tooltip("show this source's bytes, health and format"));
            tile.setOnAction(event -> desk.sourceInHand().set(index));
            tiles.add(tile);
            signs.add(sign);
            HBox both = new HBox(2, tile);
            both.setAlignment(Pos.CENTER_LEFT);
            if (i > 0) {
                Button away = new Button("×");
                away.setId("leave-" + i);
                away.getStyleClass().add("tile-off");
                away.setTooltip(new Tooltip("let go of this source; its lanes go with it"));
                away.setOnAction(event -> desk.leave(index));
                both.getChildren().add(away);
            }
            getChildren().add(both);
        }
    }
}
