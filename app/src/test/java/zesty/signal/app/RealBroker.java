package zesty.signal.app;

import com.hivemq.client.mqtt.MqttClient;
import com.hivemq.client.mqtt.datatypes.MqttQos;
import com.hivemq.client.mqtt.mqtt3.Mqtt3BlockingClient;
import java.io.File;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/** The broker of the system's packages on a port of its own, and boards that publish to it. */
public final class RealBroker implements AutoCloseable {
    private final Path folder;
    private final int port;
    private Process process;

    /** @param folder for its settings and its log */
    public RealBroker(Path folder) throws IOException {
        this.folder = folder;
        try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            port = free.getLocalPort();
        }
    }

    /** @return the path of a program; null where it is not on this machine */
    public static String program(String name) {
        return Stream.concat(
                        Arrays.stream(System.getenv("PATH").split(File.pathSeparator)),
                        Stream.of("/usr/sbin", "/usr/local/sbin"))
                .map(where -> Path.of(where, name))
                .filter(Files::isExecutable)
                .map(Path::toString)
                .findFirst()
                .orElse(null);
    }

    public static boolean isThere() {
        return program("mosquitto") != null;
    }

    public int port() {
        return port;
    }

    public String log() throws IOException {
        return Files.readString(folder.resolve("broker.log"));
    }

    /** @param more settings, a line each */
    public void start(String more) throws Exception {
        Path settings = folder.resolve("broker.conf");
        // As root it would take another user, who may not look into a test's folder. Of more than a thousand messages
        // that wait it
        // would throw the rest away, as they do where a busy machine lets a listener wait for a second.
        Files.writeString(
                settings,
                "user root\nlistener " + port + " 127.0.0.1\nlog_type all\nmax_queued_messages 0\n" + more + "\n");
        process = new ProcessBuilder(program("mosquitto"), "-c", settings.toString())
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve("broker.log").toFile())
                .start();
        for (int i = 0; i < 400; i++) {
            try {
                new Socket("127.0.0.1", port).close();
                return;
            } catch (IOException e) {
                TimeUnit.MILLISECONDS.sleep(25);
            }
        }
        throw new AssertionError(log());
    }

    /** Waits until a program of ours listens: it was told that its subscription is taken. */
    public void awaitListener() throws Exception {
        for (int i = 0; i < 1200 && !log().contains("Sending SUBACK to zesty-"); i++) {
            TimeUnit.MILLISECONDS.sleep(50);
        }
        if (!log().contains("Sending SUBACK to zesty-")) {
            throw new AssertionError("nobody listens: " + log());
        }
    }

    /** Ends it at once, as a power cut would. */
    public void kill() throws InterruptedException {
        if (process != null) {
            process.destroyForcibly().waitFor();
        }
    }

    /** @return a board that is connected */
    public Mqtt3BlockingClient board() {
        Mqtt3BlockingClient client = MqttClient.builder()
                .useMqttVersion3()
                .identifier("board" + System.nanoTime())
                .serverHost("127.0.0.1")
                .serverPort(port)
                .buildBlocking();
        client.connect();
        return client;
    }

    /** Publishes, and waits until the broker has it. */
    public static void say(Mqtt3BlockingClient board, String topic, String text) {
        board.publishWith()
                .topic(topic)
                .qos(MqttQos.AT_LEAST_ONCE)
                .payload(text.getBytes(StandardCharsets.UTF_8))
                .send();
    }

    @Override
    public void close() {
        if (process != null) {
            process.destroyForcibly().onExit().join();
        }
    }
}
