package zesty.signal.boards.link;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.ByteBuffer;
import java.nio.channels.ServerSocketChannel;
import java.nio.channels.SocketChannel;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.locks.LockSupport;
import zesty.signal.core.text.Messages;

/**
 * Waits on a TCP port for a board to call. Of several callers the board is the one that speaks first; whoever else calls
 * is told so and counted. When it hangs up, the next may call.
 */
final class ListeningLink implements Link {
    private static final int TIMEOUT_MS = 100;
    private static final long LOOK_NANOS = 5_000_000;
    /** More callers than these are not kept waiting for a word. */
    private static final int MOST_WAITING = 8;

    private static final byte[] BUSY =
            "busy: another board is connected here; try again later\n".getBytes(StandardCharsets.UTF_8);

    private final LinkAddress.Tcp address;
    /** Those who called and have said nothing yet, the first one first. */
    private final List<SocketChannel> silent = new CopyOnWriteArrayList<>();

    private volatile ServerSocketChannel server;
    private volatile Socket caller;
    private volatile int turnedAway;

    ListeningLink(LinkAddress.Tcp address) {
        this.address = address;
    }

    @Override
    public void open() throws LinkException {
        try {
            if (server == null) {
                ServerSocketChannel fresh = ServerSocketChannel.open();
                InetSocketAddress at = address.listensOn() == null
                        ? new InetSocketAddress(address.port())
                        : new InetSocketAddress(address.listensOn(), address.port());
                if (at.isUnresolved()) {
                    throw new LinkException(Messages.of("link.no-address-is-called", address.listensOn()), true);
                }
                fresh.bind(at);
                fresh.configureBlocking(false);
                server = fresh;
            }
        } catch (LinkException e) {
            throw e;
        } catch (IOException e) {
            throw new LinkException(
                    Messages.of("link.port-cannot-be-listened-on-choose", address.port(), Reasons.of(e)), true);
        }
    }

    @Override
    public int read(byte[] buffer) throws LinkException {
        ServerSocketChannel listening = server;
        if (listening == null) {
            throw new LinkException(Messages.of("link.port-is-closed", address.port()), false);
        }
        Socket open = caller;
        try {
            if (open == null) {
                return await(listening, buffer);
            }
            int count = came(open, buffer);
            if (count < 0) {
                hangUp();
                throw new LinkException(Messages.of("link.the-board-that-called-on-port-hung", address.port()), false);
            }
            // Only now is it certain that the caller is still there, and another one too many.
            SocketChannel second = listening.accept();
            if (second != null) {
                turnAway(second);
            }
            return count;
        } catch (LinkException e) {
            throw e;
        } catch (IOException e) {
            hangUp();
            throw new LinkException(
                    Messages.of("link.the-board-that-called-on-port", address.port(), Reasons.of(e)), false);
        }
    }

    private static int came(Socket caller, byte[] buffer) throws IOException {
        try {
            return caller.getInputStream().read(buffer);
        } catch (SocketTimeoutException e) {
            return NOTHING;
        }
    }

    private int await(ServerSocketChannel listening, byte[] buffer) throws IOException {
        long until = System.nanoTime() + TIMEOUT_MS * 1_000_000L;
        do {
            for (SocketChannel came = listening.accept(); came != null; came = listening.accept()) {
                if (silent.size() < MOST_WAITING) {
                    came.configureBlocking(false);
                    silent.add(came);
                } else {
                    turnAway(came);
                }
            }
            for (SocketChannel one : silent) {
                int count = word(one, buffer);
                if (count > 0) {
                    silent.remove(one);
                    choose(one);
                    return count;
                } else if (count < 0) {
                    silent.remove(one);
                    close(one);
                }
            }
            LockSupport.parkNanos(LOOK_NANOS);
        } while (System.nanoTime() < until);
        return NOTHING;
    }

    private static int word(SocketChannel one, byte[] buffer) {
        try {
            return one.read(ByteBuffer.wrap(buffer));
        } catch (IOException e) {
            return -1;
        }
    }

    private void choose(SocketChannel board) throws IOException {
        board.configureBlocking(true);
        board.socket().setSoTimeout(TIMEOUT_MS);
        board.socket().setTcpNoDelay(true);
        caller = board.socket();
        silent.forEach(this::turnAway);
        silent.clear();
    }

    private void turnAway(SocketChannel other) {
        turnedAway++;
        try (other) {
            other.configureBlocking(false);
            other.write(ByteBuffer.wrap(BUSY));
        } catch (IOException e) {
            // It went before it could be told.
        }
    }

    @Override
    public int turnedAway() {
        return turnedAway;
    }

    /** A board that waits for a command before it speaks gets it too. */
    @Override
    public void write(byte[] bytes) throws LinkException {
        Socket open = caller;
        try {
            if (open != null) {
                open.getOutputStream().write(bytes);
            } else if (!silent.isEmpty()) {
                for (SocketChannel one : silent) {
                    one.write(ByteBuffer.wrap(bytes));
                }
            } else {
                throw new LinkException(Messages.of("link.port-took-no-bytes-no-board-has", address.port()), false);
            }
        } catch (LinkException e) {
            throw e;
        } catch (IOException e) {
            throw new LinkException(Messages.of("link.port-took-no-bytes", address.port(), Reasons.of(e)), false);
        }
    }

    private void hangUp() {
        Socket open = caller;
        caller = null;
        close(open);
    }

    @Override
    public void close() {
        hangUp();
        silent.forEach(ListeningLink::close);
        silent.clear();
        ServerSocketChannel listening = server;
        server = null;
        close(listening);
    }

    private static void close(AutoCloseable open) {
        try {
            if (open != null) {
                open.close();
            }
        } catch (Exception e) {
            // It is gone either way.
        }
    }

    @Override
    public boolean holdsUp() {
        return true;
    }

    @Override
    public boolean listens() {
        return true;
    }

    @Override
    public boolean joinsMidStream() {
        return true;
    }
}
