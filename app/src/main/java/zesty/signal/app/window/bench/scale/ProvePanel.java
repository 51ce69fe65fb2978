package zesty.signal.app.window.bench.scale;

import java.io.File;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.ConversionForm;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.PlainScroll;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.prove.Check;
import zesty.signal.core.prove.Fit;
import zesty.signal.core.prove.FitModel;
import zesty.signal.core.prove.Fitting;
import zesty.signal.core.prove.Proof;
import zesty.signal.core.prove.ReferencePoint;
import zesty.signal.core.prove.SteadyMean;
import zesty.signal.core.prove.Uncertainty;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.scale.Chained;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.takes.Table;

/** Proving a channel: hold it at known states, say what the meter says, look at what is left over, adopt or keep. Longer than others: capture, judgement and what follows are one conversation. */
final class ProvePanel extends VBox {
    private final Workspace workspace;
    private final Supplier<Optional<ChannelSnapshot>> focused;
    private final Label needle = new Label();
    private final TextField meter = new TextField();
    private final TextField good = new TextField();
    private final TextField allowed = new TextField();
    private final VBox book = new VBox(2);
    private final VBox list = new VBox(2);
    private final ComboBox<FitModel> model = new ComboBox<>();
    private final Label verdict = new Label();
    private final Plot left = new Plot();
    private final ResponseTest respond;
    private final List<ReferencePoint> points = new ArrayList<>();
    private String column = "";

    ProvePanel(Workspace workspace, Supplier<Optional<ChannelSnapshot>> focused) {
        super(6);
        HelpPlace.mark(this, "proof");
        this.workspace = workspace;
        this.focused = focused;
        respond = new ResponseTest(workspace, focused);
        setMinWidth(430);
        getStyleClass().add("prove");
        needle.setId("needle");
        needle.setWrapText(true);
        needle.setMinHeight(USE_PREF_SIZE);
        meter.setId("meter");
        meter.setPromptText(Messages.of("bench.scale.the-meter-says"));
        meter.setPrefColumnCount(10);
        meter.setOnAction(event -> hold());
        good.setId("good");
        good.setPromptText(Messages.of("bench.scale.uncertainty"));
        good.setPrefColumnCount(8);
        Tip.on(good, Messages.of("bench.scale.the-meter-s-standard-uncertainty"));
        allowed.setId("allowed");
        allowed.setPromptText(Messages.of("bench.scale.tolerance"));
        allowed.setPrefColumnCount(6);
        Tip.on(allowed, Messages.of("bench.scale.how-far-off-a-reading-may-be-each"));
        allowed.textProperty().addListener((p, was, is) -> judge());
        verdict.managedProperty().bind(verdict.textProperty().isNotEmpty());
        Button hold = button(
                Messages.of("bench.scale.capture"),
                "hold",
                Messages.of("bench.scale.take-the-mean-of-the-last-two"),
                this::hold);
        Button csv = button(
                Messages.of("bench.scale.from-csv"),
                "points-csv",
                Messages.of("bench.scale.points-from-a-file-with-the"),
                this::fromCsv);
        model.setId("model");
        model.setAccessibleText(Messages.of("bench.scale.what-is-fitted"));
        model.getItems().setAll(FitModel.values());
        model.setValue(FitModel.LINE);
        model.setConverter(new ModelWords());
        model.setOnAction(event -> judge());
        verdict.setId("verdict");
        verdict.setWrapText(true);
        verdict.setMinHeight(USE_PREF_SIZE);
        left.setMinHeight(90);
        left.setPrefHeight(120);
        Button adopt = button(
                Messages.of("bench.scale.apply"),
                "adopt",
                Messages.of("bench.scale.make-the-fit-part-of-the-chain-u"),
                () -> keep(true));
        Button only = button(
                Messages.of("bench.scale.check-only"),
                "proof-only",
                Messages.of("bench.scale.write-it-into-the-calibration-log"),
                () -> keep(false));
        Button discard = button(
                Messages.of("bench.scale.discard"), "discard", Messages.of("bench.scale.forget-these-points"), () -> {
                    points.clear();
                    judge();
                });
        FlowPane take = new FlowPane(6, 6, meter, good, hold, csv);
        take.setAlignment(Pos.CENTER_LEFT);
        FlowPane end = new FlowPane(6, 6, allowed, model, adopt, only, discard);
        end.setAlignment(Pos.CENTER_LEFT);
        VBox inner = new VBox(6, needle, take, verdict, list, end, respond, book);
        PlainScroll scroll = new PlainScroll(inner);
        inner.setMinWidth(0);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        setMinHeight(0);
        getChildren().add(scroll);
        judge();
    }

    private static Button button(String text, String id, String tip, Runnable action) {
        Button button = new Button(text);
        button.setId(id);
        Tip.on(button, tip);
        button.setMinWidth(USE_PREF_SIZE);
        button.setOnAction(event -> action.run());
        return button;
    }

    /** @return the picture of what is left over at each point, to stand below the curve; there once a fit is */
    Node leftOver() {
        return left;
    }

    List<ReferencePoint> points() {
        return points;
    }

