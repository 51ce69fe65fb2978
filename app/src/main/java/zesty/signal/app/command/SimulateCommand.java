package zesty.signal.app.command;

import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.Arrays;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import zesty.signal.boards.link.SimulatedLink;
import zesty.signal.boards.sim.SimulatedBoard;
import zesty.signal.boards.sim.SimulatedBoards;
import zesty.signal.takes.DiskWords;
import zesty.signal.takes.TakeException;

@Command(name = "simulate", description = "Runs a simulated board as a process of its own.")
final class SimulateCommand implements Callable<Integer> {
    @Parameters(paramLabel = "BOARD")
    private String board;

    @Option(names = "--tcp", paramLabel = "PORT")
    private String tcp;

    @Option(names = "--seed", paramLabel = "N")
    private String seed = "1";

    @Option(names = "--for", paramLabel = "DURATION")
    private String duration;

    @Option(names = "--speed", paramLabel = "X")
    private String speed = "1";

    private double factor;
    private long frames = Long.MAX_VALUE;
    private long seedNumber;

    @Override
    public Integer call() throws IOException, InterruptedException {
        factor = Inputs.number("--speed", speed);
        if (!(factor > 0)) {
            throw new Refusal("--speed must be above 0, was " + speed);
        }
        try {
            seedNumber = Long.parseLong(seed);
        } catch (NumberFormatException e) {
            throw new Refusal("--seed must be a whole number, was '" + seed + "'");
        }
        SimulatedBoard first = create();
        if (duration != null) {
            frames = Math.round(Inputs.duration(duration) * first.framesPerSecond());
        }
        if (tcp == null) {
            try (OutputStream out = new FileOutputStream(FileDescriptor.out)) {
                stream(first, out);
            } catch (IOException e) {
                if (!String.valueOf(e.getMessage()).contains("Broken pipe")) {
                    throw new TakeException("the board's bytes went nowhere: " + DiskWords.of(e), e);
                }
                // Whoever read it has gone: that ends it, as it ends any writer to a pipe.
                return Commands.DONE;
            }
            return Commands.DONE;
        }
        return serve(port());
    }

    private SimulatedBoard create() {
        try {
            return SimulatedBoards.create(board, seedNumber);
        } catch (IllegalArgumentException e) {
            throw new Refusal(e.getMessage());
        }
    }

    private int port() {
        double port = Inputs.number("--tcp", tcp);
        if (port != Math.rint(port) || port < 1 || port > 65535) {
            throw new Refusal("--tcp must be a port from 1 to 65535, was " + tcp);
        }
        return (int) port;
    }

    /** Each client gets the board's stream from its start, as a board starts anew when its port is opened. */
    private int serve(int port) throws InterruptedException {
        try (ServerSocket server = new ServerSocket(port, 4, InetAddress.getLoopbackAddress())) {
            System.err.println("zesty: simulated " + board + " board on 127.0.0.1:" + port);
            while (true) {
                Socket client = server.accept();
                Thread thread = new Thread(() -> attend(client), "client");
                thread.setDaemon(frames == Long.MAX_VALUE);
                thread.start();
                if (frames != Long.MAX_VALUE) {
                    thread.join();
                    return Commands.DONE;
                }
            }
        } catch (IOException e) {
            throw new Refusal("port " + port + " cannot be served: another program may hold it; choose another");
        }
    }

    private void attend(Socket client) {
        try (client) {
            client.setTcpNoDelay(true);
            try (SimulatedLink link = new SimulatedLink(create(), factor, frames)) {
                link.open();
                Thread ear = new Thread(() -> hear(client, link), "orders");
                ear.setDaemon(true);
                ear.start();
                stream(link, client.getOutputStream());
            }
        } catch (IOException e) {
            System.err.println("zesty: a client left");
        }
    }

    /** Orders come the other way on the same line. */
    private static void hear(Socket client, SimulatedLink link) {
        byte[] buffer = new byte[1024];
        try {
            for (int count = client.getInputStream().read(buffer);
                    count >= 0;
                    count = client.getInputStream().read(buffer)) {
                link.write(Arrays.copyOf(buffer, count));
            }
        } catch (IOException e) {
            // It has left; who sends to it says so.
        }
    }

    private void stream(SimulatedBoard running, OutputStream out) throws IOException {
        try (SimulatedLink link = new SimulatedLink(running, factor, frames)) {
            link.open();
            stream(link, out);
        }
    }

    private static void stream(SimulatedLink link, OutputStream out) throws IOException {
        byte[] buffer = new byte[1 << 16];
        for (int count = link.read(buffer); count >= 0; count = link.read(buffer)) {
            out.write(buffer, 0, count);
            out.flush();
        }
    }
}
