package zesty.signal.app.window.parts;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import javafx.beans.binding.Bindings;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.lanes.StateSign;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.TextSize;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.app.wording.Wording;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ActSnapshot;
import zesty.signal.engine.BandSnapshot;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.LinkHealth;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/** The trail on top: navigation and instrument at once, one stop each with the focused channel's value there. Longer than others: what each of the six stops says is told here. */
public final class TrailBar extends VBox {
    /** Two lines of how a value came about, in pixels at the usual size of text. */
    private static final double TWO_LINES = 30;

    private static final PseudoClass LOW = PseudoClass.getPseudoClass("low");

    private final Workspace workspace;
    private final RigMenu rigs;
    private final Label product = new Label(Messages.of("parts.zesty-signal"));
    private final Button back = new Button(Messages.of("parts.back-to-live"));
    private final ToggleButton takes = new ToggleButton();
    private final ToggleButton planner = new ToggleButton(Messages.of("parts.planner"));
    private static final double ROOM_FOR_ALL = 900;
    private final ToggleButton phone = new ToggleButton();
    private final Map<Stop, Face> faces = new EnumMap<>(Stop.class);

    /** A stop: three lines, or one while a bench has the room. */
    private final class Face {
        final ToggleButton button = new ToggleButton();
        final Label name = new Label();
        final Label value = new Label("—");
        final Label how = new Label();
        final StateSign sign = new StateSign();
        final Stop stop;

        Face(Stop stop) {
            this.stop = stop;
            name.setText(stop.title());
            name.getStyleClass().add("stop-name");
            name.setMinWidth(Region.USE_PREF_SIZE);
            value.getStyleClass().add("stop-value");
            how.getStyleClass().add("stop-how");
            how.setGraphicTextGap(5);
            name.setGraphicTextGap(6);
            low(false, false);
            button.getStyleClass().setAll("stop");
            button.setMaxWidth(Double.MAX_VALUE);
            button.setPrefWidth(100);
            button.setMinWidth(0);
            String name = stop.name().toLowerCase(java.util.Locale.ROOT);
            button.setId("stop-" + name);
            HelpPlace.mark(button, name);
            say("—", "");
        }

        /**
         * @param on whether it is one line: its name at the left, its value at the right, the rest in its tip
         * @param stacked whether it is two, for words too large to stand beside each other
         */
        void low(boolean on, boolean stacked) {
            boolean source = stop == Stop.SOURCE;
            how.setWrapText(stacked);
            // Its height must not hang on its width: the row of stops would grow with what one of them says.
            double twoLines = stacked ? workspace.view().textSize().get().of(TWO_LINES) : Region.USE_COMPUTED_SIZE;
            how.setMinHeight(twoLines);
            how.setPrefHeight(twoLines);
            how.setGraphic(source && !on ? sign : null);
            name.setGraphic(source && on ? sign : null);
            if (on && stacked) {
                VBox lines = new VBox(name, value);
                lines.setAlignment(Pos.CENTER_LEFT);
                button.setGraphic(lines);
            } else if (on) {
                Region space = new Region();
                HBox.setHgrow(space, Priority.ALWAYS);
                HBox line = new HBox(6, name, space, value);
                line.setAlignment(Pos.CENTER_LEFT);
                button.setGraphic(line);
            } else {
                VBox lines = new VBox(3, name, value, how);
                lines.setAlignment(Pos.CENTER_LEFT);
                button.setGraphic(lines);
            }
            button.pseudoClassStateChanged(LOW, on);
        }

        void say(String what, String line) {
            value.setText(what);
            how.setText(line);
            Tip.on(
                    button,
                    Messages.of("parts.key", (line.isEmpty() ? "" : line + "\n") + stop.about(), (stop.ordinal() + 1)));
        }
    }

