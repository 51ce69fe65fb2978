package zesty.signal.app.window.bench.source;

import java.io.File;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.PasswordField;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.boards.link.BrokerSecrets;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.link.SerialPorts;
import zesty.signal.boards.sim.Fault;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.SpeedFinder;

/** All that bytes can come from, each a socket: what runs, the ports found, the network, files, the made-up boards. */
final class Sockets extends VBox {
    private static final long LOOK_NANOS = 1_500_000_000L;
    private static final List<String> LINES = List.of("8N1", "8E1", "8O1", "7E1", "7O1", "8N2");

    private final Workspace workspace;
    private final RunningSockets running;
    private final CheckBox beside = new CheckBox(Messages.of("bench.source.add-as-a-second-source"));
    private final VBox ports = new VBox(6);
    private final Socket lately = new Socket("open-lately", Messages.of("bench.source.used-lately"), "");
    private final Socket madeUp;
    /** Of these one at a time is open. */
    private final List<Socket> choices = new ArrayList<>();

    private final Trials trials;
    private List<SerialPorts.Found> found = List.of();
    private List<String> recentShown = List.of();
    private boolean portsShown;
    private boolean ran;
    private Fault fault;
    private long looked;
    private Integer baud = SerialPorts.USUAL_SPEEDS.get(0);

    Sockets(Workspace workspace, Trials trials) {
        super(6);
        this.workspace = workspace;
        this.trials = trials;
        running = new RunningSockets(workspace);
        beside.setId("beside");
        Tip.on(beside, Messages.of("bench.source.connecting-then-adds-a-source"));
        beside.managedProperty().bind(beside.visibleProperty());
        lately.managedProperty().bind(lately.visibleProperty());
        Socket network = new Socket(
                        "open-network",
                        Messages.of("bench.source.a-board-on-the-network"),
                        Messages.of("bench.source.tcp-client-or-server"))
                .holding(network());
        Socket broker = new Socket(
                        "open-broker",
                        Messages.of("bench.source.topics-of-a-broker"),
                        Messages.of("bench.source.mqtt-over-the-air"))
                .holding(broker());
        Socket file = new Socket(
                        "open-file",
                        Messages.of("bench.source.a-capture-from-disk"),
                        Messages.of("bench.source.read-from-start-to-end"))
                .holding(file());
        Socket address = new Socket(
                        "open-address",
                        Messages.of("bench.source.any-address"),
                        Messages.of("bench.source.written-out"))
                .holding(address());
        madeUp = new Socket(
                        "open-simulated",
                        Messages.of("bench.source.a-simulated-board"),
                        Messages.of("bench.source.pick-a-place"))
                .holding(new Dinghy(this::plugMadeUp), faults());
        choice(lately);
        choice(network);
        choice(broker);
        choice(file);
        choice(address);
        choice(madeUp);
        getChildren().addAll(running, beside, ports, lately, network, broker, file, address, madeUp);
        madeUp.open(true);
    }

    private void choice(Socket socket) {
        choices.add(socket);
        socket.onPressed(() -> openOnly(socket.isOpen() ? null : socket));
    }

    private void openOnly(Socket wanted) {
        choices.forEach(socket -> socket.open(socket == wanted));
    }

    /** Looks for ports at once. */
    void opened() {
        looked = 0;
    }

    void show(Snapshot live) {
        long now = System.nanoTime();
        if (now - looked > LOOK_NANOS || looked == 0) {
            looked = now;
            workspace
                    .tasks()
                    .fetch(
                            Messages.of("bench.source.the-serial-ports-could-not-be"),
                            SerialPorts::list,
                            this::showPorts);
        }
        beside.setVisible(workspace.live().connected());
        running.show(live);
        if (ran != workspace.live().connected()) {
            ran = workspace.live().connected();
            openOnly(ran ? null : madeUp);
        }
        showRecent();
    }

    private static Button plug(String text, String id, Runnable action) {
        Button button = new Button(text);
        button.getStyleClass().setAll("plug");
        button.setId(id);
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setOnAction(event -> action.run());
        return button;
    }

    private void plugMadeUp(String board) {
        connect("sim:" + board + (fault == null ? "" : "+" + fault.word()));
    }

    private Node faults() {
        ComboBox<String> faults = new ComboBox<>();
        faults.getItems().add(Messages.of("bench.source.no-faults"));
        for (Fault each : Fault.values()) {
            faults.getItems().add(each.word() + ": " + each.about());
        }
        faults.setValue(faults.getItems().get(0));
        faults.setId("fault");
        faults.setMaxWidth(Double.MAX_VALUE);
        Tip.on(faults, Messages.of("bench.source.faults-of-the-simulated-board-to"));
        faults.setOnAction(event -> {
            int index = faults.getSelectionModel().getSelectedIndex();
            fault = index <= 0 ? null : Fault.values()[index - 1];
        });
        return faults;
    }

