package zesty.signal.app.window.bench.act;

import java.util.function.DoubleFunction;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.app.wording.Wording;
import zesty.signal.core.act.Band;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.Watch;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.rig.BandSetup;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.BandSnapshot;

/** The usual range of a reader's number, in which it is meant to stay, as a sentence whose parts are pressed. */
final class BandRow extends HBox {
    private static final PseudoClass CHOSEN = PseudoClass.getPseudoClass("chosen");
    private static final double WINDOW_SECONDS = 10;

    private final Workspace workspace;
    private final BandSetup setup;
    private final int index;
    private final Label state = new Label();

    BandRow(Workspace workspace, Rig rig, int index, Runnable choose) {
        super(8);
        this.workspace = workspace;
        setup = rig.bands().get(index);
        String unit = unit(rig, setup);
        this.index = index;
        setId("band-" + index);
        getStyleClass().add("rule-row");
        setAlignment(Pos.CENTER_LEFT);
        Region bar = new Region();
        bar.getStyleClass().addAll("rule-bar", "band-bar");
        Band band = setup.band();
        FlowPane sentence = new FlowPane(6, 4);
        sentence.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(sentence, Priority.ALWAYS);
        sentence.getChildren()
                .addAll(
                        Parts.words(Messages.of("bench.act.is-meant-to-stay-from", words(rig, setup))),
                        pill(
                                "low",
                                RuleRow.amount(band.low(), unit),
                                band.low(),
                                v -> new Band(v, band.high(), band.hysteresis())),
                        Parts.words(Messages.of("bench.act.to")),
                        pill(
                                "high",
                                RuleRow.amount(band.high(), unit),
                                band.high(),
                                v -> new Band(band.low(), v, band.hysteresis())),
                        Parts.words(Messages.of("bench.act.hysteresis")),
                        pill(
                                "slack",
                                RuleRow.amount(band.hysteresis(), unit),
                                band.hysteresis(),
                                v -> new Band(band.low(), band.high(), v)));
        state.getStyleClass().add("rule-state");
        state.setMinWidth(Region.USE_PREF_SIZE);
        Button off =
                Bench.button("band-off-" + index, "\u00d7", Messages.of("bench.act.takes-this-range-off-u-undoes-it"));
        off.setAccessibleText(Messages.of("bench.act.take-off-this-range"));
        off.setOnAction(event -> workspace.change(now -> now.withoutBand(setup.reader(), setup.scalar())));
        getChildren().addAll(bar, sentence, state, off);
        addEventFilter(MouseEvent.MOUSE_PRESSED, event -> choose.run());
    }

    private Pill pill(String part, String text, double value, DoubleFunction<Band> with) {
        return new Pill(
                "band-" + index + "-" + part,
                text,
                Digits.box(value),
                Messages.of("bench.act.press-to-write-it-anew"),
                typed -> {
                    try {
                        Band band = with.apply(Parts.number(typed));
                        workspace.change(rig -> rig.withBand(new BandSetup(setup.reader(), setup.scalar(), band)));
                    } catch (NumberFormatException e) {
                        workspace.trouble(Messages.of("bench.act.a-number-such-as-60-is-needed-was", typed));
                    } catch (IllegalArgumentException e) {
                        workspace.trouble(Messages.of("bench.act.the-old-one-stays", e.getMessage()));
                    }
                });
    }

    /** @param now null where nothing is known */
    void show(BandSnapshot now) {
        state.setText(now == null ? "" : Wording.side(now.side()));
    }

    void chosen(boolean is) {
        pseudoClassStateChanged(CHOSEN, is);
    }

    /** @return the range as a rule that is on outside of it, for its picture; its hysteresis lies within the edges and is no strip */
    static Rule.OnSamples asRule(Rig rig, BandSetup band) {
        ReaderSetup reader = reader(rig, band);
        return new Rule.OnSamples(
                words(rig, band),
                new Watch.Number(
                        reader.kind(), reader.columns().get(0), reader.settings(), band.scalar(), WINDOW_SECONDS),
                new Condition.Outside(band.band().low(), band.band().high()),
                0,
                Rule.Holds.NONE);
    }

    /** @return the range with the edges of such a rule; the hysteresis stays as far as there is room */
    static BandSetup moved(BandSetup band, Condition.Outside edges) {
        double most = 0.49 * (edges.high() - edges.low());
        return new BandSetup(
                band.reader(),
                band.scalar(),
                new Band(edges.low(), edges.high(), Math.min(band.band().hysteresis(), most)));
    }

    /** @return its key among what can be chosen */
    static String key(BandSetup band) {
        return "band " + band.reader() + " " + band.scalar();
    }

    BandSetup setup() {
        return setup;
    }

    private static ReaderSetup reader(Rig rig, BandSetup band) {
        return rig.readers().stream()
                .filter(one -> one.id().equals(band.reader()))
                .findFirst()
                .orElse(null);
    }

    private static String words(Rig rig, BandSetup band) {
        ReaderSetup reader = reader(rig, band);
        ScalarInfo scalar = reader == null ? null : reader.readerKind().scalar(band.scalar());
        String channel = reader == null
                ? ""
                : rig.channels().stream()
                        .filter(one -> one.column().equals(reader.columns().get(0)))
                        .map(one -> Messages.of("bench.act.of", one.name()))
                        .findFirst()
                        .orElse("");
        return (scalar == null ? band.scalar() : scalar.words()) + channel;
    }

    static String unit(Rig rig, BandSetup band) {
        ReaderSetup reader = reader(rig, band);
        ScalarInfo scalar = reader == null ? null : reader.readerKind().scalar(band.scalar());
        return scalar == null
                ? ""
                : rig.channels().stream()
                        .filter(one -> one.column().equals(reader.columns().get(0)))
                        .map(one -> scalar.unit(one.scaling().unit()))
                        .findFirst()
                        .orElse("");
    }
}
