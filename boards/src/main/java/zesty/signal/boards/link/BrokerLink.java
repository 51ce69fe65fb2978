package zesty.signal.boards.link;

import com.hivemq.client.mqtt.MqttClient;
import com.hivemq.client.mqtt.MqttGlobalPublishFilter;
import com.hivemq.client.mqtt.datatypes.MqttQos;
import com.hivemq.client.mqtt.mqtt3.Mqtt3AsyncClient;
import com.hivemq.client.mqtt.mqtt3.Mqtt3ClientBuilder;
import com.hivemq.client.mqtt.mqtt3.message.publish.Mqtt3Publish;
import java.nio.charset.StandardCharsets;
import java.util.UUID;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicLong;

/**
 * What boards publish under a topic of a broker (MQTT 3.1.1); each message is taken as bytes of one stream, a line where it is text. A message
 * that the broker had kept from before is old and is left out. The password stands in the environment and nowhere else.
 */
final class BrokerLink implements Link {
    static final String PASSWORD = "ZESTY_MQTT_PASSWORD";

    private static final int OPEN_SECONDS = 5;
    /** Asked for a sign of life so often: what is lost looks lost within five seconds. */
    private static final int KEEP_ALIVE_SECONDS = 2;

    private static final int READ_TIMEOUT_MS = 100;
    /** What may wait to be read; a broker that sends more than is read for so long is let go, and that is told. */
    private static final long MOST_WAITING = 16L << 20;

    private final LinkAddress.Broker address;
    private final BlockingQueue<byte[]> waiting = new LinkedBlockingQueue<>();
    private final AtomicLong bytes = new AtomicLong();
    private volatile Mqtt3AsyncClient client;
    private volatile String broken = "";
    private byte[] rest = {};
    private int at;

    BrokerLink(LinkAddress.Broker address) {
        this.address = address;
    }

    @Override
    public void open() throws LinkException {
        broken = "";
        waiting.clear();
        bytes.set(0);
        Mqtt3ClientBuilder builder = MqttClient.builder()
                .useMqttVersion3()
                .identifier("zesty-" + UUID.randomUUID())
                .serverHost(address.host())
                .serverPort(address.port())
                .addDisconnectedListener(context -> broken = words(context.getCause()));
        if (address.secure()) {
            builder = builder.sslWithDefaultConfig();
        }
        Mqtt3AsyncClient fresh = builder.buildAsync();
        try {
            fresh.publishes(MqttGlobalPublishFilter.ALL, this::received);
            var connecting = fresh.connectWith().keepAlive(KEEP_ALIVE_SECONDS).cleanSession(true);
            String password = System.getenv(PASSWORD);
            if (!address.user().isEmpty()) {
                var named = connecting.simpleAuth().username(address.user());
                connecting = (password == null ? named : named.password(password.getBytes(StandardCharsets.UTF_8)))
                        .applySimpleAuth();
            }
            connecting.send().get(OPEN_SECONDS, TimeUnit.SECONDS);
            fresh.subscribeWith()
                    .topicFilter(address.topic())
                    .qos(MqttQos.AT_LEAST_ONCE)
                    .send()
                    .get(OPEN_SECONDS, TimeUnit.SECONDS);
            client = fresh;
        } catch (ExecutionException | TimeoutException e) {
            fresh.disconnect();
            String why = e instanceof TimeoutException ? "no answer" : words(e.getCause());
            throw new LinkException(
                    address.words() + " cannot be reached: " + why
                            + (address.user().isEmpty() || password() ? "" : "; its password goes into " + PASSWORD),
                    false);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new LinkException(address.words() + " is closed", false);
        }
    }

    private static boolean password() {
        return System.getenv(PASSWORD) != null;
    }

    private static String words(Throwable cause) {
        Throwable deepest = cause;
        while (deepest != null && deepest.getCause() != null) {
            deepest = deepest.getCause();
        }
        return deepest == null || deepest.getMessage() == null
                ? "the connection ended"
                : deepest.getMessage().split("\\R")[0];
    }

    /** On the client's thread. */
    private void received(Mqtt3Publish message) {
        if (message.isRetain()) {
            return;
        }
        byte[] payload = message.getPayloadAsBytes();
        if (payload.length == 0) {
            return;
        }
        if (bytes.addAndGet(payload.length) > MOST_WAITING) {
            broken = "it sends more than can be read";
            return;
        }
        waiting.add(payload);
    }

    @Override
    public int read(byte[] buffer) throws LinkException {
        if (client == null) {
            throw new LinkException(address.words() + " is closed", false);
        }
        try {
            if (at == rest.length) {
                byte[] next = waiting.poll(READ_TIMEOUT_MS, TimeUnit.MILLISECONDS);
                if (next == null) {
                    if (!broken.isEmpty()) {
                        throw new LinkException(address.words() + " broke off: " + broken, false);
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

    @Override
    public void write(byte[] bytes) throws LinkException {
        throw new LinkException(address.words() + ": this link only listens", true);
    }

    @Override
    public void close() {
        Mqtt3AsyncClient open = client;
        client = null;
        if (open != null) {
            open.disconnect();
        }
    }

    @Override
    public boolean joinsMidStream() {
        return false;
    }
}
