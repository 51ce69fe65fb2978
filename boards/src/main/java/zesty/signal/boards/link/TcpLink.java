package zesty.signal.boards.link;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.net.UnknownHostException;

/** A board that listens on a TCP port. */
final class TcpLink implements Link {
    private static final int CONNECT_TIMEOUT_MS = 3000;
    private static final int READ_TIMEOUT_MS = 100;

    private final LinkAddress.Tcp address;
    private volatile Socket socket;

    TcpLink(LinkAddress.Tcp address) {
        this.address = address;
    }

    @Override
    public void open() throws LinkException {
        Socket candidate = new Socket();
        try {
            InetSocketAddress target = new InetSocketAddress(address.host(), address.port());
            if (target.isUnresolved()) {
                throw new UnknownHostException();
            }
            candidate.connect(target, CONNECT_TIMEOUT_MS);
            candidate.setSoTimeout(READ_TIMEOUT_MS);
            candidate.setTcpNoDelay(true);
            socket = candidate;
        } catch (UnknownHostException e) {
            throw new LinkException("no host is called " + address.host() + ". Is the name right?", false);
        } catch (IOException e) {
            close(candidate);
            throw new LinkException(
                    address.words() + " does not answer (" + Reasons.of(e) + "). Is the board on and the port right?",
                    false);
        }
    }

    @Override
    public int read(byte[] buffer) throws LinkException {
        Socket open = socket;
        if (open == null) {
            throw new LinkException(address.words() + " is closed", false);
        }
        try {
            int count = open.getInputStream().read(buffer);
            if (count < 0) {
                throw new LinkException(address.words() + " hung up", false);
            }
            return count;
        } catch (SocketTimeoutException e) {
            return NOTHING;
        } catch (LinkException e) {
            throw e;
        } catch (IOException e) {
            throw new LinkException(address.words() + " broke off: " + Reasons.of(e), false);
        }
    }

    @Override
    public void write(byte[] bytes) throws LinkException {
        Socket open = socket;
        try {
            if (open == null) {
                throw new IOException("it is closed");
            }
            open.getOutputStream().write(bytes);
        } catch (IOException e) {
            throw new LinkException(address.words() + " took no bytes: " + Reasons.of(e), false);
        }
    }

    @Override
    public void close() {
        Socket open = socket;
        socket = null;
        close(open);
    }

    private static void close(Socket open) {
        if (open != null) {
            try {
                open.close();
            } catch (IOException e) {
                // It is gone either way.
            }
        }
    }

    @Override
    public boolean holdsUp() {
        return true;
    }

    @Override
    public boolean joinsMidStream() {
        return true;
    }
}
