package zesty.signal.boards.link;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.boards.sim.SimulatedBoard;
import zesty.signal.boards.sim.SimulatedBoards;

class LinkTest {
    @ParameterizedTest
    @ValueSource(
            strings = {
                "serial:/dev/ttyACM0@115200",
                "tcp:127.0.0.1:7070",
                "udp:7071",
                "file:/a b/c.txt",
                "stdin",
                "sim:deck",
                "sim:deck#9"
            })
    void addressesReadBack(String text) {
        assertThat(LinkAddress.parse(text).text()).isEqualTo(text);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '!',
            value = {
                "serial:/dev/x!needs a path and a speed",
                "serial:/dev/x@fast!'fast' is not a baud rate",
                "tcp:host!host and port",
                "tcp:h:99999!no port from 1 to 65535",
                "usb:3!none of the known kinds",
                "sim:boat!no simulated board is called 'boat'; there are deck",
                "file:!needs a path"
            })
    void wrongAddressesSayWhatWouldBeRight(String text, String said) {
        assertThatThrownBy(() -> LinkAddress.parse(text)).hasMessageContaining(said);
    }

    private static byte[] readAll(Link link, int enough) throws LinkException {
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        byte[] buffer = new byte[4096];
        for (int n = link.read(buffer); n >= 0 && all.size() < enough; n = link.read(buffer)) {
            all.write(buffer, 0, n);
        }
        return all.toByteArray();
    }

    @Test
    void theSameSeedGivesTheSameBytesAndAnotherOneOthers() throws LinkException {
        byte[][] runs = new byte[3][];
        for (int i = 0; i < 3; i++) {
            SimulatedBoard board = SimulatedBoards.create("deck", i == 2 ? 8 : 7);
            try (SimulatedLink link = new SimulatedLink(board, 1e9, 20_000)) {
                link.open();
                runs[i] = readAll(link, Integer.MAX_VALUE);
            }
        }
        assertThat(runs[0]).isEqualTo(runs[1]).isNotEqualTo(runs[2]);
        String text = new String(runs[0], StandardCharsets.US_ASCII);
        assertThat(text.lines().count()).isEqualTo(20_003);
        // The clock starts 90 s before its wrap, so 100 s of lines go through it.
        assertThat(text.lines().skip(3).mapToLong(l -> Long.parseLong(l.substring(0, l.indexOf(',')))))
                .allMatch(t -> t >= 0 && t < 1L << 32)
                .anyMatch(t -> t < 1_000_000);
    }

    @Test
    void aNetworkBoardIsReadWrittenAndItsGoingNoticed() throws Exception {
        try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            CompletableFuture<String> heard = CompletableFuture.supplyAsync(() -> {
                try (Socket socket = server.accept()) {
                    socket.getOutputStream().write("1,2\n".getBytes(StandardCharsets.US_ASCII));
                    return new String(socket.getInputStream().readNBytes(5), StandardCharsets.US_ASCII);
                } catch (java.io.IOException e) {
                    throw new IllegalStateException(e);
                }
            });
            Link link =
                    LinkAddress.parse("tcp:127.0.0.1:" + server.getLocalPort()).link();
            link.open();
            assertThat(new String(readAll(link, 4), StandardCharsets.US_ASCII)).isEqualTo("1,2\n");
            link.write("hello".getBytes(StandardCharsets.US_ASCII));
            assertThat(heard.get()).isEqualTo("hello");
            assertThatThrownBy(() -> readAll(link, 1))
                    .isInstanceOf(LinkException.class)
                    .hasMessageContaining("hung up");
            link.close();
        }
        Link nobody = LinkAddress.parse("tcp:127.0.0.1:1").link();
        assertThatThrownBy(nobody::open).hasMessageContaining("Is the board on and the port right?");
    }

    @Test
    @Timeout(240)
    void ofSeveralCallersTheOneThatSpeaksFirstIsTheBoard() throws Exception {
        int port;
        try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            port = free.getLocalPort();
        }
        try (Link link = LinkAddress.parse("tcp:*@127.0.0.1:" + port).link()) {
            link.open();
            try (Socket silent = new Socket(InetAddress.getLoopbackAddress(), port);
                    Socket board = new Socket(InetAddress.getLoopbackAddress(), port)) {
                assertThat(link.read(new byte[100])).isEqualTo(Link.NOTHING);
                board.getOutputStream().write("1,2\n".getBytes(StandardCharsets.US_ASCII));
                assertThat(new String(readAll(link, 4), StandardCharsets.US_ASCII))
                        .isEqualTo("1,2\n");
                assertThat(told(silent)).startsWith("busy: another board is connected");
                try (Socket late = new Socket(InetAddress.getLoopbackAddress(), port)) {
                    board.getOutputStream().write("3,4\n5,6\n".getBytes(StandardCharsets.US_ASCII));
                    late.getOutputStream().write("9,9\n".getBytes(StandardCharsets.US_ASCII));
                    assertThat(new String(readAll(link, 8), StandardCharsets.US_ASCII))
                            .isEqualTo("3,4\n5,6\n");
                    while (link.turnedAway() < 2) {
                        link.read(new byte[100]);
                    }
                    assertThat(told(late)).startsWith("busy");
                }
            }
        }
    }

    private static String told(Socket caller) throws java.io.IOException {
        byte[] said = new byte[100];
        int count = caller.getInputStream().read(said);
        return new String(said, 0, Math.max(0, count), StandardCharsets.UTF_8);
    }

    @Test
    void packetsFilesAndPortsThatAreNotThere(@TempDir Path folder) throws Exception {
        int port;
        try (DatagramSocket free = new DatagramSocket()) {
            port = free.getLocalPort();
        }
        try (Link link = LinkAddress.parse("udp:" + port).link();
                DatagramSocket board = new DatagramSocket()) {
            link.open();
            board.send(new DatagramPacket(new byte[] {'7', '\n'}, 2, InetAddress.getLoopbackAddress(), port));
            assertThat(readAll(link, 1)).startsWith('7', '\n');
        }
        Path file = Files.writeString(folder.resolve("bytes.txt"), "1,2\n3,4\n");
        Link link = LinkAddress.parse("file:" + file).link();
        link.open();
        assertThat(readAll(link, 100)).hasSize(8);
        assertThatThrownBy(() ->
                        LinkAddress.parse("file:" + folder.resolve("no")).link().open())
                .hasMessageContaining("is not there");
        assertThatThrownBy(() ->
                        LinkAddress.parse("serial:/dev/ttyNone@9600").link().open())
                .hasMessage("port /dev/ttyNone is not there. Is the board plugged in?");
        assertThatThrownBy(
                        () -> LinkAddress.parse("serial:/dev/null@9600").link().open())
                .hasMessageStartingWith("/dev/null is no serial port");
        assertThatThrownBy(() ->
                        LinkAddress.parse("serial:" + file + "@9600").link().open())
                .hasMessageContaining("is a file, no serial port");
    }
}
