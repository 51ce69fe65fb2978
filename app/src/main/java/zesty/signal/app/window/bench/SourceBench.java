package zesty.signal.app.window.bench;

import java.io.File;
import java.nio.charset.StandardCharsets;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.stage.FileChooser;
import zesty.signal.app.window.desk.Desk;
import zesty.signal.app.window.desk.Stop;
import zesty.signal.app.window.lanes.StateSign;
import zesty.signal.app.window.lanes.Wording;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.link.SerialPorts;
import zesty.signal.boards.sim.SimulatedBoards;
import zesty.signal.core.scale.Digits;
import zesty.signal.engine.LinkHealth;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Sight;

/** Source: sockets to plug into at the left; the link's health and the bytes as they come at the right. */
public final class SourceBench extends Bench {
    private static final int RIBBON_BYTES = 1400;
    private static final long LOOK_NANOS = 2_000_000_000L;

    private final VBox sockets = new VBox(8);
    private final VBox ports = new VBox(6);
    private final VBox recent = new VBox(6);
    private final Label state = new Label();
    private final StateSign sign = new StateSign();
    private final Label health = new Label();
    private final Label ribbon = new Label();
    private List<SerialPorts.Found> found = List.of();
    private List<String> recentShown = List.of();
    private boolean portsShown;
    private long looked;
    private Integer baud = SerialPorts.USUAL_SPEEDS.get(0);

    public SourceBench(Desk desk) {
        super(desk, Stop.SOURCE);
        recent.getStyleClass().add("socket-group");
        sockets.getChildren()
                .addAll(
                        recent,
                        group("Serial ports", ports),
                        group("Simulated boards", boards()),
                        group("Network board", network()),
                        group("A file of bytes", file()),
                        group("Any address", address()));
        ScrollPane scroll = new ScrollPane(sockets);
        scroll.setFitToWidth(true);
        scroll.setMinWidth(380);
        scroll.setPrefWidth(380);
        scroll.getStyleClass().add("plain-scroll");
        state.getStyleClass().add("link-state");
        state.setGraphic(sign);
        state.setGraphicTextGap(7);
        health.getStyleClass().add("hint");
        health.setWrapText(true);
        health.setMinHeight(Region.USE_PREF_SIZE);
        ribbon.getStyleClass().add("ribbon");
        ribbon.setId("ribbon");
        ribbon.setMinSize(0, 0);
        ribbon.setMaxSize(Double.MAX_VALUE, Double.MAX_VALUE);
        ribbon.setAlignment(Pos.BOTTOM_LEFT);
        VBox.setVgrow(ribbon, Priority.ALWAYS);
        VBox right = new VBox(6, state, health, small("The bytes as they come"), ribbon);
        right.setMinWidth(0);
        HBox.setHgrow(right, Priority.ALWAYS);
        HBox both = new HBox(14, scroll, right);
        both.setMinHeight(0);
        VBox.setVgrow(both, Priority.ALWAYS);
        getChildren().add(both);
    }

    private static Node group(String title, Node content) {
        VBox box = new VBox(5, small(title), content);
        box.getStyleClass().add("socket-group");
        return box;
    }

    private Button plug(String text, String id, Runnable action) {
        Button button = new Button(text);
        button.getStyleClass().add("plug");
        button.setId(id);
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setOnAction(event -> action.run());
        return button;
    }

    private HBox socket(String name, String about, Node... ends) {
        Label title = new Label(name);
        title.getStyleClass().add("socket-name");
        Label words = small(about);
        words.setWrapText(true);
        VBox text = new VBox(1, title, words);
        text.setMinWidth(0);
        HBox.setHgrow(text, Priority.ALWAYS);
        HBox box = new HBox(8, text);
        box.getChildren().addAll(ends);
        box.setAlignment(Pos.CENTER_LEFT);
        box.getStyleClass().add("socket");
        return box;
    }

    private Node boards() {
        VBox box = new VBox(6);
        for (SimulatedBoards.Entry board : SimulatedBoards.all()) {
            Button plug = plug("Connect", "plug-" + board.name(), () -> desk.connect("sim:" + board.name()));
            box.getChildren().add(socket(board.name(), board.about(), plug));
        }
        return box;
    }

    private Node address() {
        TextField text = new TextField();
        text.setId("address");
        text.setPromptText("serial:/dev/ttyACM0@115200");
        text.setTooltip(new Tooltip(LinkAddress.FORMS));
        HBox.setHgrow(text, Priority.ALWAYS);
        Runnable go = () -> desk.connect(text.getText().strip());
        text.setOnAction(event -> go.run());
        return new HBox(6, text, plug("Connect", "plug-address", go));
    }

