package zesty.signal.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;
import zesty.signal.core.picture.Film;
import zesty.signal.core.picture.FrameNumbers;
import zesty.signal.core.picture.FrameSeries;
import zesty.signal.core.picture.Region;
import zesty.signal.core.picture.Turned;
import zesty.signal.core.sample.Times;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.exchange.report.Report;
import zesty.signal.takes.Mark;

/** The heat pictures of a take that a page shows: the first, the hottest, the last and those at markers, all on one scale. */
final class TakePictures {
    private static final int MOST = 6;

    private TakePictures() {}

    /** @return a row of pictures for each source that has some; pictures of a long take are read from its file */
    static List<Report.Pictures> of(StoredTake stored, List<Mark> marks) {
        List<Report.Pictures> all = new ArrayList<>();
        List<Film> seen = new ArrayList<>();
        for (ChannelSnapshot channel : stored.snapshot().channels()) {
            Film film = channel.stream().film();
            if (film != null && seen.stream().noneMatch(film::sameSource)) {
                seen.add(film);
                Report.Pictures pictures = pictures(channel, film, marks);
                if (!pictures.frames().isEmpty()) {
                    all.add(pictures);
                }
            }
        }
        return all;
    }

    private static Report.Pictures pictures(ChannelSnapshot channel, Film film, List<Mark> marks) {
        Times times = channel.stream().times();
        long first = -1;
        long last = -1;
        long hottest = -1;
        double most = Double.NEGATIVE_INFINITY;
        double low = Double.POSITIVE_INFINITY;
        for (long row = film.start(); row < film.end(); row++) {
            double[] frame = film.frame(row);
            for (double value : frame == null ? new double[0] : frame) {
                if (value > most) {
                    most = value;
                    hottest = row;
                }
                low = value < low ? value : low;
            }
            first = frame != null && first < 0 ? row : first;
            last = frame != null ? row : last;
        }
        TreeSet<Long> rows = new TreeSet<>();
        if (hottest >= 0) {
            rows.addAll(List.of(first, hottest, last));
        }
        for (Mark mark : marks) {
            long row = times.firstAtOrAfter(mark.seconds());
            if (rows.size() < MOST && row < film.end() && film.frame(row) != null) {
                rows.add(row);
            }
        }
        List<Report.Frame> frames = new ArrayList<>();
        String unit = channel.channel().unit();
        for (long row : rows) {
            double[] values = film.frame(row);
            String words = Digits.fixed(times.secondsAt(row), 1) + " s, " + hottest(values, film.width(), unit)
                    + (row == hottest ? Messages.of("engine.the-hottest-of-all") : "");
            frames.add(new Report.Frame(words, values));
        }
        List<Region> regions = film.setup().regions();
        String parts = regions.isEmpty()
                ? ""
                : Messages.of(
                        "engine.outlined",
                        String.join(", ", regions.stream().map(Region::name).toList()));
        return new Report.Pictures(
                Messages.of("engine.heat-pictures", parts),
                unit,
                low,
                most,
                regions,
                Turned.of(film.width(), film.height(), film.setup()),
                frames);
    }

    private static String hottest(double[] frame, int width, String unit) {
        FrameSeries one = new FrameSeries(width, frame.length / width, new double[1], new double[][] {frame});
        FrameNumbers.Spot spot =
                FrameNumbers.of(one, 0, FrameNumbers.Box.whole(one), Double.NaN).hottest();
        return Messages.of("engine.at-column-row", Digits.fixed(spot.value(), 1), unit, spot.x(), spot.y());
    }
}