    public TrailBar(Workspace workspace, Runnable showCommands, Runnable nextLook) {
        this.workspace = workspace;
        getStyleClass().add("trail");
        Slice logo = new Slice(24);
        logo.show(8, Palette.LEMON);
        rigs = new RigMenu(workspace);
        product.getStyleClass().add("product");
        product.setMinWidth(Region.USE_PREF_SIZE);
        product.managedProperty().bind(product.visibleProperty());
        back.getStyleClass().add("back");
        back.setOnAction(event -> workspace.backToLive());
        Tip.on(back, Messages.of("parts.leave-the-stored-take-escape"));
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        takes.getStyleClass().setAll("link-button");
        takes.setId("takes");
        Tip.on(takes, Messages.of("parts.the-recorded-takes-t"));
        takes.selectedProperty().bindBidirectional(workspace.view().takesOpen());
        planner.getStyleClass().setAll("link-button");
        planner.setId("open-planner");
        Tip.on(planner, Messages.of("parts.will-it-work-before-anything-is"));
        planner.selectedProperty().bindBidirectional(workspace.view().plannerOpen());
        phone.getStyleClass().setAll("link-button");
        phone.setId("open-phone");
        Tip.on(phone, Messages.of("parts.the-numbers-on-a-page-for-a-phone"));
        phone.selectedProperty().bindBidirectional(workspace.view().phoneOpen());
        // In little room it gives way to what is used more often; its key and its line in the list of commands remain.
        phone.visibleProperty()
                .bind(Bindings.createBooleanBinding(
                        () -> workspace.sharing().page().get() != null
                                || getWidth() == 0
                                || getWidth()
                                        >= workspace.view().textSize().get().of(ROOM_FOR_ALL),
                        widthProperty(),
                        workspace.view().textSize(),
                        workspace.sharing().page()));
        phone.managedProperty().bind(phone.visibleProperty());
        phone.textProperty()
                .bind(Bindings.when(workspace.sharing().page().isNull())
                        .then(Messages.of("parts.phone"))
                        .otherwise(Messages.of("parts.phone-2")));
        Button look = linkButton("", Messages.of("parts.other-colours-day-night-high"), nextLook);
        look.setId("look");
        look.textProperty()
                .bind(javafx.beans.binding.Bindings.createStringBinding(
                        () -> workspace.view().look().get().next().words(),
                        workspace.view().look()));
        Button text =
                linkButton("", Messages.of("parts.how-large-all-words-are-100-125"), workspace.view()::nextTextSize);
        text.setId("text-size");
        text.textProperty()
                .bind(javafx.beans.binding.Bindings.createStringBinding(
                        () -> workspace.view().textSize().get().words(),
                        workspace.view().textSize()));
        Button commands =
                linkButton(Messages.of("parts.keys"), Messages.of("parts.every-command-and-its-key"), showCommands);
        commands.setId("commands");
        HBox head = new HBox(12, logo, product, rigs, back, space, takes, planner, phone, look, text, commands);
        head.setAlignment(Pos.CENTER_LEFT);
        HBox stops = new HBox(8);
        ToggleGroup group = new ToggleGroup();
        for (Stop stop : Stop.values()) {
            Face face = new Face(stop);
            faces.put(stop, face);
            face.button.setToggleGroup(group);
            face.button.setOnAction(event -> {
                boolean on = face.button.isSelected()
                        || workspace.view().plannerOpen().get()
                        || workspace.view().phoneOpen().get();
                workspace.view().plannerOpen().set(false);
                workspace.view().phoneOpen().set(false);
                workspace.view().stop().set(on ? stop : null);
                face.button.setSelected(on);
            });
            HBox.setHgrow(face.button, Priority.ALWAYS);
            stops.getChildren().add(face.button);
        }
        Runnable choose = () -> faces.forEach((stop, face) ->
                face.button.setSelected(stop == workspace.view().stop().get()
                        && !workspace.view().plannerOpen().get()
                        && !workspace.view().phoneOpen().get()));
        choose.run();
        workspace.view().plannerOpen().addListener((p, was, is) -> choose.run());
        workspace.view().phoneOpen().addListener((p, was, is) -> choose.run());
        workspace.view().stop().addListener((p, was, is) -> choose.run());
        getChildren().addAll(head, stops);
    }

    /** Makes itself low while a bench has the room, and high again. */
    public void low(boolean on) {
        product.setVisible(!on);
        boolean stacked = workspace.view().textSize().get() != TextSize.USUAL;
        faces.values().forEach(face -> face.low(on, stacked));
        pseudoClassStateChanged(LOW, on);
    }

