package zesty.signal.engine;

import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.sample.Block;

/** Receives what the source gives, on the source's thread. */
interface RowReceiver {
    /** The format is known; blocks of that many columns follow. */
    void format(StreamFormat format);

    /**
     * @param rateUncertainty as a share of the rate, where arrival alone tells it; else 0
     * @param arrivalNanos when its last row arrived
     */
    void block(Block block, double rateHz, double rateUncertainty, long arrivalNanos);

    /** Words of the stream are numbers in its rows: what they stand for, told anew when there is a new one. */
    void words(String legend);

    /** The stream came to its end: no block follows. */
    void over();
}