    private Node address() {
        TextField text = new TextField();
        text.setId("address");
        text.setPromptText("serial:PATH@BAUD");
        Tip.on(text, LinkAddress.FORMS);
        HBox.setHgrow(text, Priority.ALWAYS);
        Runnable go = () -> connect(text.getText().strip());
        text.setOnAction(event -> go.run());
        return new HBox(6, text, plug(Messages.of("bench.source.connect"), "plug-address", go));
    }

    private Node network() {
        TextField host = new TextField("127.0.0.1");
        Tip.on(host, Messages.of("bench.source.the-board-s-name-or-number-on-the"));
        TextField port = new TextField("7070");
        port.setPrefColumnCount(5);
        port.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(port, Messages.of("bench.source.the-port-it-listens-on-or-is-to"));
        HBox.setHgrow(host, Priority.ALWAYS);
        Runnable go = () ->
                connect("tcp:" + host.getText().strip() + ":" + port.getText().strip());
        host.setOnAction(event -> go.run());
        port.setOnAction(event -> go.run());
        CheckBox anyone = new CheckBox(Messages.of("bench.source.from-any-network"));
        anyone.setId("anyone");
        Tip.on(anyone, Messages.of("bench.source.a-wireless-board-needs-this"));
        Button listen = plug(
                Messages.of("bench.source.listen"),
                "plug-listen",
                () -> connect(
                        "tcp:" + (anyone.isSelected() ? LinkAddress.ANYONE : LinkAddress.ANYONE_AT + LinkAddress.HERE)
                                + ":" + port.getText().strip()));
        Tip.on(listen, Messages.of("bench.source.listen-on-that-port-until-a-board"));
        Button packets = plug(
                Messages.of("bench.source.packets"),
                "plug-udp",
                () -> connect("udp:" + (anyone.isSelected() ? LinkAddress.ANYONE : LinkAddress.HERE) + ":"
                        + port.getText().strip()));
        Tip.on(packets, Messages.of("bench.source.take-datagrams-that-boards-send-to"));
        FlowPane second = new FlowPane(6, 6, listen, packets, anyone);
        second.setAlignment(Pos.CENTER_LEFT);
        return new VBox(
                6, new HBox(6, host, port, plug(Messages.of("bench.source.connect"), "plug-network", go)), second);
    }

    private Node broker() {
        TextField host = new TextField("127.0.0.1");
        host.setId("broker-host");
        Tip.on(host, Messages.of("bench.source.the-broker-s-name-or-number-on-the"));
        TextField topic = new TextField();
        topic.setId("broker-topic");
        topic.setPromptText("boats/+/battery");
        Tip.on(topic, Messages.of("bench.source.one-topic-or-many-stands-for-one"));
        TextField user = new TextField();
        user.setId("broker-user");
        user.setPromptText(Messages.of("bench.source.user-if-any"));
        PasswordField password = new PasswordField();
        password.setId("broker-password");
        password.setPromptText(Messages.of("bench.source.password"));
        Tip.on(password, Messages.of("bench.source.kept-in-memory-until-the-window"));
        CheckBox secure = new CheckBox(Messages.of("bench.source.encrypted-tls"));
        secure.setId("broker-secure");
        Tip.on(secure, Messages.of("bench.source.the-broker-shows-a-certificate"));
        for (TextField one : new TextField[] {host, topic, user, password}) {
            HBox.setHgrow(one, Priority.ALWAYS);
            one.setMinWidth(0);
        }
        Runnable go = () -> {
            String who = user.getText().strip();
            String address = (secure.isSelected() ? "mqtts://" : "mqtt://") + (who.isEmpty() ? "" : who + "@")
                    + host.getText().strip() + "/" + topic.getText().strip();
            try {
                if (LinkAddress.parse(address) instanceof LinkAddress.Broker parsed
                        && !password.getText().isEmpty()) {
                    BrokerSecrets.keep(parsed, password.getText());
                }
            } catch (IllegalArgumentException e) {
                workspace.trouble(Character.toUpperCase(e.getMessage().charAt(0))
                        + e.getMessage().substring(1) + ".");
                return;
            }
            password.clear();
            connect(address);
        };
        topic.setOnAction(event -> go.run());
        password.setOnAction(event -> go.run());
        HBox last = new HBox(10, secure, plug(Messages.of("bench.source.connect"), "plug-broker", go));
        last.setAlignment(Pos.CENTER_LEFT);
        return new VBox(6, new HBox(6, host, topic), new HBox(6, user, password), last);
    }

