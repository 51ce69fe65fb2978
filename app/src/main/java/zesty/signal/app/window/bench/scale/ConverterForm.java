package zesty.signal.app.window.bench.scale;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.ConversionForm;
import zesty.signal.app.window.bench.TypedText;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.core.rig.ExtraInputs;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.text.Messages;

/** What is told of the board's converter: bits, reference, codes. */
final class ConverterForm {
    private static final String NONE = Messages.of("bench.scale.raw");
    private static final String STEPS = Messages.of("bench.scale.steps-2-bits");
    private static final String TOP = Messages.of("bench.scale.highest-code-2-bits-1");
    private static final String TYPED = "typed";
    private static final int FEWEST_BITS = 8;
    private static final int MOST_BITS = 24;

    private final ComboBox<String> bits = new ComboBox<>();
    private final TextField reference =
            ScaleBench.field(4, Messages.of("bench.scale.the-converter-s-reference-in-v-as"));
    private final ComboBox<String> measured = new ComboBox<>();
    private final CheckBox signed = new CheckBox(Messages.of("bench.scale.signed"));
    private final ComboBox<String> divisor = new ComboBox<>();
    private final Runnable changed;
    private boolean filling;

    /** @param changed told when one of it was changed by hand */
    ConverterForm(Runnable changed) {
        this.changed = changed;
        bits.getItems().add(NONE);
        for (int b = FEWEST_BITS; b <= MOST_BITS; b++) {
            bits.getItems().add(Messages.of("bench.scale.bit", b));
        }
        bits.setId("bits");
        Tip.on(bits, Messages.of("bench.scale.how-many-bits-the-board-s"));
        divisor.getItems().setAll(STEPS, TOP);
        Tip.on(divisor, Messages.of("bench.scale.makers-disagree-the-full-scale"));
        measured.setId("measured");
        Tip.on(measured, Messages.of("bench.scale.typed-and-steady-or-measured-all"));
        signed.setId("signed");
        Tip.on(signed, Messages.of("bench.scale.codes-below-0-stand-for-voltages"));
        reference.setId("reference");
        bits.setOnAction(event -> tell());
        divisor.setOnAction(event -> tell());
        measured.setOnAction(event -> tell());
        signed.setOnAction(event -> tell());
        reference.setOnAction(event -> tell());
        reference.focusedProperty().addListener((p, was, is) -> {
            if (!is) {
                tell();
            }
        });
    }

    private void tell() {
        if (!filling) {
            able();
            changed.run();
        }
    }

    Node[] rows() {
        return new Node[] {
            new HBox(
                    10,
                    Bench.labelled(Messages.of("bench.scale.converter-2"), bits),
                    Bench.labelled(Messages.of("bench.scale.codes"), signed)),
            new HBox(
                    10,
                    Bench.labelled(Messages.of("bench.scale.reference-v"), reference),
                    Bench.labelled(Messages.of("bench.scale.reference-is"), measured)),
            Bench.labelled(Messages.of("bench.scale.divided-by"), divisor)
        };
    }

    /**
     * @param offered columns by which the reference may be measured
     * @param same whether it is about the channel that it was about before, so that what is being typed stays
     */
    void fill(Converter converter, List<String> offered, boolean same) {
        filling = true;
        bits.setValue(converter == null ? NONE : Messages.of("bench.scale.bit", converter.bits()));
        String volts = converter == null ? "5" : Digits.box(converter.referenceVolts());
        if (same) {
            TypedText.say(reference, volts);
        } else {
            TypedText.sayAnew(reference, volts);
        }
        divisor.setValue(converter != null && converter.divisor() == Divisor.HIGHEST_CODE ? TOP : STEPS);
        signed.setSelected(converter != null && converter.signed());
        measured.getItems().setAll(TYPED);
        measured.getItems().addAll(offered);
        String from = converter == null ? "" : converter.referenceFrom();
        measured.setValue(from.isEmpty() ? TYPED : ExtraInputs.variable(from));
        able();
        filling = false;
    }

    private void able() {
        boolean through = !NONE.equals(bits.getValue());
        reference.setDisable(!through);
        divisor.setDisable(!through);
        measured.setDisable(!through);
        signed.setDisable(!through);
    }

    /**
     * @return the converter as it is told; null for none
     * @throws IllegalArgumentException when that is none
     */
    Converter value() {
        return NONE.equals(bits.getValue())
                ? null
                : new Converter(
                        Integer.parseInt(bits.getValue().replaceAll("\\D", "")),
                        number(Messages.of("bench.scale.reference"), reference.getText()),
                        TOP.equals(divisor.getValue()) ? Divisor.HIGHEST_CODE : Divisor.STEPS,
                        signed.isSelected(),
                        measured.getValue() == null || TYPED.equals(measured.getValue()) ? "" : measured.getValue());
    }

    static double number(String what, String text) {
        try {
            return ConversionForm.number(text);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(
                    Messages.of("bench.scale.the-must-be-a-number-such-as-0-5", what, text), e);
        }
    }
}
