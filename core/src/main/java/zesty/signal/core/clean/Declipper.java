package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** What was cut off at the end of the range is drawn on, up to a limit. */
public record Declipper(double seconds) implements Step {
    @Override
    public String text() {
        return "unclip:" + Digits.exact(seconds);
    }

    @Override
    public String words() {
        return Messages.of("clean.clipped-tops-restored");
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.up-to-s"));
    }

    @Override
    public String about() {
        return Messages.of("clean.restores-what-was-clipped-at-the");
    }

    @Override
    public long context(double rate) {
        return Long.MAX_VALUE;
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new DeclipStage(Words.window(text(), Math.floor(seconds * rate), rate, 3, StepParser.LONGEST_WINDOW));
    }

    @Override
    public void onceThrough(double[] data, double rate) {
        ((GapFiller) stage(rate, Start.FROM_REST)).whole(data);
    }
}