    /** Opens what can be done with rigs. */
    public void openRigs() {
        rigs.unfold();
    }

    private static Button linkButton(String text, String tip, Runnable action) {
        Button button = new Button(text);
        button.getStyleClass().setAll("link-button");
        Tip.on(button, tip);
        button.setOnAction(event -> action.run());
        return button;
    }

    /** Shows what is so now; a few times a second is enough. */
    public void show(Snapshot snapshot) {
        boolean take = !workspace.shown().isLive();
        rigs.show(workspace.shown().title(), take);
        back.setVisible(take);
        back.setManaged(take);
        int count = workspace.takes().all().get().size();
        takes.setText(Messages.of("parts.takes-4", count));
        Optional<ChannelSnapshot> focused =
                snapshot.focused(workspace.view().focus().get());
        int inHand = focused.map(c -> c.stream().source()).orElse(0);
        source(snapshot, inHand, focused);
        decode(snapshot, focused);
        if (focused.isEmpty()) {
            for (Stop stop : new Stop[] {Stop.SCALE, Stop.CLEAN, Stop.READ, Stop.ACT}) {
                faces.get(stop).say("—", Messages.of("parts.no-channel-yet"));
            }
            return;
        }
        ChannelSnapshot channel = focused.get();
        LinkState state = snapshot.state(channel.stream(), System.nanoTime());
        boolean lost = state == LinkState.LOST || state == LinkState.REFUSED;
        scale(channel, lost);
        clean(channel, lost);
        read(channel, lost);
        act(snapshot, channel, lost);
    }

    private void source(Snapshot snapshot, int inHand, Optional<ChannelSnapshot> focused) {
        LinkHealth health = snapshot.health(inHand);
        Face face = faces.get(Stop.SOURCE);
        // Of stations that share a link, one may be silent while the others go on.
        LinkState state =
                focused.map(c -> snapshot.state(c.stream(), System.nanoTime())).orElse(health.state());
        face.sign.show(state, face.button.isSelected() ? Palette.ON_LEMON : Palette.ON_RIND);
        if (health.state() == LinkState.STORED) {
            face.say(Messages.of("parts.stored"), Messages.of("parts.samples-s", Digits.of(snapshot.rateHz())));
            return;
        }
        if (health.state() == LinkState.IDLE) {
            face.say("—", Messages.of("parts.pick-a-source"));
            return;
        }
        LinkAddress address =
                LinkAddress.parse(snapshot.rig().sources().get(inHand).setup().address());
        int sources = snapshot.rig().sources().size();
        String words = address.shortName() + (sources > 1 ? Messages.of("parts.of-4", (inHand + 1), sources) : "");
        String now = focused.map(c -> Wording.state(snapshot, c.stream())).orElse(Wording.state(state));
        face.say(Wording.speed(health.bytesPerSecond()), now + " · " + words);
    }

    private void decode(Snapshot snapshot, Optional<ChannelSnapshot> focused) {
        String column = focused.map(c -> c.channel().column()).orElse("");
        StreamFormat format = snapshot.rig().formatOf(column);
        LinkHealth health = snapshot.health(snapshot.rig().sourceOf(column));
        Face face = faces.get(Stop.DECODE);
        if (format == null || focused.isEmpty()) {
            face.say("—", Messages.of("parts.rejected", health.rejectedLines()));
            return;
        }
        int index = Stations.indexOf(format, snapshot.rig().ownName(column)) + 1;
        String aside =
                health.state() == LinkState.STORED ? "" : Messages.of("parts.rejected-2", health.rejectedLines());
        LinkState state = snapshot.state(focused.get().stream(), System.nanoTime());
        boolean lost = state == LinkState.LOST || state == LinkState.REFUSED;
        face.say(
                lost ? "—" : Digits.of(focused.get().latestRaw()),
                Messages.of("parts.of-3", index, format.columns().size(), aside));
    }

    private void scale(ChannelSnapshot channel, boolean lost) {
        Scaling scaling = channel.scalingNow();
        double now = scaling.apply(channel.latestRaw());
        String value =
                scaling.isAsItCame() ? Digits.of(now) : Digits.fixed(now, Digits.decimalsFor(scaling.stepSize()));
        String how = scaling.throughConverter().map(TrailBar::converter).orElse(Messages.of("parts.no-converter"));
        faces.get(Stop.SCALE).say(lost ? "—" : value + " " + scaling.unit(), how);
    }

