package zesty.signal.app.window.bench.read;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import javafx.scene.control.Button;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.vibration.Vibration;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.scale.Digits;
import zesty.signal.engine.ChannelSnapshot;

/**
 * Keeps how a thing shakes while it is well, to tell later which lines grew; and the lines seen at one rate, to tell at another
 * which of them are folded down.
 */
final class VibrationGuide extends Guide {
    private final Button good = Bench.button(
            "keep-good", "Keep as the good state", "these lines are the good state; later ones are compared with them");
    private final Button rate = Bench.button(
            "keep-rate",
            "Seen at this rate",
            "then change the board's rate: a line that moves is aliased from above half the rate");
    private final ToggleButton aliases = new ToggleButton("Show aliases");
    private Reading reading;
    private ReaderSetup setup;
    private double rateHz;

    VibrationGuide(Workspace workspace) {
        super(workspace, "vibration-guide");
        good.setOnAction(event -> keep(Vibration.GOOD, "state", ""));
        rate.setOnAction(event -> keep(Vibration.SEEN, "peaks", Digits.exact(Math.rint(100 * rateHz) / 100)));
        aliases.setId("show-aliases");
        aliases.setTooltip(new Tooltip("each line again above half the rate, where it would be if it is aliased"));
        row(good, rate, aliases);
    }

    /** @return whether lines are to be shown where they would be if they are aliased, too */
    boolean showsAliases() {
        return aliases.isSelected();
    }

    void show(ChannelSnapshot channel, ReaderSetup reader, Reading now) {
        setup = reader;
        reading = now;
        rateHz = channel.rateHz();
        boolean some = !records("peaks").isEmpty();
        good.setDisable(!some);
        rate.setDisable(!some);
        List<String> words = new ArrayList<>();
        if (!reader.checked().text(Vibration.GOOD).isEmpty()) {
            List<String> grown = records("grown").stream()
                    .filter(one -> one[4] == 1)
                    .map(VibrationGuide::grown)
                    .toList();
            words.add(grown.isEmpty() ? "No line grew against the good state." : String.join("; ", grown) + ".");
        }
        if (!reader.checked().text(Vibration.SEEN).isEmpty()) {
            List<double[]> told = records("unfolded");
            words.add(
                    told.isEmpty()
                            ? "Lines of this rate are saved: now change the board's rate."
                            : told.stream().map(VibrationGuide::unfolded).collect(Collectors.joining("; ")) + ".");
        }
        if (words.isEmpty() && some) {
            double hz = records("peaks").get(0)[0];
            words.add(Digits.fixed(hz, 1) + " Hz could be " + Digits.fixed(rateHz - hz, 1) + " or "
                    + Digits.fixed(rateHz + hz, 1) + " Hz aliased; another rate tells.");
        }
        says.setText(String.join(" ", words));
    }

    private static String grown(double[] one) {
        return Digits.fixed(one[0], 1) + " Hz "
                + (one[1] > 0
                        ? "grew " + Digits.fixed(one[2] / one[1], 1) + " times"
                        : "is new, " + Digits.about(one[2], 3))
                + " (" + Digits.fixed(one[3], 0) + " times the scatter)";
    }

    private static String unfolded(double[] one) {
        boolean moved = Math.abs(one[0] - one[2]) > 1.5;
        return Digits.fixed(one[0], 1) + " Hz is "
                + (moved ? Digits.fixed(one[2], 1) + " Hz aliased" : "real: it did not move");
    }

    private List<double[]> records(String key) {
        return reading == null ? List.of() : reading.records(key);
    }

    /** What is captured in reading order: of the state all its numbers, of the peaks the frequency alone behind the rate. */
    private void keep(String key, String of, String first) {
        if (setup == null) {
            return;
        }
        List<String> numbers = new ArrayList<>();
        if (!first.isEmpty()) {
            numbers.add(first);
        }
        for (double[] one : records(of)) {
            int count = first.isEmpty() ? one.length : 1;
            for (int i = 0; i < count; i++) {
                numbers.add(Digits.exact(Double.parseDouble(String.format(java.util.Locale.ROOT, "%.6g", one[i]))));
            }
        }
        workspace.set(setup.id(), key, String.join(",", numbers));
    }
}
