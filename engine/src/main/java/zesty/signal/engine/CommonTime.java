package zesty.signal.engine;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.ClockOffset;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.TimeBase;

/**
 * Brings the sources of a trail onto one time line: that of the source heard first. The others' rows are moved by the
 * difference of what arrival says of either clock; a changed estimate is worked off by at most one part in a hundred of
 * the time that passes (one in five in the first seconds, when little is known), so that time never jumps or falls. Any
 * thread.
 */
final class CommonTime {
    private static final double MOST_SLEW = 0.01;
    private static final double EARLY_SLEW = 0.2;
    private static final double EARLY_SECONDS = 5;

    private static final class Place {
        final ClockOffset clock = new ClockOffset();
        double shift = Double.NaN;
        double untilOwn;
        double firstOwn;
    }

    private final Map<Feed, Place> places = new HashMap<>();
    private Place reference;

    /** @return the block with its times on the common line; the first source's stays as it is */
    synchronized Block place(Feed feed, Block block, double arrivalSeconds) {
        if (block.rows() == 0) {
            return block;
        }
        Place place = places.computeIfAbsent(feed, key -> new Place());
        place.clock.saw(block.lastSeconds(), arrivalSeconds);
        if (reference == null) {
            reference = place;
        }
        if (place == reference) {
            place.shift = 0;
            return block;
        }
        double target = place.clock.offsetSeconds() - reference.clock.offsetSeconds();
        double from = block.time().secondsAt(0);
        if (Double.isNaN(place.shift)) {
            place.shift = target;
            place.untilOwn = from;
            place.firstOwn = from;
        }
        double span = block.lastSeconds() - place.untilOwn;
        boolean early = place.untilOwn - place.firstOwn < EARLY_SECONDS;
        double most = (early ? EARLY_SLEW : MOST_SLEW) * Math.max(0, span);
        double step = Math.max(-most, Math.min(most, target - place.shift));
        Block placed = moved(block, place.untilOwn, place.shift, span > 0 ? step / span : 0);
        place.shift += step;
        place.untilOwn = block.lastSeconds();
        return placed;
    }

    /** @return what is added to a source's own time now; NaN while nothing of it has come, 0 for the one heard first */
    synchronized double shiftSeconds(Feed feed) {
        Place place = places.get(feed);
        return place == null ? Double.NaN : place.shift;
    }

    private static Block moved(Block block, double since, double shift, double slope) {
        TimeBase time;
        if (block.time() instanceof TimeBase.Steady steady) {
            double first = steady.firstSeconds();
            time = new TimeBase.Steady(
                    first + at(first, since, shift, slope),
                    steady.periodSeconds() * (1 + (first >= since ? slope : 0)));
        } else {
            double[] seconds = new double[block.rows()];
            for (int row = 0; row < seconds.length; row++) {
                double own = block.time().secondsAt(row);
                seconds[row] = own + at(own, since, shift, slope);
            }
            time = new TimeBase.Explicit(seconds);
        }
        List<Gap> gaps = new ArrayList<>();
        for (Gap gap : block.gaps()) {
            gaps.add(new Gap(
                    gap.startSeconds() + at(gap.startSeconds(), since, shift, slope),
                    gap.endSeconds() + at(gap.endSeconds(), since, shift, slope),
                    gap.missing()));
        }
        return new Block(time, block.columns(), block.rows(), gaps, block.frames());
    }

    private static double at(double own, double since, double shift, double slope) {
        return shift + Math.max(0, own - since) * slope;
    }
}
