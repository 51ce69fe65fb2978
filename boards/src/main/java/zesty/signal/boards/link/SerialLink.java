package zesty.signal.boards.link;

import com.fazecast.jSerialComm.SerialPort;
import com.fazecast.jSerialComm.SerialPortInvalidPortException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFileAttributes;

/** A serial port. */
final class SerialLink implements Link {
    private static final int READ_TIMEOUT_MS = 100;
    /** What Unix systems answer where a device has no line settings (ENOTTY). */
    private static final int NOT_A_TERMINAL = 25;

    private final LinkAddress.Serial address;
    private volatile SerialPort port;
    private volatile boolean shared;

    SerialLink(LinkAddress.Serial address) {
        this.address = address;
    }

    @Override
    public void open() throws LinkException {
        Path device = Path.of(address.path());
        boolean unix = address.path().startsWith("/");
        if (unix && Files.notExists(device)) {
            throw new LinkException("port " + address.path() + " is not there. Is the board plugged in?", false);
        }
        if (unix && (Files.isDirectory(device) || Files.isRegularFile(device))) {
            throw new LinkException(
                    address.path() + " is a " + (Files.isDirectory(device) ? "folder" : "file")
                            + ", no serial port. Ports are listed by: zesty boards",
                    true);
        }
        if (unix && !(Files.isReadable(device) && Files.isWritable(device))) {
            throw new LinkException(
                    "port " + address.path()
                            + " may not be used by you. Join the group that owns it (" + group(device)
                            + ") and sign in again",
                    true);
        }
        SerialPort candidate;
        try {
            candidate = SerialPort.getCommPort(address.path());
        } catch (SerialPortInvalidPortException e) {
            throw new LinkException(address.path() + " is no serial port", true);
        }
        SerialSettings settings = address.settings();
        candidate.setComPortParameters(
                address.baud(),
                settings.dataBits(),
                settings.stopBits() == 2 ? SerialPort.TWO_STOP_BITS : SerialPort.ONE_STOP_BIT,
                switch (settings.parity()) {
                    case NONE -> SerialPort.NO_PARITY;
                    case EVEN -> SerialPort.EVEN_PARITY;
                    case ODD -> SerialPort.ODD_PARITY;
                });
        if (settings.quiet()) {
            candidate.clearDTR();
            candidate.clearRTS();
        }
        if (shared) {
            candidate.disableExclusiveLock();
        }
        candidate.setFlowControl(SerialPort.FLOW_CONTROL_DISABLED);
        candidate.setComPortTimeouts(SerialPort.TIMEOUT_READ_SEMI_BLOCKING, READ_TIMEOUT_MS, 0);
        if (!candidate.openPort(0)) {
            if (candidate.getLastErrorCode() == NOT_A_TERMINAL) {
                throw new LinkException(address.path() + " is no serial port. Ports are listed by: zesty boards", true);
            }
            String holder =
                    PortHolders.of(device).map(name -> name + " holds it").orElse("another program may hold it");
            throw new LinkException(
                    "port " + address.path() + " would not open at " + address.baud() + " baud: " + holder
                            + ". Close that one first",
                    false);
        }
        port = candidate;
    }

    private static String group(Path device) {
        try {
            return Files.readAttributes(device, PosixFileAttributes.class)
                    .group()
                    .getName();
        } catch (IOException | UnsupportedOperationException e) {
            return "often dialout";
        }
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
    public boolean share() {
        boolean change = !shared;
        shared = true;
        return change;
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