    private Node network() {
        TextField host = new TextField("127.0.0.1");
        host.setTooltip(new Tooltip("the board's name or number on the network"));
        TextField port = new TextField("7070");
        port.setPrefColumnCount(5);
        port.setTooltip(new Tooltip("the port it listens on"));
        HBox.setHgrow(host, Priority.ALWAYS);
        Runnable go = () -> desk.connect(
                "tcp:" + host.getText().strip() + ":" + port.getText().strip());
        host.setOnAction(event -> go.run());
        port.setOnAction(event -> go.run());
        return new HBox(6, host, port, plug("Connect", "plug-network", go));
    }

    private Node file() {
        Button choose = plug("Choose…", "plug-file", () -> {
            File file = new FileChooser().showOpenDialog(getScene().getWindow());
            if (file != null) {
                desk.connect("file:" + file.getAbsolutePath());
            }
        });
        return socket("A capture from disk", "read from its start to its end", choose);
    }

    @Override
    public void opened(Sight sight) {
        looked = 0;
        show(sight);
    }

    @Override
    public void show(Sight sight) {
        head(sight);
        long now = System.nanoTime();
        if (now - looked > LOOK_NANOS || looked == 0) {
            looked = now;
            desk.fetch("the serial ports could not be listed", SerialPorts::list, this::showPorts);
        }
        showRecent();
        Sight live = desk.liveSight(now);
        LinkHealth link = live.health();
        state.setText(
                link.state() == LinkState.IDLE
                        ? "Not connected"
                        : Wording.state(link.state()) + " · "
                                + LinkAddress.parse(live.rig().source()).words());
        sign.show(link.state(), desk.night().get() ? Color.web("#EEEADD") : Color.web("#22302A"));
        health.setText(link.state() == LinkState.IDLE ? "Pick one of the sockets at the left." : words(live));
        ribbon.setText(readable(desk.newestBytes(RIBBON_BYTES)));
    }

    private static String words(Sight live) {
        LinkHealth link = live.health();
        StringBuilder text = new StringBuilder();
        if (!link.reason().isEmpty()) {
            text.append(link.reason()).append("\n");
        }
        text.append(Wording.speed(link.bytesPerSecond()))
                .append(" · ")
                .append(Digits.of(live.rateHz()))
                .append(" samples/s · ")
                .append(link.rows())
                .append(" samples · ")
                .append(link.setAside())
                .append(" lines set aside\n")
                .append(link.gaps())
                .append(link.gaps() == 1 ? " gap, " : " gaps, ")
                .append(link.lostRows())
                .append(" samples lost · opened anew ")
                .append(link.reconnects())
                .append(link.reconnects() == 1 ? " time" : " times");
        if (!Double.isNaN(link.driftPpm())) {
            text.append(" · board's clock ")
                    .append(Digits.fixed(Math.abs(link.driftPpm()), 0))
                    .append(link.driftPpm() < 0 ? " ppm slow" : " ppm fast");
        }
        return text.toString();
    }

    private void showPorts(List<SerialPorts.Found> now) {
        if (now.equals(found) && portsShown) {
            return;
        }
        portsShown = true;
        found = now;
        ports.getChildren().clear();
        for (SerialPorts.Found port : now) {
            ComboBox<Integer> speed = new ComboBox<>();
            speed.getItems().setAll(SerialPorts.USUAL_SPEEDS);
            speed.setValue(baud);
            speed.setTooltip(new Tooltip("speed in baud, the same as the board's program sets"));
            speed.setOnAction(event -> baud = speed.getValue());
            Button plug = plug(
                    "Connect",
                    "plug-" + port.path(),
                    () -> desk.connect("serial:" + port.path() + "@" + speed.getValue()));
            ports.getChildren().add(socket(port.path(), port.about(), speed, plug));
        }
        if (now.isEmpty()) {
            ports.getChildren().add(small("None found. Plug the board in; it shows up here within two seconds."));
        }
    }

    private void showRecent() {
        List<String> now = desk.settings().recent();
        if (now.equals(recentShown)) {
            return;
        }
        recentShown = now;
        recent.getChildren().setAll(small("Used lately"));
        for (String source : now) {
            String words;
            try {
                words = LinkAddress.parse(source).words();
            } catch (IllegalArgumentException e) {
                continue;
            }
            recent.getChildren()
                    .add(socket(words, source, plug("Connect", "again-" + source, () -> desk.connect(source))));
        }
    }

    /** Control characters become dots, so that rubbish looks like rubbish and a line end stays one. */
    private static String readable(byte[] bytes) {
        StringBuilder text = new StringBuilder();
        for (char c : new String(bytes, StandardCharsets.UTF_8).toCharArray()) {
            if (c != '\r') {
                text.append(c == '\n' || c >= 0x20 && c != 0x7f ? c : '·');
            }
        }
        String[] lines = text.toString().split("\n", -1);
        int from = Math.max(0, lines.length - 16);
        return String.join("\n", java.util.Arrays.asList(lines).subList(from, lines.length));
    }
}
