package zesty.signal.app.window.bench.read;

import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.DoctorLine;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.Ports;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/** Read: which reader works on the channel, its settings from the kind's own description, and its picture. */
public final class ReadBench extends Bench {
    private final KindTiles kinds = new KindTiles(kind -> choose(kind.name()));
    private final Answer answer = new Answer();
    private final ReaderSettings settings;
    private final PortRow ports;
    private final KindTrial trial;
    private final ToggleButton fold = new ToggleButton(Messages.of("bench.read.settings"));
    private final Button other = button(
            "read-other",
            Messages.of("bench.read.read-something-else"),
            Messages.of("bench.read.choose-what-is-read-of-this"));
    private final Button back = button(
            "read-back", Messages.of("bench.read.back-to-the-answer"), Messages.of("bench.read.keep-what-is-read-now"));
    private final Button nothing = button(
            "read-nothing",
            Messages.of("bench.read.level-only"),
            Messages.of("bench.read.take-the-reader-away-its-mean"));
    private final Label words = new Label();
    private final Label error = new Label();
    /** Whether it is asked what to read though something is read. */
    private boolean choosing;

    private final VBox room = new VBox();
    private final VBox examined = new VBox();
    private final DoctorLine doctor;
    private final FilmPanel film;
    private final StationTable stations;
    private ReaderPicture picture;
    private String pictureOf = "";
    private ReaderSetup filled;
    private String column = "";

    public ReadBench(Workspace workspace) {
        super(workspace, Stop.READ);
        settings = new ReaderSettings(workspace, error::setText);
        ports = new PortRow(workspace);
        trial = new KindTrial(workspace);
        film = new FilmPanel(workspace);
        stations = new StationTable(workspace);
        VBox.setVgrow(film, Priority.ALWAYS);
        doctor = new DoctorLine(workspace, false);
        examined.getChildren().add(doctor);
        fold.setId("settings-fold");
        fold.getStyleClass().setAll("small-button");
        fold.setMinWidth(USE_PREF_SIZE);
        Tip.on(fold, Messages.of("bench.read.shows-or-hides-the-settings-of"));
        other.setOnAction(event -> choosing(true));
        back.setOnAction(event -> choosing(false));
        nothing.setOnAction(event -> choose(""));
        atHead(nothing, back, fold, other);
        words.getStyleClass().add("bench-line");
        words.setWrapText(true);
        words.setMinHeight(USE_PREF_SIZE);
        error.getStyleClass().add("error");
        VBox.setVgrow(room, Priority.ALWAYS);
        ports.managedProperty().bind(ports.visibleProperty());
        for (Node node : new Node[] {
            kinds, answer, settings, words, error, room, examined, fold, other, back, nothing, film, stations
        }) {
            node.managedProperty().bind(node.visibleProperty());
        }
        error.visibleProperty().bind(error.textProperty().isNotEmpty());
        getChildren().addAll(words, error, kinds, answer, settings, ports, examined, room, film, stations);
        fold.selectedProperty().addListener((p, was, is) -> settings.setVisible(is));
    }

    private void choosing(boolean on) {
        choosing = on;
        error.setText("");
        show(workspace.shown().snapshot(System.nanoTime()));
        if (on) {
            kinds.focusFirst();
        }
    }

    /** @param chosen the kind to read with; empty for none */
    private void choose(String chosen) {
        if (column.isEmpty()) {
            return;
        }
        List<String> ports = chosen.isEmpty()
                ? List.of()
                : Ports.guess(
                        ReaderKinds.of(chosen), column, beside(workspace.shown().snapshot(System.nanoTime())));
        if (!chosen.isEmpty() && ports.isEmpty()) {
            error.setText(ReaderKinds.of(chosen).title() + " " + KindTrial.tooFew(ReaderKinds.of(chosen)) + ".");
            return;
        }
        choosing = false;
        error.setText("");
        String target = column;
        workspace.change(rig -> {
            Rig without = rig;
            for (ReaderSetup old : rig.readers()) {
                boolean here = old.columns().contains(target)
                        || !ports.isEmpty() && old.columns().contains(ports.get(0));
                without = here && !(old.kind().equals(chosen) && old.columns().equals(ports))
                        ? without.withoutReader(old.id())
                        : without;
            }
            boolean there = without.readers().stream()
                    .anyMatch(r -> r.kind().equals(chosen) && r.columns().equals(ports));
            return ports.isEmpty() || there
                    ? without
                    : without.withReader(new ReaderSetup(
                            chosen, ports, ReaderKinds.of(chosen).settingsFor(unitOf(ports.get(0)))));
        });
    }

    private String unitOf(String of) {
        return workspace
                .shown()
                .snapshot(System.nanoTime())
                .channel(of)
                .map(one -> one.channel().unit())
                .orElse("");
    }

