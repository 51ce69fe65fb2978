package zesty.signal.app.command;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.decode.Rows;
import zesty.signal.core.decode.StreamDecoder;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.picture.DeadPixels;
import zesty.signal.core.picture.FrameNumbers;
import zesty.signal.core.picture.FrameSeries;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.core.scale.Digits;
import zesty.signal.takes.Table;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/** The extractor of pictures: of a take, a table with columns r1c1, r1c2, …, or what a camera sent as text. */
final class PictureExtract {
    static final String NAME = "picture";
    private static final List<String> KEYS = List.of("limit", "box");
    private static final Pattern BOX = Pattern.compile("(\\d+)\\.\\.(\\d+),(\\d+)\\.\\.(\\d+)");

    private PictureExtract() {}

    /** What was read, and what of a take did not check. */
    record Read(FrameSeries series, List<String> damage) {}

    static Read read(Path file, List<String> columns, String rateText, boolean raw) {
        for (String column : columns) {
            if (!column.equals(NAME) || columns.size() > 1) {
                throw new Refusal(
                        file + ": a file with one picture has it under the name picture; was '" + column + "'");
            }
        }
        double rate = rateText == null ? Double.NaN : Inputs.rate(rateText);
        try {
            return sent(file, rate, raw);
        } catch (IllegalArgumentException e) {
            throw new Refusal(file + ": " + e.getMessage());
        } catch (TakeException e) {
            throw new Refusal(e.getMessage());
        }
    }

    private static Read sent(Path file, double rate, boolean raw) throws TakeException {
        if (file.toString().endsWith(".zest")) {
            Read kept = kept(file, rate, raw);
            if (kept != null) {
                return kept;
            }
        }
        FrameSeries captured = file.toString().endsWith(".zest") ? null : captured(file, rate);
        if (captured != null) {
            return new Read(captured, List.of());
        }
        Table table = Inputs.table(file);
        double[] seconds = rate > 0 ? times(table.rows(), rate) : table.times().orElse(null);
        if (seconds == null) {
            throw new Refusal(file + " has no t column to take the times from; give pictures a second with --rate HZ");
        }
        double first = seconds[0];
        double[] zeroed = new double[seconds.length];
        for (int i = 0; i < zeroed.length; i++) {
            zeroed[i] = seconds[i] - first;
        }
        return new Read(FrameSeries.of(table.headers(), table::columnWithHoles, zeroed), table.damage());
    }

    /** @return the pictures of a take, made right as its rig says; null where it has none */
    private static Read kept(Path file, double rate, boolean raw) throws TakeException {
        try (Take take = Take.open(file)) {
            for (int source = 0; source < take.sources(); source++) {
                FrameSeries series = take.frameSeries(source);
                if (series != null) {
                    StreamFormat format =
                            take.rigOrPlain().sources().get(source).format();
                    double[][] frames = series.frames();
                    for (int f = 0; !raw && format instanceof PictureFormat picture && f < frames.length; f++) {
                        frames[f] = picture.setup().mend().of(frames[f], series.width());
                    }
                    double[] times = rate > 0 ? times(frames.length, rate) : series.seconds();
                    return new Read(new FrameSeries(series.width(), series.height(), times, frames), take.damage());
                }
            }
            return null;
        }
    }

    private static double[] times(int count, double rate) {
        double[] times = new double[count];
        for (int i = 0; i < count; i++) {
            times[i] = i / rate;
        }
        return times;
    }

    /** @return nothing where it is no capture of pictures */
    private static FrameSeries captured(Path file, double rate) {
        byte[] bytes;
        try {
            bytes = Files.readAllBytes(file);
        } catch (IOException e) {
            return null;
        }
        // A table of pixels says so in its header.
        if (new String(bytes, 0, Math.min(bytes.length, 4096), StandardCharsets.ISO_8859_1).contains("r1c1")) {
            return null;
        }
        int look = Math.min(bytes.length, Recogniser.LOOK);
        StreamFormat format = Recogniser.recognise(bytes, look).stream()
                .findFirst()
                .map(Recogniser.Proposal::format)
                .orElse(null);
        if (!(format instanceof PictureFormat picture)) {
            return null;
        }
        if (!(rate > 0)) {
            throw new Refusal(
                    file + " does not tell when its pictures were taken; give pictures a second with --rate HZ");
        }
        StreamDecoder decoder = picture.decoder(new RejectedLines(1));
        List<double[]> frames = new ArrayList<>();
        decoder.restart(false);
        decoder.feed(bytes, 0, bytes.length);
        Rows rows = decoder.takeRows();
        for (int r = 0; r < rows.count(); r++) {
            frames.add(rows.frames()[r]);
        }
        return new FrameSeries(
                picture.width(), picture.rows(), times(frames.size(), rate), frames.toArray(double[][]::new));
    }

