package zesty.signal.app.window.workspace;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.Times;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.StreamSnapshot;
import zesty.signal.takes.NewFile;

/** What somebody who is to help wants to see: the log, the versions, the rig, as one ZIP file. Nothing is sent. */
final class ProblemReport {
    private static final double STREAM_SECONDS = 30;

    private ProblemReport() {}

    /**
     * @param rig the rig as its file has it
     * @param stream the newest seconds of what is received; empty where they are not to go along
     * @return what the report would hold: the names of its files, with their texts. Waits for the disk
     */
    static Map<String, String> parts(Path logs, String rig, Map<String, String> stream) throws IOException {
        Map<String, String> parts = new LinkedHashMap<>();
        parts.put("versions.txt", versions());
        parts.put("rig.json", rig);
        if (Files.isDirectory(logs)) {
            try (Stream<Path> files = Files.list(logs)) {
                for (Path log : files.filter(
                                file -> file.getFileName().toString().endsWith(".log"))
                        .sorted()
                        .toList()) {
                    // A log that was cut within a letter is read all the same.
                    parts.put(
                            log.getFileName().toString(), new String(Files.readAllBytes(log), StandardCharsets.UTF_8));
                }
            }
        }
        parts.putAll(stream);
        return parts;
    }

    /** Writes it whole or not at all; waits for the disk. */
    static void write(Path zip, Map<String, String> parts) throws IOException {
        Files.createDirectories(zip.getParent());
        try (NewFile file = NewFile.begin(zip, false)) {
            ZipOutputStream out = new ZipOutputStream(file.stream());
            for (Map.Entry<String, String> part : parts.entrySet()) {
                out.putNextEntry(new ZipEntry(part.getKey()));
                out.write(part.getValue().getBytes(StandardCharsets.UTF_8));
                out.closeEntry();
            }
            out.finish();
            file.keep();
        }
    }

    /** @return the raw numbers of the last half minute, a table a stream, as they were received */
    static Map<String, String> stream(Snapshot live) {
        Map<String, String> tables = new LinkedHashMap<>();
        for (StreamSnapshot stream : live.streams()) {
            List<ChannelSnapshot> channels = live.channels().stream()
                    .filter(one -> one.stream().key().equals(stream.key()))
                    .toList();
            if (stream.times() != null && !channels.isEmpty()) {
                String station = Double.isNaN(stream.station()) ? "" : "-" + Digits.exact(stream.station());
                tables.put("stream-" + (stream.source() + 1) + station + ".csv", table(stream, channels));
            }
        }
        return tables;
    }

    private static String table(StreamSnapshot stream, List<ChannelSnapshot> channels) {
        StringBuilder text = new StringBuilder("t");
        channels.forEach(one -> text.append(',').append(one.channel().column()));
        Times times = stream.times();
        long from = Math.max(times.start(), times.firstAtOrAfter(stream.lastSeconds() - STREAM_SECONDS));
        long to = times.end();
        for (long row = from; row < to; row++) {
            text.append('\n').append(Digits.exact(times.secondsAt(row)));
            for (ChannelSnapshot one : channels) {
                Series raw = one.raw();
                double value = row >= raw.start() && row < raw.end() ? raw.value(row) : Double.NaN;
                text.append(',').append(Double.isNaN(value) ? "" : Digits.exact(value));
            }
        }
        return text.append('\n').toString();
    }

    private static String versions() {
        StringBuilder text = new StringBuilder();
        for (String key : List.of(
                "java.version", "java.vendor", "javafx.version", "os.name", "os.version", "os.arch", "user.language")) {
            text.append(key)
                    .append(' ')
                    .append(System.getProperty(key, "unknown"))
                    .append('\n');
        }
        String version = ProblemReport.class.getPackage().getImplementationVersion();
        Runtime machine = Runtime.getRuntime();
        text.append("version ").append(version == null ? "unpacked" : version).append('\n');
        text.append("window ").append(Messages.language().getLanguage()).append('\n');
        text.append("processors ").append(machine.availableProcessors()).append('\n');
        text.append("memory ").append(machine.maxMemory() >> 20).append(" MiB\n");
        return text.toString();
    }
}
