package zesty.signal.core.clean;

import zesty.signal.core.text.Messages;

/** Takes a straight line off all of a record; on a stream the line so far. */
public record Detrend() implements Step {
    @Override
    public String text() {
        return "detrend";
    }

    @Override
    public String words() {
        return Messages.of("clean.without-its-straight-line");
    }

    @Override
    public String about() {
        return Messages.of("clean.the-straight-line-through-a-whole");
    }

    @Override
    public boolean removesLevel() {
        return true;
    }

    @Override
    public long context(double rate) {
        return Long.MAX_VALUE;
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new LineRemover();
    }

    @Override
    public void onceThrough(double[] data, double rate) {
        LineRemover.removeLine(data);
    }
}