    private static String converter(Converter converter) {
        String divisor = Digits.of(converter.divisor().of(converter.bits()));
        return Messages.of("parts.bit", converter.bits()) + " · " + Digits.of(converter.referenceVolts()) + " V · ÷"
                + (converter.divisor() == Divisor.STEPS ? divisor : Messages.of("parts.full-scale-code", divisor));
    }

    private void clean(ChannelSnapshot channel, boolean lost) {
        String late = channel.delaySeconds() > 0
                ? Messages.of("parts.ms-delay", Digits.fixed(channel.delaySeconds() * 1000, 0))
                : "";
        faces.get(Stop.CLEAN)
                .say(
                        lost
                                ? "—"
                                : Wording.value(channel) + " "
                                        + channel.channel().unit(),
                        // Beside a delay the numbers say which filter it is.
                        (late.isEmpty()
                                        ? Wording.how(channel)
                                        : Wording.how(channel).replaceFirst("^band ", ""))
                                + late);
    }

    private void read(ChannelSnapshot channel, boolean lost) {
        Face face = faces.get(Stop.READ);
        Optional<ReaderSnapshot> reader = channel.reader();
        if (reader.isPresent()) {
            ReaderSnapshot seen = reader.get();
            ScalarInfo headline = seen.kind().scalars().get(0);
            boolean none = lost || Double.isNaN(seen.headline());
            face.say(
                    none
                            ? Messages.of(
                                    "parts.no", Messages.within(seen.kind().title()))
                            : String.join(" ", Wording.said(channel, headline, seen.headline())),
                    Messages.within(seen.kind().title())
                            + (seen.reading() == null
                                    ? seen.isUnread()
                                            ? Messages.of("parts.not-read-yet")
                                            : Messages.of("parts.cannot-read")
                                    : Messages.of(
                                            "parts.quality-of-8",
                                            seen.reading().quality().segments())));
            return;
        }
        if (channel.level().samples() == 0) {
            face.say("—", workspace.shown().unread());
            return;
        }
        face.say(
                lost
                        ? "—"
                        : Wording.number(channel, channel.level().mean()) + " "
                                + channel.channel().unit(),
                Messages.of("parts.level-mean-of", workspace.shown().levelsOver()));
    }

    private void act(Snapshot snapshot, ChannelSnapshot channel, boolean lost) {
        Face face = faces.get(Stop.ACT);
        Optional<BandSnapshot> band = channel.readers().stream()
                .flatMap(reader -> reader.bands().stream())
                .findFirst();
        if (band.isEmpty()) {
            rules(snapshot, face);
            return;
        }
        ScalarInfo scalar = channel.readers().stream()
                .map(reader -> reader.kind().scalar(band.get().setup().scalar()))
                .filter(Objects::nonNull)
                .findFirst()
                .orElseThrow();
        var edges = band.get().setup().band();
        face.say(
                lost ? "—" : Wording.side(band.get().side()),
                Messages.of(
                        "parts.hysteresis",
                        scalar.words(),
                        Digits.of(edges.low()),
                        Digits.of(edges.high()),
                        Digits.of(edges.hysteresis())));
    }

    private static void rules(Snapshot snapshot, Face face) {
        List<ActSnapshot.RuleNow> rules = snapshot.act().rules();
        int written = snapshot.rig().act().book().rules().size();
        if (written > 0) {
            List<String> on = rules.stream()
                    .filter(ActSnapshot.RuleNow::isOn)
                    .map(one -> one.rule().name())
                    .toList();
            String count = written + (written == 1 ? Messages.of("parts.rule") : Messages.of("parts.rules"));
            face.say(
                    rules.isEmpty() ? "\u2014" : on.isEmpty() ? Messages.of("parts.all-off") : String.join(", ", on),
                    count + (rules.isEmpty() ? "" : Messages.of("parts.on-2", on.size())));
            return;
        }
        face.say("—", Messages.of("parts.no-rule-yet"));
    }
}