    /** @return the columns that come with the same rows as the one in focus, in the stream's order */
    private List<String> beside(Snapshot snapshot) {
        ChannelSnapshot one = snapshot.channel(column).orElse(null);
        return one == null
                ? List.of()
                : snapshot.channels().stream()
                        .filter(c -> c.stream().key().equals(one.stream().key()))
                        .map(c -> c.channel().column())
                        .toList();
    }

    @Override
    public void opened(Snapshot snapshot) {
        filled = null;
        choosing = false;
        settings.show(null);
        ports.show(null, List.of());
        show(snapshot);
        if (kinds.isVisible()) {
            kinds.focusFirst();
        }
    }

    @Override
    public void show(Snapshot snapshot) {
        head(snapshot);
        Optional<ChannelSnapshot> focused = focused(snapshot);
        words.setText(focused.isEmpty() ? Messages.of("bench.read.no-channel-yet") : "");
        words.setVisible(focused.isEmpty());
        if (focused.isEmpty()) {
            for (Node node : new Node[] {kinds, answer, settings, room, fold, other, back, nothing, film, stations}) {
                node.setVisible(false);
            }
            return;
        }
        if (!column.equals(focused.get().channel().column())) {
            column = focused.get().channel().column();
            choosing = false;
            error.setText("");
        }
        ReaderSetup setup = readerHere();
        // A reader of several columns stands with its first.
        ChannelSnapshot channel = setup == null
                ? focused.get()
                : snapshot.channel(setup.columns().get(0)).orElse(focused.get());
        boolean changed = setup == null ? filled != null : !setup.equals(filled);
        if (changed) {
            filled = setup;
            settings.show(setup);
            ports.show(setup, beside(snapshot));
        }
        // A channel of pictures that nothing else is read of shows these.
        boolean pictured = setup == null && !choosing && channel.stream().film() != null;
        // So do stations, which are held against each other.
        boolean stationed = setup == null
                && !choosing
                && !pictured
                && !Double.isNaN(channel.stream().station());
        boolean byItself = pictured || stationed;
        boolean ask = !byItself && (setup == null || choosing);
        film.setVisible(pictured);
        stations.setVisible(stationed);
        kinds.setVisible(ask);
        answer.setVisible(!ask && !byItself);
        room.setVisible(!ask && !byItself);
        fold.setVisible(!ask && !settings.getChildren().isEmpty());
        settings.setVisible(!ask && fold.isSelected());
        ports.setVisible(!ask && !ports.getChildren().isEmpty());
        other.setVisible(!ask);
        back.setVisible(ask
                && (setup != null
                        || channel.stream().film() != null
                        || !Double.isNaN(channel.stream().station())));
        nothing.setVisible(ask && setup != null);
        examined.setVisible(!ask && !byItself);
        doctor.show(column, focused.get().channel().recipe());
        if (pictured) {
            film.show(snapshot, channel);
            return;
        }
        Color colour = Palette.of(
                snapshot.rig(),
                channel.channel().column(),
                workspace.view().night().get());
        if (stationed) {
            stations.show(snapshot, channel, colour);
            return;
        }
        if (ask) {
            trial.look(focused.get());
            List<String> beside = beside(snapshot);
            kinds.show(
                    focused.get().channel().name(),
                    ReaderKinds.all().stream()
                            .map(kind -> trial.fit(kind, focused.get(), beside))
                            .toList(),
                    colour);
            return;
        }
        Optional<ReaderSnapshot> reader = channel.reader();
        String trouble = !channel.trouble().isEmpty()
                ? channel.trouble()
                : reader.map(seen -> seen.reading() == null ? seen.trouble() : "")
                        .orElse(Messages.of("bench.read.waiting-for-the-first-reading"));
        answer.setVisible(reader.isPresent());
        reader.ifPresent(seen -> answer.show(channel, seen, trouble, colour));
        String wanted = reader.map(seen -> seen.setup().kind()).orElse("");
        if (picture == null || !pictureOf.equals(wanted)) {
            pictureOf = wanted;
            picture = ReaderPicture.of(wanted, workspace);
            VBox.setVgrow(picture, Priority.ALWAYS);
            room.getChildren().setAll(picture);
        }
        picture.show(snapshot, channel, reader.orElse(null), colour);
    }

    /** @return the reader of the column in focus, or one of several columns that this is one of; null for none */
    private ReaderSetup readerHere() {
        Rig rig = workspace.shown().rig();
        return rig.readersOn(column).stream().findFirst().orElseGet(() -> rig.readers().stream()
                .filter(r -> r.columns().contains(column))
                .findFirst()
                .orElse(null));
    }
}
