package zesty.signal.app.show;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import zesty.signal.app.wording.CardWords;
import zesty.signal.app.wording.Wording;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.Times;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ActSnapshot;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/** What the page shows at one moment, as JSON: the cards with their lanes, and what is alarming. One thread. */
final class Frames {
    /** How much of a lane is in sight, and in how many columns. */
    private static final double SECONDS = 10;

    private static final int COLUMNS = 96;
    /** Lanes come with every so many frames only, for they are most of one: words change with each. */
    private static final int LANES_EVERY = 3;
    /** A phone shows no more by thumb, and a frame stays small. */
    private static final int MOST_CARDS = 24;

    private final ObjectMapper json = new ObjectMapper();
    private long count;

    /** @param markers whether the owner takes markers from the page */
    String of(Snapshot snapshot, boolean markers, long nanoTime) {
        boolean fresh = count++ % LANES_EVERY == 0;
        ObjectNode root = json.createObjectNode();
        root.put("rig", snapshot.rig().name());
        root.put("link", Wording.state(snapshot.health().state()));
        root.put("recording", snapshot.recording().running());
        root.put("recorded", Wording.clock(snapshot.recording().seconds()));
        root.put("markers", markers && snapshot.recording().running());
        ArrayNode alarms = root.putArray("alarms");
        for (ActSnapshot.RuleNow rule : snapshot.act().rules()) {
            if (rule.isOn()) {
                alarms.add(rule.rule().name());
            }
        }
        ArrayNode cards = root.putArray("cards");
        List<ChannelSnapshot> shown = snapshot.channels().stream()
                .filter(one -> one.channel().shown() || one.reader().isPresent())
                .limit(MOST_CARDS)
                .toList();
        for (ChannelSnapshot channel : shown) {
            CardWords words = CardWords.of(snapshot, channel, "10 s", Messages.of("show.no-samples-yet"));
            ObjectNode card = cards.addObject();
            String column = channel.channel().column();
            card.put("id", column);
            card.put("name", words.name());
            card.put("value", words.value());
            card.put("unit", words.unit());
            card.put("detail", words.detail());
            card.put("quality", words.segments());
            card.put("state", words.lost() ? "lost" : words.stale() ? "stale" : "live");
            boolean beyond = channel.beyond() == channel.beyond() && !words.lost();
            card.put("beyond", beyond);
            if (beyond) {
                alarms.add(Messages.of("show.is-out-of-its-limits", words.name()));
            }
            if (fresh) {
                card.set("lane", lane(snapshot, channel, nanoTime));
            }
        }
        root.put(
                "more",
                snapshot.channels().stream()
                                .filter(one ->
                                        one.channel().shown() || one.reader().isPresent())
                                .count()
                        - shown.size());
        try {
            return json.writeValueAsString(root);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException(Messages.of("show.a-frame-is-always-written"), e);
        }
    }

    /** Lowest and highest of each column in turn, 0 to 100 of the lane's height; null where there is nothing. Behind them the ends in words. */
    private ArrayNode lane(Snapshot snapshot, ChannelSnapshot channel, long nanoTime) {
        ArrayNode lane = json.createArrayNode();
        Times times = channel.stream().times();
        Series clean = channel.clean();
        if (times == null || times.end() == times.start()) {
            return lane;
        }
        double now = snapshot.nowSeconds(nanoTime);
        float[] low = new float[COLUMNS];
        float[] high = new float[COLUMNS];
        float[] both = new float[2];
        float lowest = Float.POSITIVE_INFINITY;
        float highest = Float.NEGATIVE_INFINITY;
        for (int c = 0; c < COLUMNS; c++) {
            long from = row(times, clean, now - SECONDS + c * SECONDS / COLUMNS, channel.lateSamples());
            long to = row(times, clean, now - SECONDS + (c + 1) * SECONDS / COLUMNS, channel.lateSamples());
            low[c] = Float.NaN;
            high[c] = Float.NaN;
            if (to > from) {
                clean.range(from, to, both);
                low[c] = both[0];
                high[c] = both[1];
                if (both[0] <= both[1]) {
                    lowest = Math.min(lowest, both[0]);
                    highest = Math.max(highest, both[1]);
                }
            }
        }
        double height = highest - lowest;
        for (int c = 0; c < COLUMNS && lowest <= highest; c++) {
            if (low[c] <= high[c]) {
                lane.add(height > 0 ? (int) Math.round(100 * (low[c] - lowest) / height) : 50);
                lane.add(height > 0 ? (int) Math.round(100 * (high[c] - lowest) / height) : 50);
            } else {
                lane.addNull();
                lane.addNull();
            }
        }
        if (lowest <= highest) {
            lane.add(Wording.number(channel, lowest));
            lane.add(Wording.number(channel, highest));
        }
        return lane;
    }

    private static long row(Times times, Series clean, double seconds, int late) {
        long index = times.firstAtOrAfter(seconds) + late;
        return Math.max(clean.start(), Math.min(clean.end(), index));
    }
}