    private Node file() {
        return plug(Messages.of("bench.source.choose"), "plug-file", () -> {
            File file = new FileChooser().showOpenDialog(getScene().getWindow());
            if (file != null) {
                connect("file:" + file.getAbsolutePath());
            }
        });
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
        choices.removeIf(ports.getChildren()::contains);
        ports.getChildren().clear();
        for (SerialPorts.Found port : now) {
            Socket socket = port(port);
            choice(socket);
            ports.getChildren().add(socket);
        }
        if (now.isEmpty()) {
            ports.getChildren()
                    .add(new Socket(
                            "no-port",
                            Messages.of("bench.source.no-port"),
                            Messages.of("bench.source.plug-a-board-in-it-shows-up-here")));
        }
    }

    private void tell(List<SerialPorts.Found> now) {
        for (SerialPorts.Found port : now) {
            if (found.stream().noneMatch(f -> f.path().equals(port.path()))) {
                workspace.say(Messages.of("bench.source.plugged-in", port.path(), port.about()));
            }
        }
        for (SerialPorts.Found port : found) {
            if (now.stream().noneMatch(f -> f.path().equals(port.path()))) {
                workspace.say(Messages.of("bench.source.unplugged", port.path()));
            }
        }
    }

    private Socket port(SerialPorts.Found port) {
        ComboBox<Integer> speed = new ComboBox<>();
        speed.getItems().setAll(SerialPorts.USUAL_SPEEDS);
        speed.setValue(baud);
        speed.setEditable(false);
        Tip.on(speed, Messages.of("bench.source.speed-in-baud-the-same-as-the"));
        speed.setOnAction(event -> baud = speed.getValue());
        ComboBox<String> line = new ComboBox<>();
        line.getItems().setAll(LINES);
        line.setValue(LINES.get(0));
        Tip.on(line, Messages.of("bench.source.data-bits-parity-none-even-odd"));
        CheckBox quiet = new CheckBox(Messages.of("bench.source.do-not-reset"));
        Tip.on(quiet, Messages.of("bench.source.leave-the-lines-alone-that-restart"));
        Supplier<LinkAddress.Serial> chosen = () -> (LinkAddress.Serial) LinkAddress.parse("serial:" + port.path() + "@"
                + speed.getValue() + (line.getValue().equals(LINES.get(0)) ? "" : "," + line.getValue())
                + (quiet.isSelected() ? ",quiet" : ""));
        Button plug = plug(
                Messages.of("bench.source.connect"),
                "plug-" + port.path(),
                () -> connect(chosen.get().text()));
        Button find =
                plug(Messages.of("bench.source.find-the-speed"), "find-" + port.path(), () -> findSpeed(chosen.get()));
        String about = port.about()
                + (port.maker().isEmpty() ? "" : " · " + port.maker())
                + (port.holder().isEmpty() ? "" : Messages.of("bench.source.in-use-by", port.holder()));
        FlowPane settings = new FlowPane(6, 6, speed, line, quiet, plug, find);
        settings.setAlignment(Pos.CENTER_LEFT);
        return new Socket("open-" + port.path(), port.path(), about).holding(settings);
    }

    /** Plugs in: in the place of what runs, or beside it. */
    private void connect(String address) {
        if (beside.isSelected() && workspace.live().connected()) {
            workspace.live().join(address);
        } else {
            workspace.live().connect(address);
        }
        // What was pressed goes away; a key pressed next is meant for the window, and for no box that comes after it.
        if (getScene() != null) {
            getScene().getRoot().requestFocus();
        }
    }

    private void findSpeed(LinkAddress.Serial port) {
        if (workspace.live().connected()
                && workspace.shown().rig().source().startsWith("serial:" + port.path() + "@")) {
            workspace.live().disconnect();
        }
        workspace.sourceActions().findSpeed(port, tried -> trials.show(port, tried, this::use));
    }

    private void use(LinkAddress.Serial port, SpeedFinder.Trial trial) {
        baud = trial.baud();
        connect(port.withBaud(trial.baud()).text());
    }

    private void showRecent() {
        List<String> now = workspace.view().settings().recent();
        if (now.equals(recentShown) && lately.isVisible() != now.isEmpty()) {
            return;
        }
        recentShown = now;
        FlowPane all = new FlowPane(6, 6);
        for (String source : now) {
            try {
                String words = LinkAddress.parse(source).words();
                Button again = plug(words, "again-" + source, () -> connect(source));
                Tip.on(again, source);
                all.getChildren().add(again);
            } catch (IllegalArgumentException e) {
                // Written by a later version: it cannot be connected by this one.
                continue;
            }
        }
        lately.holding(all);
        lately.say(
                now.size() == 1
                        ? Messages.of("bench.source.one-source")
                        : Messages.of("bench.source.sources", now.size()));
        lately.setVisible(!now.isEmpty());
    }
}
