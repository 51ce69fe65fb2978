package zesty.signal.core.clean;

/** Takes a straight line off all of a record; on a stream the line so far. */
public record Detrend() implements Step {
    @Override
    public String text() {
        return "detrend";
    }

    @Override
    public String words() {
        return "without its straight line";
    }

    @Override
    public String about() {
        return "the straight line through a whole segment is removed";
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
