package zesty.signal.app.window.bench.source;

import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.PlainScroll;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.app.wording.Wording;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.LinkHealth;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.StreamSnapshot;

/** Source: sockets to plug into at the left; the link's health and the bytes as a running ribbon at the right. */
public final class SourceBench extends Bench {
    private static final double SOCKETS_WIDTH = 364;

    private final Sockets sockets;
    private final Label health = new Label();
    private final Trials trials = new Trials();
    private final Ribbon ribbon;
    private final Pocket pocket;
    private final Orders orders;
    private final Welcome welcome;
    private final VBox says;

    public SourceBench(Workspace workspace) {
        super(workspace, Stop.SOURCE);
        sockets = new Sockets(workspace, trials);
        ribbon = new Ribbon(workspace);
        pocket = new Pocket(workspace);
        orders = new Orders(workspace);
        welcome = new Welcome(workspace);
        PlainScroll scroll = new PlainScroll(sockets);
        scroll.setMinWidth(SOCKETS_WIDTH);
        scroll.setPrefWidth(SOCKETS_WIDTH);
        health.setId("health");
        health.getStyleClass().add("hint");
        health.setWrapText(true);
        health.setMinHeight(Region.USE_PREF_SIZE);
        says = new VBox(6, health, trials, ribbon, pocket, orders);
        says.setMinWidth(0);
        StackPane right = new StackPane(says, welcome);
        right.setMinWidth(0);
        HBox.setHgrow(right, Priority.ALWAYS);
        HBox both = new HBox(16, scroll, right);
        VBox.setVgrow(both, Priority.ALWAYS);
        getChildren().add(both);
    }

    @Override
    public void opened(Snapshot snapshot) {
        sockets.opened();
        show(snapshot);
    }

    @Override
    public void show(Snapshot snapshot) {
        head(snapshot);
        Snapshot live = workspace.live().snapshot(System.nanoTime());
        // A stored take that is open over it may have more sources than run.
        int source = Math.min(
                workspace.sourceActions().source(), live.rig().sources().size() - 1);
        LinkHealth link = live.health(source);
        boolean idle = link.state() == LinkState.IDLE && !trials.isVisible();
        sockets.show(live);
        welcome.setVisible(idle);
        says.setVisible(!idle);
        health.setText(idle ? "" : words(live, source));
        ribbon.show(link, live.rig(), source);
        pocket.show(link);
        orders.show();
    }

    /** Twice the standard uncertainty, where arrival alone tells the rate. */
    private static String doubt(double share) {
        return share > 0 ? " ± " + Digits.of(Math.max(0.01, Math.rint(share * 2e4) / 100)) + " %" : "";
    }

    private static String words(Snapshot live, int source) {
        LinkHealth link = live.health(source);
        StringBuilder text = new StringBuilder();
        if (!link.reason().isEmpty()) {
            text.append(link.reason()).append("\n");
        }
        text.append(Wording.speed(link.bytesPerSecond()))
                .append(" · ")
                .append(Messages.of("bench.source.samples"))
                .append(Wording.rate(live.rateHz(source)))
                .append(doubt(link.rateUncertainty()))
                .append(" · ")
                .append(link.rows())
                .append(Messages.of("bench.source.samples-2"))
                .append(link.rejectedLines())
                .append(
                        link.rejectedLines() == 1
                                ? Messages.of("bench.source.line-rejected")
                                : Messages.of("bench.source.lines-rejected"))
                .append(link.gaps())
                .append(link.gaps() == 1 ? Messages.of("bench.source.gap") : Messages.of("bench.source.gaps"))
                .append(link.lostRows())
                .append(Messages.of("bench.source.samples-lost-reconnected"))
                .append(link.reconnects())
                .append(link.reconnects() == 1 ? Messages.of("bench.source.time") : Messages.of("bench.source.times"));
        double stated = live.rig().sources().get(source).setup().statedRateHz();
        if (!Double.isNaN(stated)) {
            text.append(Messages.of("bench.source.declared"))
                    .append(Digits.of(stated))
                    .append("/s");
        }
        if (link.jitterSeconds() > 0) {
            text.append(Messages.of("bench.source.jitter"))
                    .append(Digits.fixed(link.jitterSeconds() * 1000, 0))
                    .append(" ms");
        }
        if (!Double.isNaN(link.driftPpm())) {
            text.append(Messages.of("bench.source.board-s-clock"))
                    .append(Digits.fixed(Math.abs(link.driftPpm()), 0))
                    .append(
                            link.driftPpm() < 0
                                    ? Messages.of("bench.source.ppm-slow")
                                    : Messages.of("bench.source.ppm-fast"));
        }
        if (source > 0 && !Double.isNaN(link.shiftSeconds())) {
            text.append(Messages.of("bench.source.its-own-time-is-moved-by"))
                    .append(Digits.fixed(link.shiftSeconds(), 3))
                    .append(Messages.of("bench.source.s-onto-the-common-time-line"));
        }
        stations(text, live, source);
        return text.toString();
    }

    /** Each station with its own state: one may be lost while the others go on. */
    private static void stations(StringBuilder text, Snapshot live, int source) {
        long now = System.nanoTime();
        for (StreamSnapshot stream : live.streams()) {
            if (stream.source() == source && !Double.isNaN(stream.station())) {
                LinkState own = live.state(stream, now);
                text.append(
                                text.lastIndexOf(Messages.of("bench.source.station")) < 0
                                        ? Messages.of("bench.source.station")
                                        : "   ·   ")
                        .append(Digits.exact(stream.station()))
                        .append(
                                own == LinkState.LOST
                                        ? Messages.of("bench.source.lost-silent-for")
                                        : Messages.of("bench.source.live-received"))
                        .append(Digits.fixed(stream.silenceSeconds(now), 1))
                        .append(own == LinkState.LOST ? " s" : Messages.of("bench.source.s-ago"));
            }
        }
    }
}
