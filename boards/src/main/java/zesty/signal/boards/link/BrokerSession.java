package zesty.signal.boards.link;

import com.hivemq.client.mqtt.MqttClient;
import com.hivemq.client.mqtt.MqttClientBuilder;
import com.hivemq.client.mqtt.MqttClientSslConfig;
import com.hivemq.client.mqtt.MqttGlobalPublishFilter;
import com.hivemq.client.mqtt.datatypes.MqttQos;
import com.hivemq.client.mqtt.mqtt3.Mqtt3AsyncClient;
import com.hivemq.client.mqtt.mqtt5.Mqtt5AsyncClient;
import com.hivemq.client.mqtt.mqtt5.exceptions.Mqtt5ConnAckException;
import com.hivemq.client.mqtt.mqtt5.message.connect.connack.Mqtt5ConnAckReasonCode;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.cert.Certificate;
import java.security.cert.CertificateFactory;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Consumer;
import javax.net.ssl.TrustManagerFactory;
import zesty.signal.core.text.Messages;

/**
 * A connection to a broker: MQTT 5, or 3.1.1 where the broker knows no other. The password is in memory or in the environment and nowhere
 * else. Any thread.
 */
final class BrokerSession implements AutoCloseable {
    /** Holds the path of a certificate (PEM) that the broker's has to go back to, in the place of the system's trust. */
    static final String CERTIFICATE = "ZESTY_MQTT_CERTIFICATE";

    static final int SECONDS = 5;
    /** Asked for a sign of life so often: what is lost looks lost within five seconds. */
    private static final int KEEP_ALIVE_SECONDS = 2;
    /** A message that is larger is no sample's; a broker of MQTT 5 keeps it to itself. */
    private static final int MOST_MESSAGE_BYTES = 1 << 20;

    /** Takes a message. On the client's thread. */
    interface Receiver {
        void message(String topic, byte[] payload, boolean retained);
    }

    private final LinkAddress.Broker address;
    private final Consumer<String> broken;
    private Mqtt5AsyncClient five;
    private Mqtt3AsyncClient three;

    /** @param broken hears why the connection ended, on the client's thread */
    BrokerSession(LinkAddress.Broker address, Consumer<String> broken) {
        this.address = address;
        this.broken = broken;
    }

    /** @throws LinkException when it cannot be reached or does not let us in, saying which */
    void connect() throws LinkException {
        try {
            try {
                connectFive();
            } catch (ExecutionException e) {
                if (!knowsNoFive(e.getCause())) {
                    throw e;
                }
                five = null;
                connectThree();
            }
        } catch (ExecutionException e) {
            String why = words(e.getCause());
            boolean shut = refusesUs(why);
            boolean unknown = why.contains("PKIX") || why.contains("certification path");
            throw new LinkException(
                    Messages.of(
                            "link.cannot-be-reached",
                            address.words(),
                            (shut ? notLetIn() : unknown ? notTrusted() : why)),
                    shut || unknown);
        } catch (TimeoutException e) {
            close();
            throw new LinkException(
                    Messages.of("link.cannot-be-reached-no-answer-within", address.words(), SECONDS), false);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new LinkException(Messages.of("link.is-closed", address.words()), false);
        }
    }

    private String notLetIn() {
        if (address.user().isEmpty()) {
            return Messages.of("link.it-wants-a-user-and-a-password");
        }
        return BrokerSecrets.of(address) == null
                ? Messages.of("link.it-wants-a-password-which-goes", BrokerLink.PASSWORD)
                : Messages.of("link.it-does-not-take-this-user-with");
    }

    private static String notTrusted() {
        return Messages.of("link.its-certificate-goes-back-to-none", CERTIFICATE);
    }

    private static boolean knowsNoFive(Throwable cause) {
        if (cause instanceof Mqtt5ConnAckException refused) {
            return refused.getMqttMessage().getReasonCode() == Mqtt5ConnAckReasonCode.UNSUPPORTED_PROTOCOL_VERSION;
        }
        String words = words(cause);
        return words.contains("without CONNACK")
                || words.contains("closed connection")
                || words.contains("UNSUPPORTED_PROTOCOL_VERSION")
                || words.contains("decoding CONNACK")
                || words.contains("Exception while");
    }

    private static boolean refusesUs(String why) {
        String low = why.toLowerCase(java.util.Locale.ROOT);
        return low.contains("not authorized") || low.contains("bad user name") || low.contains("not_authorized");
    }

    private MqttClientBuilder common(String version) throws LinkException {
        MqttClientBuilder builder = MqttClient.builder()
                .identifier("zesty-" + version + UUID.randomUUID())
                .serverHost(address.host())
                .serverPort(address.port())
                .addDisconnectedListener(context -> broken.accept(words(context.getCause())));
        if (address.secure()) {
            String file = System.getenv(CERTIFICATE);
            builder = file == null ? builder.sslWithDefaultConfig() : builder.sslConfig(trusting(file));
        }
        return builder;
    }

