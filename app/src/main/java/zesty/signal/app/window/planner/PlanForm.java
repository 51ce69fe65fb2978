package zesty.signal.app.window.planner;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.BiFunction;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.StringConverter;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.TypedText;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.core.plan.Draft;
import zesty.signal.core.plan.Plan;
import zesty.signal.core.read.Need;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** What a plan is made of, a line each; what cannot be is said and left as it was. JavaFX thread. */
final class PlanForm extends VBox {
    private static final List<Integer> SPEEDS =
            List.of(9600, 19_200, 38_400, 57_600, 115_200, 230_400, 460_800, 921_600, 1_000_000, 2_000_000);
    private static final double FIELD = 150;

    /** A question, and the sort of sensor that answers it. */
    private record Asked(ReaderKind kind, int sensor) {
        Need need() {
            return kind.needs().get(sensor);
        }

        String words() {
            return kind.title() + ": " + need().sensor();
        }
    }

    private interface Filled {
        void show(Draft draft);
    }

    private final Consumer<Draft> change;
    private final GridPane grid = new GridPane();
    private final Label wrong = new Label();
    private final List<Filled> fields = new ArrayList<>();
    private final ComboBox<Asked> question = new ComboBox<>();
    private Draft draft;
    private boolean filling;

    /** @param ask begins anew with a kind and one of its sensors. @param change takes another plan */
    PlanForm(BiConsumer<ReaderKind, Integer> ask, Consumer<Draft> change) {
        super(8);
        this.change = change;
        setId("plan-form");
        grid.setHgap(8);
        grid.setVgap(4);
        for (ReaderKind kind : ReaderKinds.all()) {
            for (int i = 0; i < kind.needs().size(); i++) {
                question.getItems().add(new Asked(kind, i));
            }
        }
        question.setId("plan-question");
        question.setConverter(words(Asked::words));
        Tip.on(question, Messages.of("planner.what-you-want-to-know-and-with"));
        question.setOnAction(event -> {
            Asked asked = question.getValue();
            if (!filling && asked != null) {
                ask.accept(asked.kind(), asked.sensor());
            }
        });
        question.setMaxWidth(Double.MAX_VALUE);
        grid.add(question, 0, 0, 2, 1);
        fields.add(now -> question.setValue(question.getItems().stream()
                .filter(one ->
                        one.kind().name().equals(now.kind()) && one.need().equals(now.need()))
                .findFirst()
                .orElse(null)));
        number("rate", Messages.of("planner.rows"), "/s", Draft::rateHz, Draft::withRate);
        number(
                "channels",
                Messages.of("planner.channels"),
                "",
                d -> (double) d.channels(),
                (d, v) -> d.withChannels(whole(v)));
        ComboBox<Integer> line = new ComboBox<>();
        line.getItems().setAll(SPEEDS);
        line.setConverter(words(speed -> Messages.of("planner.baud", Digits.of(speed))));
        choice("line", Messages.of("planner.line"), line, d -> (int) d.baud(), (d, v) -> d.withLine(v, d.packets()));
        ComboBox<Boolean> sent = new ComboBox<>();
        sent.getItems().setAll(false, true);
        sent.setConverter(words(packets ->
                packets ? Messages.of("planner.packets-with-a-check") : Messages.of("planner.text-one-line-a-row")));
        choice("sent", Messages.of("planner.sent-as"), sent, Draft::packets, (d, v) -> d.withLine(d.baud(), v));
        number(
                "bits",
                Messages.of("planner.converter"),
                Messages.of("planner.bits"),
                d -> (double) d.converter().bits(),
                (d, v) -> d.withConverter(new Plan.Converter(
                        whole(v),
                        d.converter().ref(),
                        d.converter().noiseCounts(),
                        d.converter().average())));
        number(
                "ref",
                Messages.of("planner.reference"),
                "V",
                d -> d.converter().ref(),
                (d, v) -> d.withConverter(new Plan.Converter(
                        d.converter().bits(),
                        v,
                        d.converter().noiseCounts(),
                        d.converter().average())));
        number(
                "noise",
                Messages.of("planner.noise"),
                Messages.of("planner.counts"),
                d -> d.converter().noiseCounts(),
                (d, v) -> d.withConverter(new Plan.Converter(
                        d.converter().bits(),
                        d.converter().ref(),
                        v,
                        d.converter().average())));
        number(
                "average",
                Messages.of("planner.averaging"),
                "×",
                d -> d.converter().average(),
                (d, v) -> d.withConverter(new Plan.Converter(
                        d.converter().bits(), d.converter().ref(), d.converter().noiseCounts(), v)));
        number(
                "swing",
                Messages.of("planner.signal-s-swing"),
                "V",
                Draft::swingVolts,
                (d, v) -> d.withSignal(v, d.recipe(), d.tones()));
        text(
                "recipe",
                Messages.of("planner.recipe"),
                Messages.of("planner.none"),
                Draft::recipe,
                (d, v) -> d.withSignal(d.swingVolts(), v, d.tones()));
        text(
                "tones",
                Messages.of("planner.lamps-motors"),
                Messages.of("planner.hz-parted-by-commas"),
                d -> d.tones().stream().map(Digits::exact).collect(Collectors.joining(", ")),
                (d, v) -> d.withSignal(d.swingVolts(), d.recipe(), numbers(v)));
        number(
                "memory",
                Messages.of("planner.memory"),
                Messages.of("planner.bytes"),
                Draft::memoryBytes,
                Draft::withMemory);
        number(
                "mah",
                Messages.of("planner.battery"),
                "mAh",
                Draft::milliampHours,
                (d, v) -> d.withBattery(v, d.milliamps(), d.wantedHours()));
        number(
                "ma",
                Messages.of("planner.draws"),
                "mA",
                Draft::milliamps,
                (d, v) -> d.withBattery(d.milliampHours(), v, d.wantedHours()));
        number(
                "hours",
                Messages.of("planner.must-last"),
                "h",
                Draft::wantedHours,
                (d, v) -> d.withBattery(d.milliampHours(), d.milliamps(), v));
        wrong.getStyleClass().add("error");
        wrong.setId("plan-wrong");
        wrong.setWrapText(true);
        wrong.setMinHeight(USE_PREF_SIZE);
        wrong.managedProperty().bind(wrong.textProperty().isNotEmpty());
        getChildren().addAll(grid, wrong);
    }

