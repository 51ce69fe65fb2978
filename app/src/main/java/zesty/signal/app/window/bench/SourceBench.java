package zesty.signal.app.window.bench;

import java.io.File;
import java.util.List;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
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
import zesty.signal.boards.sim.Fault;
import zesty.signal.boards.sim.SimulatedBoards;
import zesty.signal.core.rig.Source;
import zesty.signal.core.scale.Digits;
import zesty.signal.engine.LinkHealth;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Sight;
import zesty.signal.engine.SpeedFinder;
import zesty.signal.engine.StrandSight;

/** Source: sockets to plug into at the left; the link's health and the bytes as they come at the right. */
public final class SourceBench extends Bench {
    private static final long LOOK_NANOS = 1_500_000_000L;

    private static final List<String> LINES = List.of("8N1", "8E1", "8O1", "7E1", "7O1", "8N2");

    private final VBox sockets = new VBox(8);
    private final VBox ports = new VBox(6);
    private final VBox recent = new VBox(6);
    private final Label state = new Label();
    private final StateSign sign = new StateSign();
    private final Label health = new Label();
    private final SourceTiles tiles;
    private final CheckBox beside = new CheckBox("Add it beside the source that runs");
    private final ByteView bytes;
    private final Orders orders;
    private final VBox trials = new VBox(4);
    private final TextField warmUp = new TextField();
    private final TextField stated = new TextField();
    private List<SerialPorts.Found> found = List.of();
    private List<String> recentShown = List.of();
    private boolean portsShown;
    private Fault fault;
    private long looked;
    private Integer baud = SerialPorts.USUAL_SPEEDS.get(0);