    void show(ChannelSnapshot snapshot) {
        if (!column.equals(snapshot.channel().column())) {
            column = snapshot.channel().column();
            points.clear();
            judge();
        }
        SteadyMean.Held held = SteadyReading.of(snapshot, workspace);
        String unit = snapshot.channel().scaling().unit();
        needle.setText(
                held.samples() < 8
                        ? Messages.of("bench.scale.waiting-for-samples")
                        : Messages.of(
                                "bench.scale.mean-of-noise",
                                (held.steady() ? Messages.of("bench.scale.steady") : Messages.of("bench.scale.moving"))
                                        + Digits.about(held.mean(), 5),
                                unit,
                                held.samples(),
                                Digits.about(held.noise(), 2),
                                (held.steady() ? "" : Messages.of("bench.scale.drift", Digits.about(held.drift(), 2))),
                                age(snapshot, held)));
        respond.show();
        book(snapshot.channel());
    }

    /** Every proof of the channel, the newest first, each with what has moved since the one before. */
    private void book(Channel channel) {
        List<Proof> proofs = channel.proofs();
        if (proofs.size() == book.getChildren().size() - 1
                || proofs.isEmpty() && book.getChildren().isEmpty()) {
            return;
        }
        book.getChildren().clear();
        if (!proofs.isEmpty()) {
            book.getChildren().add(Bench.small(Messages.of("bench.scale.calibration-log")));
        }
        String unit = channel.scaling().unit();
        for (int i = proofs.size() - 1; i >= 0; i--) {
            Proof proof = proofs.get(i);
            String moved = i == 0
                    ? ""
                    : Messages.of(
                            "bench.scale.moved-since-the-last",
                            Digits.about(proof.driftSince(proofs.get(i - 1)), 2),
                            unit);
            Label line = new Label(Messages.of(
                    "bench.scale.through-largest-error",
                    LocalDate.ofInstant(Instant.ofEpochSecond(proof.epochSeconds()), ZoneId.systemDefault()),
                    proof.model().words(),
                    proof.points().size(),
                    (proof.adopted() ? Messages.of("bench.scale.applied") : Messages.of("bench.scale.check-only-2")),
                    Digits.about(proof.worstMiss(), 2),
                    unit,
                    moved));
            line.setWrapText(true);
            line.getStyleClass().add("proof");
            Tip.on(
                    line,
                    proof.points().stream()
                            .map(p -> Messages.of(
                                    "bench.scale.where-it-should-be",
                                    Digits.about(p.raw(), 5),
                                    Digits.of(p.reference())))
                            .collect(Collectors.joining("\n")));
            book.getChildren().add(line);
        }
    }

    /** A channel wears its proof's age and worst miss, and what limits its reading. */
    private static String age(ChannelSnapshot snapshot, SteadyMean.Held held) {
        Channel channel = snapshot.channel();
        Proof proof = channel.proof();
        if (proof == null) {
            return Messages.of("bench.scale.never-calibrated");
        }
        Uncertainty limits = Uncertainty.of(
                snapshot.scalingNow().stepSize(),
                held.noise(),
                held.samples(),
                proof.referenceUncertainty(),
                proof.fit().rmsResidual());
        return Messages.of(
                "bench.scale.calibrated-at-largest-error",
                proof.age(Instant.now().getEpochSecond()),
                proof.points().size(),
                (proof.points().size() == 1 ? Messages.of("bench.scale.point") : Messages.of("bench.scale.points")),
                Digits.about(proof.worstMiss(), 2),
                channel.scaling().unit(),
                limits.words(channel.scaling().unit()));
    }

    private void hold() {
        Optional<ChannelSnapshot> snapshot = focused.get();
        if (snapshot.isEmpty()) {
            return;
        }
        SteadyMean.Held held = SteadyReading.of(snapshot.get(), workspace);
        if (Double.isNaN(held.mean())) {
            workspace.trouble(Messages.of("bench.scale.there-are-too-few-samples-to-hold"));
            return;
        }
        try {
            double reference = ConversionForm.number(meter.getText());
            double uncertainty = good.getText().isBlank() ? 0 : ConversionForm.number(good.getText());
            points.add(new ReferencePoint(
                    held.mean() - snapshot.get().channel().scaling().correction(), reference, uncertainty));
            meter.clear();
            judge();
            if (!held.steady()) {
                workspace.say(Messages.of(
                        "bench.scale.the-signal-was-moving-while-it-was", Digits.about(Math.abs(held.drift()), 2)));
            }
        } catch (IllegalArgumentException e) {
            workspace.trouble(Messages.of("bench.scale.what-the-meter-says", e.getMessage()));
        }
    }

    private void fromCsv() {
        File file = new FileChooser().showOpenDialog(getScene().getWindow());
        if (file != null) {
            read(file.toPath());
        }
    }

    /** Takes points from a file with the columns raw and reference. */
    void read(Path file) {
        workspace
                .tasks()
                .fetch(
                        Messages.of("bench.scale.the-points-could-not-be-read"),
                        () -> {
                            Table table = Table.open(file);
                            double[] raw = table.column(Messages.of("bench.scale.raw"));
                            double[] reference = table.column(Messages.of("bench.scale.reference"));
                            List<ReferencePoint> found = new ArrayList<>();
                            for (int i = 0; i < raw.length; i++) {
                                found.add(new ReferencePoint(raw[i], reference[i]));
                            }
                            return found;
                        },
                        found -> {
                            points.addAll(found);
                            judge();
                        });
    }

