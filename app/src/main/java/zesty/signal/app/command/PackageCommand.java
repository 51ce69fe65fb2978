package zesty.signal.app.command;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.net.URISyntaxException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import java.util.spi.ToolProvider;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import zesty.signal.takes.DiskWords;
import zesty.signal.takes.TakeException;

@Command(name = "package", description = "Makes the application with a runtime of its own, to hand on.")
final class PackageCommand implements Callable<Integer> {
    private static final String NAME = "zesty-signal";
    private static final String MAIN = "zesty.signal.app.Zesty";
    /** What the application and its libraries ask of the platform; nothing else goes along. */
    private static final String MODULES = String.join(
            ",",
            "java.base",
            "java.desktop",
            "java.logging",
            "java.management",
            "java.naming",
            "java.sql",
            "java.xml",
            "jdk.unsupported",
            "jdk.localedata");

    private static final long MOST_MINUTES = 10;

    @Spec
    private CommandSpec spec;

    @Option(names = "--to", paramLabel = "DIR", description = "where they go; usually the folder dist")
    private Path to = Path.of("dist");

    @Override
    public Integer call() throws TakeException, InterruptedException {
        ToolProvider jpackage = tool("jpackage");
        tool("jlink");
        Path jar = jar();
        Path image = to.resolve(NAME);
        Path archive = to.resolve(NAME + "-" + version() + ".tar.gz");
        for (Path each : List.of(image, archive)) {
            if (Files.exists(each)) {
                throw new Refusal(each + " is there already; choose another folder, or remove it");
            }
        }
        List<Path> made = new ArrayList<>();
        Path input = null;
        try {
            Files.createDirectories(to);
            input = gathered(jar);
            run(
                    jpackage,
                    "--type",
                    "app-image",
                    "--name",
                    NAME,
                    "--app-version",
                    version(),
                    "--dest",
                    to.toString(),
                    "--input",
                    input.toString(),
                    "--main-jar",
                    jar.getFileName().toString(),
                    "--main-class",
                    MAIN,
                    "--add-modules",
                    MODULES,
                    "--jlink-options",
                    "--strip-debug --no-man-pages --no-header-files --compress=2 --include-locales=en,de",
                    "--java-options",
                    "-Xmx1g -XX:+UseSerialGC -XX:-UsePerfData -Dprism.lcdtext=false");
            made.add(image);
            if (packed(image, archive)) {
                made.add(archive);
            }
            installer(jpackage, image).ifPresent(made::add);
        } catch (TakeException e) {
            throw e;
        } catch (IOException e) {
            throw new TakeException(to + " cannot be written: " + DiskWords.of(e), e);
        } finally {
            remove(input);
        }
        made.forEach(spec.commandLine().getOut()::println);
        spec.commandLine().getOut().flush();
        return Commands.DONE;
    }

    private static ToolProvider tool(String name) {
        return ToolProvider.findFirst(name)
                .orElseThrow(() -> new Refusal("the application is packaged with the tool " + name
                        + " of a JDK; this Java, " + System.getProperty("java.home") + ", has none"));
    }

    static String version() {
        String version = PackageCommand.class.getPackage().getImplementationVersion();
        return version == null ? "0.1.0" : version;
    }

    private static Path jar() {
        try {
            Path of = Path.of(Commands.class
                    .getProtectionDomain()
                    .getCodeSource()
                    .getLocation()
                    .toURI());
            if (Files.isRegularFile(of)) {
                return of;
            }
        } catch (URISyntaxException e) {
            // Said below.
        }
        throw new Refusal("only a built application can be packaged; start it by ./zesty");
    }

    /** The application and its libraries in one folder. */
    private static Path gathered(Path jar) throws IOException {
        Path input = Files.createTempDirectory("package");
        Files.copy(jar, input.resolve(jar.getFileName()));
        try (Stream<Path> libraries = Files.list(jar.resolveSibling("lib"))) {
            for (Path library : libraries.toList()) {
                Files.copy(library, input.resolve(library.getFileName()), StandardCopyOption.REPLACE_EXISTING);
            }
        }
        return input;
    }

    private static void run(ToolProvider tool, String... words) throws TakeException {
        StringWriter said = new StringWriter();
        int status = tool.run(new PrintWriter(said), new PrintWriter(said), words);
        if (status != 0) {
            throw new TakeException(
                    tool.name() + " failed: " + said.toString().strip().replaceAll("\\R+", "; "));
        }
    }

    /** @return false where the machine has no tar */
    private boolean packed(Path image, Path archive) throws IOException, InterruptedException {
        return process(List.of(
                "tar",
                "-czf",
                archive.toString(),
                "-C",
                to.toString(),
                image.getFileName().toString()));
    }

    private static boolean process(List<String> line) throws IOException, InterruptedException {
        Process process;
        try {
            process = new ProcessBuilder(line)
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
        } catch (IOException e) {
            return false;
        }
        if (!process.waitFor(MOST_MINUTES, TimeUnit.MINUTES) || process.exitValue() != 0) {
            process.destroyForcibly();
            throw new TakeException(line.get(0) + " failed");
        }
        return true;
    }

    /** @return the installer, where the tools for one are on this machine */
    private Optional<Path> installer(ToolProvider jpackage, Path image) throws IOException {
        boolean debian = System.getProperty("os.name").toLowerCase(Locale.ROOT).contains("linux")
                && Stream.of("dpkg-deb", "fakeroot").allMatch(PackageCommand::onPath);
        if (!debian) {
            Inputs.hint("no installer is made: dpkg-deb and fakeroot are not on this machine");
            return Optional.empty();
        }
        Path kinds = Files.createTempFile("take", ".properties");
        try {
            Files.writeString(
                    kinds, "extension=zest\nmime-type=application/x-zesty-take\ndescription=A take of Zesty Signal\n");
            run(
                    jpackage,
                    "--type",
                    "deb",
                    "--app-image",
                    image.toString(),
                    "--name",
                    NAME,
                    "--app-version",
                    version(),
                    "--description",
                    "Streams, records, cleans and reads sensor signals",
                    "--linux-shortcut",
                    "--linux-menu-group",
                    "Science",
                    "--file-associations",
                    kinds.toString(),
                    "--dest",
                    to.toString());
        } finally {
            Files.deleteIfExists(kinds);
        }
        try (Stream<Path> files = Files.list(to)) {
            return files.filter(one -> one.toString().endsWith(".deb")).findFirst();
        }
    }

    private static boolean onPath(String tool) {
        return Stream.of(System.getenv().getOrDefault("PATH", "").split(":"))
                .anyMatch(folder -> Files.isExecutable(Path.of(folder, tool)));
    }

    private static void remove(Path folder) {
        if (folder == null) {
            return;
        }
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path one : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(one);
            }
        } catch (IOException e) {
            // A folder of the system's temporary ones: it goes with them.
        }
    }
}
