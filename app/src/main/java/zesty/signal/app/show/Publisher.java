package zesty.signal.app.show;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Supplier;
import zesty.signal.boards.link.BrokerOut;
import zesty.signal.boards.link.LinkException;
import zesty.signal.core.act.Rule;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ActSnapshot;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/**
 * Publishes readings and decisions under a prefix of a broker, at a stated rate: only those that the maker named. A thread of its own; a
 * broker that is away holds up nothing, and it is tried again. Any thread.
 */
public final class Publisher implements AutoCloseable {
    private static final long AGAIN_MS = 3000;

    private final BrokerOut broker;
    private final Supplier<Snapshot> snapshots;
    private final Set<String> names;
    private final long everyMs;
    private final Thread thread;
    private final ObjectMapper json = new ObjectMapper();
    private final AtomicLong sent = new AtomicLong();
    private volatile String trouble = "";
    private volatile boolean over;

    /**
     * @param address {@code mqtt://HOST/PREFIX}
     * @param names of channels and rules. @param everySeconds how often, 0.1 to 3600 s
     * @throws IllegalArgumentException when one of them makes no sense, saying what would do
     */
    public Publisher(String address, Set<String> names, double everySeconds, Supplier<Snapshot> snapshots) {
        if (names.isEmpty()) {
            throw new IllegalArgumentException(Messages.of("show.nothing-is-chosen-to-be-published"));
        }
        if (!(everySeconds >= 0.1 && everySeconds <= 3600)) {
            throw new IllegalArgumentException(Messages.of("show.readings-are-published-every-0-1", everySeconds));
        }
        broker = new BrokerOut(address);
        this.names = Set.copyOf(names);
        this.snapshots = snapshots;
        everyMs = Math.round(1000 * everySeconds);
        thread = new Thread(this::run, "publishing");
        thread.setDaemon(true);
        thread.start();
    }

    /** @return messages that the broker has taken */
    public long sent() {
        return sent.get();
    }

    /** @return why the newest one was not taken, in words; empty while all is well */
    public String trouble() {
        return trouble;
    }

    @Override
    public void close() {
        over = true;
        thread.interrupt();
    }

    private void run() {
        try {
            while (!over) {
                long wait = everyMs;
                try {
                    for (Map.Entry<String, ObjectNode> one :
                            messages(snapshots.get(), System.nanoTime()).entrySet()) {
                        broker.publish(
                                one.getKey(),
                                json.writeValueAsString(one.getValue()).getBytes(StandardCharsets.UTF_8));
                        sent.incrementAndGet();
                    }
                    trouble = "";
                } catch (LinkException e) {
                    trouble = e.getMessage();
                    wait = Math.max(wait, AGAIN_MS);
                } catch (JsonProcessingException e) {
                    throw new IllegalStateException(Messages.of("show.a-message-is-always-written"), e);
                }
                TimeUnit.MILLISECONDS.sleep(wait);
            }
        } catch (InterruptedException e) {
            // It was closed.
        } finally {
            broker.close();
        }
    }

    /** @return what is published now, by what stands below the prefix */
    private Map<String, ObjectNode> messages(Snapshot snapshot, long nanoTime) {
        Map<String, ObjectNode> messages = new LinkedHashMap<>();
        for (ChannelSnapshot channel : snapshot.channels()) {
            String name = channel.channel().name();
            if (names.contains(name)) {
                messages.put(level(name), message(snapshot, channel, nanoTime));
            }
        }
        for (ActSnapshot.RuleNow one : snapshot.act().rules()) {
            String name = one.rule().name();
            if (names.contains(name)) {
                ObjectNode message = json.createObjectNode();
                if (one.rule() instanceof Rule.InBands) {
                    message.put("state", one.state());
                } else {
                    message.put("state", one.isOn());
                }
                messages.put(
                        "rules/" + level(name), message.put("t", Instant.now().toString()));
            }
        }
        return messages;
    }

    /** A name as one level of a topic. */
    private static String level(String name) {
        return name.strip().replaceAll("[/+#\\s\\p{Cntrl}]+", "-");
    }

    private ObjectNode message(Snapshot snapshot, ChannelSnapshot channel, long nanoTime) {
        ObjectNode message = json.createObjectNode();
        LinkState state = snapshot.state(channel.stream(), nanoTime);
        boolean lost = state == LinkState.LOST || state == LinkState.REFUSED;
        ReaderSnapshot reader = channel.reader().orElse(null);
        double value = channel.level().mean();
        String unit = channel.channel().unit();
        String what = "mean";
        if (reader != null) {
            ScalarInfo headline = reader.kind().scalars().get(0);
            value = reader.headline();
            unit = headline.unit(unit);
            what = reader.kind().name() + "/" + headline.key();
        }
        boolean none = lost || !Double.isFinite(value) || !channel.trouble().isEmpty();
        if (none) {
            message.putNull("value");
        } else {
            message.put("value", value);
        }
        message.put("unit", unit).put("what", what);
        if (reader == null || reader.reading() == null) {
            message.putNull("quality");
        } else {
            message.put("quality", none ? 0 : reader.reading().quality().share());
        }
        message.put("state", lost ? "lost" : state == LinkState.HELD ? "stale" : "live");
        return message.put("t", Instant.now().toString());
    }
}
