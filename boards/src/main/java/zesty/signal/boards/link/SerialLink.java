package zesty.signal.boards.link;

import com.fazecast.jSerialComm.SerialPort;
import com.fazecast.jSerialComm.SerialPortInvalidPortException;
import java.nio.file.Files;
import java.nio.file.Path;

/** A serial port, 8 data bits, no parity, 1 stop bit. */
final class SerialLink implements Link {
    private static final int READ_TIMEOUT_MS = 100;

    private final LinkAddress.Serial address;
    private volatile SerialPort port;

    SerialLink(LinkAddress.Serial address) {
        this.address = address;
    }

    @Override
    public void open() throws LinkException {
        Path device = Path.of(address.path());
        boolean unix = address.path().startsWith("/");
        if (unix && !Files.exists(device)) {
            throw new LinkException("port " + address.path() + " is not there. Is the board plugged in?", false);
        }
        if (unix && !(Files.isReadable(device) && Files.isWritable(device))) {
            throw new LinkException(
                    "port " + address.path()
                            + " may not be used by you. Join the group that owns it (often dialout) and "
                            + "sign in again",
                    true);
        }
        SerialPort candidate;
        try {
            candidate = SerialPort.getCommPort(address.path());
        } catch (SerialPortInvalidPortException e) {
            throw new LinkException(address.path() + " is no serial port", true);
        }
        candidate.setComPortParameters(address.baud(), 8, SerialPort.ONE_STOP_BIT, SerialPort.NO_PARITY);
        candidate.setFlowControl(SerialPort.FLOW_CONTROL_DISABLED);
        candidate.setComPortTimeouts(SerialPort.TIMEOUT_READ_SEMI_BLOCKING, READ_TIMEOUT_MS, 0);
        if (!candidate.openPort(0)) {
            throw new LinkException(
                    "port " + address.path() + " would not open at " + address.baud()
                            + " baud. Another program may hold it: close that one first",
                    false);
        }
        port = candidate;
    }

    @Override
    public int read(byte[] buffer) throws LinkException {
        SerialPort open = port;
        if (open == null) {
            throw new LinkException("port " + address.path() + " is closed", false);
        }
        int count = open.readBytes(buffer, buffer.length);
        if (count < 0 || count == 0 && !present()) {
            throw new LinkException("port " + address.path() + " went away", false);
        }
        return count;
    }

    private boolean present() {
        return !address.path().startsWith("/") || Files.exists(Path.of(address.path()));
    }

    @Override
    public void write(byte[] bytes) throws LinkException {
        SerialPort open = port;
        if (open == null || open.writeBytes(bytes, bytes.length) != bytes.length) {
            throw new LinkException("port " + address.path() + " took no bytes", false);
        }
    }

    @Override
    public void close() {
        SerialPort open = port;
        port = null;
        if (open != null) {
            open.closePort();
        }
    }

    @Override
    public boolean joinsMidStream() {
        return true;
    }
}