    private static int whole(double value) {
        if (value != Math.rint(value)) {
            throw new IllegalArgumentException(Messages.of("planner.a-whole-number-is-needed-was", value));
        }
        return (int) Math.max(Integer.MIN_VALUE, Math.min(Integer.MAX_VALUE, value));
    }

    private static double number(String text) {
        try {
            return Digits.typed(text.replaceAll("(?<=\\d) (?=\\d)", ""));
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException(Messages.of("planner.is-not-a-number", text.strip()));
        }
    }

    private static List<Double> numbers(String text) {
        return text.isBlank()
                ? List.of()
                : Arrays.stream(text.strip().split("[,;\\s]+"))
                        .map(PlanForm::number)
                        .toList();
    }

    private static <T> StringConverter<T> words(Function<T, String> words) {
        return new StringConverter<>() {
            @Override
            public String toString(T value) {
                return value == null ? "" : words.apply(value);
            }

            @Override
            public T fromString(String text) {
                return null;
            }
        };
    }

    private void row(String label, Region field) {
        field.setAccessibleText(label);
        Label name = Bench.small(label);
        name.setMinWidth(USE_PREF_SIZE);
        field.setMinWidth(0);
        field.setPrefWidth(FIELD);
        field.setMaxWidth(Double.MAX_VALUE);
        GridPane.setHgrow(field, Priority.ALWAYS);
        int at = grid.getRowCount();
        grid.add(name, 0, at);
        grid.add((Node) field, 1, at);
    }

    private <T> void choice(
            String id, String label, ComboBox<T> box, Function<Draft, T> of, BiFunction<Draft, T, Draft> to) {
        box.setId("plan-" + id);
        box.setOnAction(event -> {
            if (!filling && box.getValue() != null) {
                take(now -> to.apply(now, box.getValue()));
            }
        });
        fields.add(now -> box.setValue(of.apply(now)));
        row(label, box);
    }

    private void number(
            String id, String label, String unit, Function<Draft, Double> of, BiFunction<Draft, Double, Draft> to) {
        text(
                id,
                label,
                unit,
                now -> Digits.box(of.apply(now)) + (unit.isEmpty() ? "" : " " + unit),
                (now, text) -> to.apply(
                        now,
                        number(
                                unit.isEmpty()
                                        ? text
                                        : text.strip().replaceAll("\\s*" + Pattern.quote(unit) + "$", ""))));
    }

    private void text(
            String id, String label, String prompt, Function<Draft, String> of, BiFunction<Draft, String, Draft> to) {
        TextField field = new TextField();
        field.setId("plan-" + id);
        field.setPromptText(prompt);
        Runnable typed = () -> {
            if (draft != null
                    && !field.getText().equals(of.apply(draft))
                    && take(now -> to.apply(now, field.getText()))) {
                TypedText.sayAnew(field, of.apply(draft));
            }
        };
        field.setOnAction(event -> typed.run());
        field.focusedProperty().addListener((p, was, is) -> {
            if (!is) {
                typed.run();
            }
        });
        fields.add(now -> TypedText.say(field, of.apply(now)));
        row(label, field);
    }

    /** @return whether it could be */
    private boolean take(Function<Draft, Draft> with) {
        try {
            Draft other = with.apply(draft);
            wrong.setText("");
            change.accept(other);
            return true;
        } catch (IllegalArgumentException e) {
            String why = e.getMessage();
            wrong.setText(Character.toUpperCase(why.charAt(0)) + why.substring(1) + ".");
            return false;
        }
    }

    void show(Draft now) {
        draft = now;
        filling = true;
        fields.forEach(field -> field.show(now));
        filling = false;
    }
}
