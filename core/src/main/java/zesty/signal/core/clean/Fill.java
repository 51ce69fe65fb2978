package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;

/** Missing values are filled, up to a limit. */
public record Fill(double seconds) implements Step {
    @Override
    public String text() {
        return "fill:" + Digits.exact(seconds);
    }

    @Override
    public String words() {
        return "filled up to " + Digits.of(seconds) + " s";
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named("up to, s");
    }

    @Override
    public String about() {
        return "missing samples are drawn straight from side to side, up to the limit";
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new Filler(Words.window(text(), Math.floor(seconds * rate), rate, 1, StepParser.LONGEST_WINDOW));
    }

    @Override
    public void onceThrough(double[] data, double rate) {
        ((GapFiller) stage(rate, Start.FROM_REST)).whole(data);
    }
}