    static ObjectNode answer(FrameSeries series, Map<String, String> settings, String rateText) {
        double limit = settings.containsKey("limit") ? Inputs.number("limit", settings.get("limit")) : Double.NaN;
        FrameNumbers.Box box = settings.containsKey("box") ? box(settings.get("box"), series) : null;
        ObjectNode out = Json.object();
        out.put("width", series.width()).put("height", series.height()).put("frames", series.count());
        double rate = rateText != null
                ? Inputs.rate(rateText)
                : series.count() < 2 ? Double.NaN : SampleRate.of(series.seconds());
        Json.put(out, "rate_hz", rate);
        Json.put(out, "t_s", series.seconds());
        ArrayNode hottest = out.putArray("hottest");
        ArrayNode coldest = out.putArray("coldest");
        ArrayNode mean = out.putArray("mean");
        ArrayNode share = out.putArray("share_above");
        ArrayNode boxes = out.putArray("box");
        boolean[] dead = DeadPixels.of(series);
        int fooled = 0;
        for (int f = 0; f < series.count(); f++) {
            FrameNumbers of = FrameNumbers.of(series, f, FrameNumbers.Box.whole(series), limit);
            spot(hottest, of.hottest());
            spot(coldest, of.coldest());
            Json.add(mean, of.mean());
            if (!Double.isNaN(limit)) {
                Json.add(share, of.share());
            }
            if (box != null) {
                FrameNumbers in = FrameNumbers.of(series, f, box, limit);
                ObjectNode node = boxes.addObject();
                Json.put(node, "min", in.coldest().value());
                Json.put(node, "mean", in.mean());
                Json.put(node, "max", in.hottest().value());
            }
            fooled += dead[at(of.hottest(), series)] || dead[at(of.coldest(), series)] ? 1 : 0;
        }
        ArrayNode list = out.putArray("dead");
        int count = 0;
        for (int p = 0; p < dead.length; p++) {
            if (dead[p]) {
                list.addObject().put("x", p % series.width()).put("y", p / series.width());
                count++;
            }
        }
        // The hottest or coldest of a picture may be a pixel that measures nothing.
        double quality = fooled == 0 ? 1 : Math.max(0.2, 0.5 * (1 - (double) fooled / series.count()));
        Json.put(out, "quality", count == 0 ? 1 : Math.min(0.9, quality));
        return out;
    }

    private static int at(FrameNumbers.Spot spot, FrameSeries series) {
        return spot.y() * series.width() + spot.x();
    }

    private static void spot(ArrayNode list, FrameNumbers.Spot spot) {
        ObjectNode node = list.addObject();
        Json.put(node, "value", spot.value());
        node.put("x", spot.x()).put("y", spot.y());
    }

    private static FrameNumbers.Box box(String text, FrameSeries series) {
        Matcher box = BOX.matcher(text);
        if (!box.matches()) {
            throw new Refusal("box takes X1..X2,Y1..Y2, such as 0..3,2..5; was '" + text + "'");
        }
        int[] at = new int[4];
        for (int i = 0; i < 4; i++) {
            at[i] = (int) Math.min(1 << 20, Long.parseLong(box.group(i + 1)));
        }
        if (at[1] >= series.width() || at[3] >= series.height()) {
            throw new Refusal("box " + text + " goes beyond the picture, which has columns 0.." + (series.width() - 1)
                    + " and rows 0.." + (series.height() - 1));
        }
        try {
            return new FrameNumbers.Box(at[0], at[1], at[2], at[3]);
        } catch (IllegalArgumentException e) {
            throw new Refusal(e.getMessage());
        }
    }

    /** @return the settings that were given, of those there are */
    static Map<String, String> settings(List<String> given) {
        return Inputs.settings(given, KEYS);
    }

    /** @return the main numbers in words, a line each */
    static List<String> words(ObjectNode out) {
        List<String> words = new ArrayList<>();
        words.add(out.path("frames").asInt() + " pictures of "
                + out.path("width").asInt() + " × " + out.path("height").asInt());
        int last = out.path("frames").asInt() - 1;
        for (String key : List.of("hottest", "coldest")) {
            var spot = out.path(key).path(last);
            words.add(key + " of the last: " + Digits.about(spot.path("value").asDouble(), 5) + " at "
                    + spot.path("x").asInt() + ", " + spot.path("y").asInt());
        }
        words.add(
                "mean of the last: " + Digits.about(out.path("mean").path(last).asDouble(), 5));
        if (!out.path("dead").isEmpty()) {
            words.add(out.path("dead").size() + " dead pixels");
        }
        return words;
    }
}
