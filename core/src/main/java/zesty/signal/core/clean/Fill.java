package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Missing values are filled, up to a limit. */
public record Fill(double seconds) implements Step {
    @Override
    public String text() {
        return "fill:" + Digits.exact(seconds);
    }

    @Override
    public String words() {
        return Messages.of("clean.filled-up-to-s", Digits.of(seconds));
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.up-to-s"));
    }

    @Override
    public String about() {
        return Messages.of("clean.missing-samples-are-drawn-straight");
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