    private MqttClientSslConfig trusting(String file) throws LinkException {
        try (InputStream in = Files.newInputStream(Path.of(file))) {
            KeyStore store = KeyStore.getInstance(KeyStore.getDefaultType());
            store.load(null, null);
            int n = 0;
            for (Certificate one : CertificateFactory.getInstance("X.509").generateCertificates(in)) {
                store.setCertificateEntry("given-" + n++, one);
            }
            TrustManagerFactory trust = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
            trust.init(store);
            return MqttClientSslConfig.builder().trustManagerFactory(trust).build();
        } catch (IOException | GeneralSecurityException e) {
            throw new LinkException(
                    Messages.of("link.the-certificate-cannot-be-read-a", file, CERTIFICATE, words(e)), true);
        }
    }

    private void connectFive() throws LinkException, ExecutionException, TimeoutException, InterruptedException {
        five = common("5-").useMqttVersion5().buildAsync();
        var connecting = five.connectWith()
                .keepAlive(KEEP_ALIVE_SECONDS)
                .cleanStart(true)
                .restrictions()
                .maximumPacketSize(MOST_MESSAGE_BYTES)
                .applyRestrictions();
        if (!address.user().isEmpty()) {
            byte[] password = BrokerSecrets.of(address);
            var named = connecting.simpleAuth().username(address.user());
            connecting = (password == null ? named : named.password(password)).applySimpleAuth();
        }
        got(connecting.send());
    }

    private void connectThree() throws LinkException, ExecutionException, TimeoutException, InterruptedException {
        three = common("3-").useMqttVersion3().buildAsync();
        var connecting = three.connectWith().keepAlive(KEEP_ALIVE_SECONDS).cleanSession(true);
        if (!address.user().isEmpty()) {
            byte[] password = BrokerSecrets.of(address);
            var named = connecting.simpleAuth().username(address.user());
            connecting = (password == null ? named : named.password(password)).applySimpleAuth();
        }
        got(connecting.send());
    }

    private static void got(CompletableFuture<?> answer)
            throws ExecutionException, TimeoutException, InterruptedException {
        answer.get(SECONDS, TimeUnit.SECONDS);
    }

    /** @throws LinkException when the broker does not let us listen */
    void subscribe(String filter, Receiver receiver) throws LinkException {
        try {
            if (five != null) {
                five.publishes(
                        MqttGlobalPublishFilter.ALL,
                        message -> receiver.message(
                                message.getTopic().toString(), message.getPayloadAsBytes(), message.isRetain()));
                got(five.subscribeWith()
                        .topicFilter(filter)
                        .qos(MqttQos.AT_LEAST_ONCE)
                        .send());
            } else {
                three.publishes(
                        MqttGlobalPublishFilter.ALL,
                        message -> receiver.message(
                                message.getTopic().toString(), message.getPayloadAsBytes(), message.isRetain()));
                got(three.subscribeWith()
                        .topicFilter(filter)
                        .qos(MqttQos.AT_LEAST_ONCE)
                        .send());
            }
        } catch (ExecutionException e) {
            throw new LinkException(
                    Messages.of("link.does-not-let-us-listen", address.words(), words(e.getCause())), true);
        } catch (TimeoutException e) {
            throw new LinkException(Messages.of("link.cannot-be-reached-no-answer", address.words()), false);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new LinkException(Messages.of("link.is-closed", address.words()), false);
        } catch (IllegalArgumentException e) {
            throw new LinkException(address.words() + ": " + e.getMessage(), true);
        }
    }

    /** Sends a message and waits until the broker has it. @throws LinkException when it does not */
    void publish(String topic, byte[] payload, boolean retain) throws LinkException {
        try {
            if (five != null) {
                got(five.publishWith()
                        .topic(topic)
                        .payload(payload)
                        .qos(MqttQos.AT_LEAST_ONCE)
                        .retain(retain)
                        .send());
            } else {
                got(three.publishWith()
                        .topic(topic)
                        .payload(payload)
                        .qos(MqttQos.AT_LEAST_ONCE)
                        .retain(retain)
                        .send());
            }
        } catch (ExecutionException e) {
            throw new LinkException(Messages.of("link.did-not-take-it", address.words(), words(e.getCause())), false);
        } catch (TimeoutException e) {
            throw new LinkException(Messages.of("link.did-not-take-it-no-answer", address.words()), false);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new LinkException(Messages.of("link.is-closed", address.words()), false);
        }
    }

    @Override
    public void close() {
        if (five != null) {
            five.disconnect();
        }
        if (three != null) {
            three.disconnect();
        }
    }

    static String words(Throwable cause) {
        Throwable deepest = cause;
        while (deepest != null && deepest.getCause() != null) {
            deepest = deepest.getCause();
        }
        return deepest == null || deepest.getMessage() == null
                ? Messages.of("link.the-connection-ended")
                : deepest.getMessage().split("\\R")[0];
    }
}