    public SourceBench(Desk desk) {
        super(desk, Stop.SOURCE);
        tiles = new SourceTiles(desk);
        beside.setId("beside");
        beside.setTooltip(new Tooltip("connecting then adds a source instead of replacing the one that runs"));
        beside.managedProperty().bind(beside.visibleProperty());
        bytes = new ByteView(desk);
        orders = new Orders(desk);
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
        scroll.getStyleClass().add("plain-scroll");
        state.getStyleClass().add("link-state");
        state.setGraphic(sign);
        state.setGraphicTextGap(7);
        health.getStyleClass().add("hint");
        health.setWrapText(true);
        health.setMinHeight(Region.USE_PREF_SIZE);
        trials.managedProperty().bind(trials.visibleProperty());
        trials.setVisible(false);
        trials.setId("trials");
        trials.getStyleClass().add("socket-group");
        warmUp.setId("warm-up");
        warmUp.setPrefColumnCount(4);
        warmUp.setTooltip(new Tooltip("for so long after the link opens, samples are kept but not read"));
        warmUp.setOnAction(event -> warmUp());
        stated.setId("stated-rate");
        stated.setPrefColumnCount(5);
        stated.setTooltip(new Tooltip(
                "what the board's program says its rate is; used where it sends no clock; empty when unknown"));
        stated.setOnAction(event -> statedRate());
        Label rate = small("Stated rate, /s");
        Label warming = small("Warm-up, s");
        for (Region each : new Region[] {rate, stated, warming, warmUp}) {
            each.setMinWidth(Region.USE_PREF_SIZE);
        }
        HBox warm = new HBox(6, rate, stated, warming, warmUp);
        warm.setMinWidth(Region.USE_PREF_SIZE);
        warm.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(state, Priority.ALWAYS);
        state.setMaxWidth(Double.MAX_VALUE);
        HBox top = new HBox(10, state, warm);
        VBox right = new VBox(6, tiles, top, health, trials, bytes, orders);
        right.setMinWidth(0);
        HBox.setHgrow(right, Priority.ALWAYS);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        VBox left = new VBox(6, beside, scroll);
        left.setMinWidth(380);
        left.setPrefWidth(380);
        HBox both = new HBox(14, left, right);
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
        ComboBox<String> faults = new ComboBox<>();
        faults.getItems().add("in good order");
        for (Fault each : Fault.values()) {
            faults.getItems().add(each.word() + ": " + each.about());
        }
        faults.setValue(faults.getItems().get(0));
        faults.setId("fault");
        faults.setMaxWidth(Double.MAX_VALUE);
        faults.setTooltip(new Tooltip("what goes wrong with the simulated board, to see how that looks"));
        faults.setOnAction(event -> {
            int index = faults.getSelectionModel().getSelectedIndex();
            fault = index <= 0 ? null : Fault.values()[index - 1];
        });
        box.getChildren().add(faults);
        for (SimulatedBoards.Entry board : SimulatedBoards.all()) {
            Button plug = plug(
                    "Connect",
                    "plug-" + board.name(),
                    () -> connect("sim:" + board.name() + (fault == null ? "" : "+" + fault.word())));
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
        Runnable go = () -> connect(text.getText().strip());
        text.setOnAction(event -> go.run());
        return new HBox(6, text, plug("Connect", "plug-address", go));
    }

    private Node network() {
        TextField host = new TextField("127.0.0.1");
        host.setTooltip(new Tooltip("the board's name or number on the network"));
        TextField port = new TextField("7070");
        port.setPrefColumnCount(5);
        port.setTooltip(new Tooltip("the port it listens on, or is to call"));
        HBox.setHgrow(host, Priority.ALWAYS);
        Runnable go = () ->
                connect("tcp:" + host.getText().strip() + ":" + port.getText().strip());
        host.setOnAction(event -> go.run());
        port.setOnAction(event -> go.run());
        CheckBox anyone = new CheckBox("from any network");
        anyone.setId("anyone");
        anyone.setTooltip(new Tooltip(
                "a wireless board needs this; without it only programs of this computer can call or send packets"));
        Button listen = plug(
                "Wait for a call",
                "plug-listen",
                () -> connect(
                        "tcp:" + (anyone.isSelected() ? LinkAddress.ANYONE : LinkAddress.ANYONE_AT + LinkAddress.HERE)
                                + ":" + port.getText().strip()));
        listen.setTooltip(new Tooltip("listen on that port until a board calls"));
        Button packets = plug(
                "Packets",
                "plug-udp",
                () -> connect("udp:" + (anyone.isSelected() ? LinkAddress.ANYONE : LinkAddress.HERE) + ":"
                        + port.getText().strip()));
        packets.setTooltip(new Tooltip("take datagrams that boards send to that port"));
        return new VBox(
                6, new HBox(6, host, port, plug("Connect", "plug-network", go)), new HBox(6, listen, packets, anyone));
    }

    private Node file() {
        Button choose = plug("Choose…", "plug-file", () -> {
            File file = new FileChooser().showOpenDialog(getScene().getWindow());
            if (file != null) {
                connect("file:" + file.getAbsolutePath());
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
        // A stored take that is open over it may have more sources than run.
        int source = Math.min(desk.wire().source(), live.rig().sources().size() - 1);
        Source running = live.rig().sources().get(source);
        LinkHealth link = live.health(source);
        beside.setVisible(desk.connected());
        tiles.show(live);
        state.setText(
                link.state() == LinkState.IDLE
                        ? "Not connected"
                        : Wording.state(link.state()) + " · "
                                + LinkAddress.parse(running.setup().address()).words());
        sign.show(link.state(), desk.night().get() ? Color.web("#EEEADD") : Color.web("#22302A"));
        health.setText(link.state() == LinkState.IDLE ? "Pick one of the sockets at the left." : words(live, source));
        bytes.show(link, running.format());
        orders.show();
        if (!stated.isFocused()) {
            double hz = running.setup().statedRateHz();
            stated.setText(Double.isNaN(hz) ? "" : Digits.exact(hz));
        }
        if (!warmUp.isFocused()) {
            warmUp.setText(Digits.exact(running.setup().warmUpSeconds()));
        }
    }

    /** Twice the standard uncertainty, where arrival alone tells the rate. */
    private static String doubt(double share) {
        return share > 0 ? " ± " + Digits.of(Math.max(0.01, Math.rint(share * 2e4) / 100)) + " %" : "";
    }

    private static String words(Sight live, int source) {
        LinkHealth link = live.health(source);
        StringBuilder text = new StringBuilder();
        if (!link.reason().isEmpty()) {
            text.append(link.reason()).append("\n");
        }
        text.append(Wording.speed(link.bytesPerSecond()))
                .append(" · ")
                .append("samples ")
                .append(Wording.rate(live.rateHz(source)))
                .append(doubt(link.rateUncertainty()))
                .append(" · ")
                .append(link.rows())
                .append(" samples · ")
                .append(link.setAside())
                .append(link.setAside() == 1 ? " line set aside\n" : " lines set aside\n")
                .append(link.gaps())
                .append(link.gaps() == 1 ? " gap, " : " gaps, ")
                .append(link.lostRows())
                .append(" samples lost · opened anew ")
                .append(link.reconnects())
                .append(link.reconnects() == 1 ? " time" : " times");
        double stated = live.rig().sources().get(source).setup().statedRateHz();
        if (!Double.isNaN(stated)) {
            text.append(" · stated ").append(Digits.of(stated)).append("/s");
        }
        if (link.jitterSeconds() > 0) {
            text.append(" · arrives ±")
                    .append(Digits.fixed(link.jitterSeconds() * 1000, 0))
                    .append(" ms");
        }
        if (!Double.isNaN(link.driftPpm())) {
            text.append(" · board's clock ")
                    .append(Digits.fixed(Math.abs(link.driftPpm()), 0))
                    .append(link.driftPpm() < 0 ? " ppm slow" : " ppm fast");
        }
        if (source > 0 && !Double.isNaN(link.shiftSeconds())) {
            text.append("\nits own time is moved by ")
                    .append(Digits.fixed(link.shiftSeconds(), 3))
                    .append(" s onto the common time line");
        }
        stations(text, live, source);
        return text.toString();
    }

    /** Each station with its own state: one may be lost while the others go on. */
    private static void stations(StringBuilder text, Sight live, int source) {
        long now = System.nanoTime();
        for (StrandSight strand : live.strands()) {
            if (strand.source() == source && !Double.isNaN(strand.station())) {
                LinkState own = live.state(strand, now);
                text.append(text.lastIndexOf("\nstation") < 0 ? "\nstation " : "   ·   ")
                        .append(Digits.exact(strand.station()))
                        .append(own == LinkState.LOST ? " lost, silent for " : " live, heard ")
                        .append(Digits.fixed(strand.silenceSeconds(now), 1))
                        .append(own == LinkState.LOST ? " s" : " s ago");
            }
        }
    }

    private void statedRate() {
        String text = stated.getText().strip();
        try {
            double hz = text.isEmpty() ? Double.NaN : ConversionForm.number(text);
            desk.wire().statedRate(hz);
            desk.say(
                    text.isEmpty()
                            ? "The rate is measured from the next opening on."
                            : "Stated rate: " + Digits.of(hz) + " samples/s, from the next opening on.");
        } catch (IllegalArgumentException e) {
            desk.trouble("A stated rate is a number of samples a second above 0, was '" + text + "'.");
        }
    }

    private void warmUp() {
        try {
            double seconds = Double.parseDouble(warmUp.getText().strip().replace(',', '.'));
            desk.wire().warmUp(seconds);
            desk.say("Warm-up: " + Digits.of(seconds) + " s from the next opening on.");
        } catch (NumberFormatException e) {
            desk.trouble("A warm-up is a number of seconds, was '" + warmUp.getText() + "'.");
        }
    }

    private void showPorts(List<SerialPorts.Found> now) {
        if (now.equals(found) && portsShown) {
            return;
        }
        if (portsShown) {
            tell(now);
        }
        portsShown = true;
        found = now;
        ports.getChildren().clear();
        for (SerialPorts.Found port : now) {
            ports.getChildren().add(port(port));
        }
        if (now.isEmpty()) {
            ports.getChildren().add(small("None found. Plug the board in; it shows up here within two seconds."));
        }
    }

    private void tell(List<SerialPorts.Found> now) {
        for (SerialPorts.Found port : now) {
            if (found.stream().noneMatch(f -> f.path().equals(port.path()))) {
                desk.say("Plugged in: " + port.path() + " " + port.about());
            }
        }
        for (SerialPorts.Found port : found) {
            if (now.stream().noneMatch(f -> f.path().equals(port.path()))) {
                desk.say("Unplugged: " + port.path());
            }
        }
    }

    private Node port(SerialPorts.Found port) {
        ComboBox<Integer> speed = new ComboBox<>();
        speed.getItems().setAll(SerialPorts.USUAL_SPEEDS);
        speed.setValue(baud);
        speed.setEditable(false);
        speed.setTooltip(new Tooltip("speed in baud, the same as the board's program sets"));
        speed.setOnAction(event -> baud = speed.getValue());
        ComboBox<String> line = new ComboBox<>();
        line.getItems().setAll(LINES);
        line.setValue(LINES.get(0));
        line.setTooltip(new Tooltip("data bits, parity (none, even, odd), stop bits"));
        CheckBox quiet = new CheckBox("no restart");
        quiet.setTooltip(new Tooltip("leave the lines alone that restart many boards when the port opens"));
        Supplier<LinkAddress.Serial> chosen = () -> (LinkAddress.Serial) LinkAddress.parse("serial:" + port.path() + "@"
                + speed.getValue() + (line.getValue().equals(LINES.get(0)) ? "" : "," + line.getValue())
                + (quiet.isSelected() ? ",quiet" : ""));
        Button plug = plug(
                "Connect", "plug-" + port.path(), () -> connect(chosen.get().text()));
        Button find = plug("Find the speed", "find-" + port.path(), () -> findSpeed(chosen.get()));
        String about = port.about()
                + (port.maker().isEmpty() ? "" : " · " + port.maker())
                + (port.holder().isEmpty() ? "" : " · in use by " + port.holder());
        FlowPane settings = new FlowPane(6, 6, speed, line, quiet, find);
        settings.setAlignment(Pos.CENTER_LEFT);
        VBox box = new VBox(6, socket(port.path(), about, plug), settings);
        box.getStyleClass().add("port");
        return box;
    }

    /** Plugs in: in the place of what runs, or beside it. */
    private void connect(String address) {
        if (beside.isSelected() && desk.connected()) {
            desk.join(address);
        } else {
            desk.connect(address);
        }
    }

    private void findSpeed(LinkAddress.Serial port) {
        if (desk.connected() && desk.rig().source().startsWith("serial:" + port.path() + "@")) {
            desk.disconnect();
        }
        desk.wire().findSpeed(port, tried -> showTrials(port, tried));
    }

    private void showTrials(LinkAddress.Serial port, List<SpeedFinder.Trial> tried) {
        trials.getChildren().setAll(small("What makes sense at which speed on " + port.path()));
        for (SpeedFinder.Trial trial : tried.subList(0, Math.min(6, tried.size()))) {
            Button take = plug("Use it", "use-" + trial.baud(), () -> {
                trials.setVisible(false);
                baud = trial.baud();
                connect(port.withBaud(trial.baud()).text());
            });
            String share = trial.bytes() == 0 ? "no bytes" : Math.round(100 * trial.share()) + " % makes sense";
            Label words = mono(String.format("%8d  %-18s", trial.baud(), share));
            words.setMinWidth(Region.USE_PREF_SIZE);
            Label line = mono(trial.line());
            line.setMinWidth(0);
            HBox.setHgrow(line, Priority.ALWAYS);
            HBox row = new HBox(8, take, words, line);
            row.setAlignment(Pos.CENTER_LEFT);
            trials.getChildren().add(row);
        }
        trials.setVisible(true);
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
            recent.getChildren().add(socket(words, source, plug("Connect", "again-" + source, () -> connect(source))));
        }
    }
}
