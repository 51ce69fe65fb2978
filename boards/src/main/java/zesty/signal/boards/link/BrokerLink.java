package zesty.signal.boards.link;

import java.nio.charset.StandardCharsets;
import java.util.Set;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import zesty.signal.core.text.Messages;

/**
 * What boards publish under a topic of a broker; each message is taken as bytes of one stream, a line where it is text. Of many topics
 * each is a station, see {@link TopicLines}. A message that the broker had kept from before is old and is left out, and counted. The password stands in the environment and nowhere else.
 */
final class BrokerLink implements Link {
    static final String PASSWORD = "ZESTY_MQTT_PASSWORD";

    private static final int MOST_KEPT = 10_000;
    private static final String ORDERS = "/order";
    private static final int READ_TIMEOUT_MS = 100;
    /** What may wait to be read; a broker that sends more than is read for so long is let go, and that is told. */
    private static final long MOST_WAITING = 16L << 20;

    private final LinkAddress.Broker address;
    private final BlockingQueue<byte[]> waiting = new LinkedBlockingQueue<>();
    private final AtomicLong bytes = new AtomicLong();
    private final Set<String> kept = ConcurrentHashMap.newKeySet();
    /** Null where there is one topic only, whose messages are taken as they are. */
    private final TopicLines topics;

    private final long begunNanos = System.nanoTime();
    private volatile BrokerSession session;
    private volatile String broken = "";
    private byte[] rest = {};
    private int at;

    BrokerLink(LinkAddress.Broker address) {
        this.address = address;
        topics = address.many() ? new TopicLines(address.topic()) : null;
    }

    @Override
    public void open() throws LinkException {
        broken = "";
        waiting.clear();
        bytes.set(0);
        BrokerSession fresh = new BrokerSession(address, why -> broken = why);
        try {
            fresh.connect();
            fresh.subscribe(address.topic(), this::received);
        } catch (LinkException e) {
            fresh.close();
            throw e;
        }
        session = fresh;
    }

    /** On the client's thread. */
    private void received(String topic, byte[] payload, boolean retained) {
        if (retained) {
            // Each topic's once, however often the link opens anew.
            if (kept.size() < MOST_KEPT) {
                kept.add(topic);
            }
            return;
        }
        if (payload.length == 0) {
            return;
        }
        byte[] line = topics == null ? payload : topics.lines((System.nanoTime() - begunNanos) * 1e-9, topic, payload);
        if (bytes.addAndGet(line.length) > MOST_WAITING) {
            broken = Messages.of("link.it-sends-more-than-can-be-read");
            return;
        }
        waiting.add(line);
    }

    /** Any thread. @return messages that the broker had kept from before, which are old and no samples of now */
    @Override
    public int old() {
        return kept.size();
    }

    @Override
    public String stationName(double station) {
        return topics == null ? "" : topics.nameOf((int) station);
    }

    @Override
    public int read(byte[] buffer) throws LinkException {
        if (session == null) {
            throw new LinkException(Messages.of("link.is-closed", address.words()), false);
        }
        try {
            if (at == rest.length) {
                byte[] next = waiting.poll(READ_TIMEOUT_MS, TimeUnit.MILLISECONDS);
                if (next == null) {
                    if (!broken.isEmpty()) {
                        throw new LinkException(Messages.of("link.broke-off", address.words(), broken), false);
                    }
                    return NOTHING;
                }
                bytes.addAndGet(-next.length);
                rest = line(next);
                at = 0;
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return NOTHING;
        }
        int n = Math.min(buffer.length, rest.length - at);
        System.arraycopy(rest, at, buffer, 0, n);
        at += n;
        return n;
    }

    /** A message of text is a line, also without an ending. */
    private static byte[] line(byte[] message) {
        for (byte b : message) {
            int one = b & 0xff;
            if (one < ' ' && one != '\t' && one != '\n' && one != '\r' || one == 0x7f) {
                return message;
            }
        }
        byte last = message[message.length - 1];
        if (last == '\n' || last == '\r') {
            return message;
        }
        byte[] line = java.util.Arrays.copyOf(message, message.length + 1);
        line[message.length] = '\n';
        return line;
    }

    /** Sends an order under the topic's own with {@code /order} behind it; of many topics to the one named before a colon. */
    @Override
    public void write(byte[] bytes) throws LinkException {
        BrokerSession open = session;
        if (open == null) {
            throw new LinkException(Messages.of("link.is-closed", address.words()), false);
        }
        String line = new String(bytes, StandardCharsets.UTF_8).strip();
        String topic = address.topic();
        if (topics != null) {
            int colon = line.indexOf(':');
            topic = colon < 1 ? "" : line.substring(0, colon).strip();
            line = colon < 1 ? line : line.substring(colon + 1).strip();
            if (topic.isEmpty() || topic.contains("+") || topic.contains("#")) {
                throw new LinkException(Messages.of("link.an-order-names-its-topic-first", address.words()), false);
            }
        }
        open.publish(topic + ORDERS, line.getBytes(StandardCharsets.UTF_8), false);
    }

    @Override
    public void close() {
        BrokerSession open = session;
        session = null;
        if (open != null) {
            open.close();
        }
    }

    @Override
    public boolean joinsMidStream() {
        return false;
    }
}
