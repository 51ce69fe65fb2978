package zesty.signal.app.command;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.exchange.portable.PortableException;
import zesty.signal.exchange.portable.PortableRig;
import zesty.signal.exchange.portable.SourceFiles;
import zesty.signal.takes.DiskWords;
import zesty.signal.takes.RigJson;
import zesty.signal.takes.TakeException;

@Command(name = "portable", description = "What a rig decided, as portable C99.")
final class PortableCommand implements Callable<Integer> {
    @Parameters(paramLabel = "RIG.json")
    private Path file;

    @Option(names = "--column", paramLabel = "NAME")
    private List<String> columns = new ArrayList<>();

    @Option(names = "--out", paramLabel = "DIR", required = true)
    private Path out;

    @Option(names = "--fixed", description = "in whole numbers, for a board without a float unit")
    private boolean fixed;

    @Option(
            names = "--largest",
            paramLabel = "X",
            description = "with --fixed: how large raw numbers come where there is no converter (8388608)")
    private Double largest;

    @Override
    public Integer call() throws TakeException {
        Rig rig;
        try {
            rig = RigJson.read(Files.readString(file), file.toString());
        } catch (TakeException e) {
            throw new Refusal(e.getMessage());
        } catch (IOException e) {
            throw new Refusal(file + (Files.exists(file) ? " cannot be read" : DiskWords.absent(file)));
        }
        List<Channel> channels = new ArrayList<>();
        for (String column : columns) {
            channels.add(rig.channels().stream()
                    .filter(one -> one.column().equals(column) || one.name().equals(column))
                    .findFirst()
                    .orElseThrow(() -> new Refusal(file + " has no column '" + column + "'; it has "
                            + String.join(
                                    ", ",
                                    rig.channels().stream().map(Channel::column).toList()))));
        }
        if (columns.isEmpty()) {
            channels.addAll(PortableRig.worthCarrying(rig));
        }
        if (channels.isEmpty()) {
            throw new Refusal(file + " has no column with a scaling, a recipe or a rule; choose one with --column");
        }
        if (largest != null && !(fixed && largest > 0 && largest <= Integer.MAX_VALUE)) {
            throw new Refusal("--largest goes with --fixed and is a number above 0, at most 2147483647");
        }
        Map<String, Double> sizes = new HashMap<>();
        if (largest != null) {
            channels.forEach(one -> sizes.put(one.column(), largest));
        }
        try {
            SourceFiles.write(
                    out, fixed ? PortableRig.fixedFiles(rig, channels, sizes) : PortableRig.files(rig, channels));
        } catch (PortableException e) {
            throw new Refusal(file + ": " + e.getMessage());
        }
        return Commands.DONE;
    }
}
