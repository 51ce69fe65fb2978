package zesty.signal.app.window.bench.scale;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.ConversionForm;
import zesty.signal.app.window.bench.TypedText;
import zesty.signal.core.rig.ExtraInputs;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Divisor;

/** What is told of the board's converter: bits, reference, codes. */
final class ConverterForm {
    private static final String NONE = "raw";
    private static final String STEPS = "steps (2^bits)";
    private static final String TOP = "highest code (2^bits − 1)";
    private static final String TYPED = "typed";
    private static final int FEWEST_BITS = 8;
    private static final int MOST_BITS = 24;

    private final ComboBox<String> bits = new ComboBox<>();
    private final TextField reference = ScaleBench.field(4, "the converter's reference, in V, as you measured it");
    private final ComboBox<String> measured = new ComboBox<>();
    private final CheckBox signed = new CheckBox("signed");
    private final ComboBox<String> divisor = new ComboBox<>();
    private final Runnable changed;
    private boolean filling;

    /** @param changed told when one of it was changed by hand */
    ConverterForm(Runnable changed) {
        this.changed = changed;
        bits.getItems().add(NONE);
        for (int b = FEWEST_BITS; b <= MOST_BITS; b++) {
            bits.getItems().add(b + " bit");
        }
        bits.setId("bits");
        bits.setTooltip(new Tooltip("how many bits the board's converter has"));
        divisor.getItems().setAll(STEPS, TOP);
        divisor.setTooltip(new Tooltip("makers disagree; the full-scale code is one count below the reference"));
        measured.setId("measured");
        measured.setTooltip(new Tooltip("typed and steady, or measured all the time by another column that gives V"));
        signed.setId("signed");
        signed.setTooltip(new Tooltip("codes below 0 stand for voltages below 0"));
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
            new HBox(10, Bench.labelled("Converter", bits), Bench.labelled("Codes", signed)),
            new HBox(10, Bench.labelled("Reference, V", reference), Bench.labelled("Reference is", measured)),
            Bench.labelled("Divided by", divisor)
        };
    }

    /**
     * @param offered columns by which the reference may be measured
     * @param same whether it is about the channel that it was about before, so that what is being typed stays
     */
    void fill(Converter converter, List<String> offered, boolean same) {
        filling = true;
        bits.setValue(converter == null ? NONE : converter.bits() + " bit");
        String volts = converter == null ? "5" : Digits.exact(converter.referenceVolts());
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
                        Integer.parseInt(bits.getValue().replace(" bit", "")),
                        number("reference", reference.getText()),
                        TOP.equals(divisor.getValue()) ? Divisor.HIGHEST_CODE : Divisor.STEPS,
                        signed.isSelected(),
                        measured.getValue() == null || TYPED.equals(measured.getValue()) ? "" : measured.getValue());
    }

    static double number(String what, String text) {
        try {
            return ConversionForm.number(text);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("the " + what + " must be a number such as 0.5, was '" + text + "'", e);
        }
    }
}