    private Fit fit() {
        return Fitting.fit(model.getValue(), points);
    }

    private void judge() {
        list.getChildren().clear();
        Fit fit = null;
        try {
            fit = points.isEmpty() ? null : fit();
            verdict.getStyleClass().setAll("label", "bench-line");
            String unit = focused.get().map(s -> s.channel().scaling().unit()).orElse("");
            Check check = allowed.getText().isBlank() || fit == null
                    ? null
                    : new Check(points, ConversionForm.number(allowed.getText()));
            verdict.setText(
                    check != null
                            ? check.words(unit)
                            : fit == null
                                    ? Messages.of("bench.scale.bring-the-sensor-to-a-known-state")
                                    : Fitting.verdict(fit, unit));
        } catch (IllegalArgumentException e) {
            verdict.getStyleClass().setAll("label", points.size() > 1 ? "error" : "hint");
            verdict.setText(Character.toUpperCase(e.getMessage().charAt(0))
                    + e.getMessage().substring(1) + ".");
        }
        for (int i = 0; i < points.size(); i++) {
            ReferencePoint point = points.get(i);
            int index = i;
            Label words = Bench.mono(String.format(
                    Messages.of("bench.scale.12s-meter-10s-s"),
                    Digits.about(point.raw(), 5),
                    Digits.of(point.reference()),
                    remark(fit, index)));
            Button away = new Button("×");
            away.getStyleClass().add("tile-off");
            away.setOnAction(event -> {
                points.remove(index);
                judge();
            });
            HBox row = new HBox(6, words, away);
            row.setAlignment(Pos.CENTER_LEFT);
            list.getChildren().add(row);
        }
        left.setVisible(fit != null);
        left.setManaged(fit != null);
        if (fit != null) {
            drawLeftOver(fit);
        }
    }

    /** @return what is left over at a point, or whether it passes where the maker said what is allowed */
    private String remark(Fit fit, int index) {
        try {
            if (!allowed.getText().isBlank()) {
                Check check = new Check(points, ConversionForm.number(allowed.getText()));
                return Messages.of(
                        "bench.scale.off-by",
                        Digits.about(check.error(index), 2),
                        (check.passes(index) ? Messages.of("bench.scale.pass") : Messages.of("bench.scale.fail")));
            }
        } catch (IllegalArgumentException e) {
            return "";
        }
        return Messages.of("bench.scale.residual", (fit == null ? "—" : Digits.about(fit.residuals()[index], 2)));
    }

    private void drawLeftOver(Fit fit) {
        double low =
                points.stream().mapToDouble(ReferencePoint::reference).min().orElse(0);
        double high =
                points.stream().mapToDouble(ReferencePoint::reference).max().orElse(1);
        double most = Math.max(1e-9, fit.maxResidual() * 1.3);
        double[] x = points.stream().mapToDouble(ReferencePoint::reference).toArray();
        double margin = 0.05 * Math.max(1e-9, high - low);
        left.begin(
                workspace.view().night().get(),
                low - margin,
                high + margin,
                Messages.of("bench.scale.reference"),
                -most,
                most,
                Messages.of("bench.scale.residual-2"));
        left.dots(
                x,
                fit.residuals(),
                x.length,
                Palette.residual(workspace.view().night().get()),
                4);
    }

    private void keep(boolean adopted) {
        Optional<ChannelSnapshot> snapshot = focused.get();
        if (snapshot.isEmpty() || points.isEmpty()) {
            workspace.trouble(Messages.of("bench.scale.capture-a-point-first"));
            return;
        }
        try {
            Fit fit = fit();
            Scaling before = snapshot.get().channel().scaling();
            Proof proof =
                    new Proof(Instant.now().getEpochSecond(), fit.model(), List.copyOf(points), adopted, before.unit());
            Scaling after = new Scaling(
                    before.converter(),
                    Chained.of(before.conversion(), fit.conversion()),
                    before.corrections(),
                    before.unit());
            workspace.change(rig -> rig.withChannel(
                    snapshot.get().channel().column(),
                    c -> adopted ? c.withScaling(after).proved(proof) : c.proved(proof)));
            workspace.say(Messages.of(
                    "bench.scale.largest-error-u-undoes-it",
                    (adopted ? Messages.of("bench.scale.applied-2") : Messages.of("bench.scale.saved-as-a-check-only")),
                    Digits.about(proof.worstMiss(), 2),
                    before.unit()));
            points.clear();
            judge();
        } catch (IllegalArgumentException e) {
            workspace.trouble(e.getMessage() + ".");
        }
    }

    private static final class ModelWords extends javafx.util.StringConverter<FitModel> {
        @Override
        public String toString(FitModel model) {
            return model == null ? "" : model.words();
        }

        @Override
        public FitModel fromString(String text) {
            return FitModel.LINE;
        }
    }
}
