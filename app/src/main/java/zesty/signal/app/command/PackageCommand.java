package zesty.signal.app.command;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.File;
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
import javax.imageio.ImageIO;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import zesty.signal.app.window.StyleArchive;
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
            "jdk.crypto.ec",
            "jdk.httpserver",
            "jdk.unsupported",
            "jdk.localedata");

    /** The packager's own way leaves the icons of the file types behind. */
    private static final String ICONS_OFF = "xdg-icon-resource uninstall --context mimetypes --size 128"
            + " application-x-zesty-take\nxdg-icon-resource uninstall --context mimetypes --size 128"
            + " application-x-zesty-rig+json\n";

    private static final long MOST_MINUTES = 10;

    @Spec
    private CommandSpec spec;

    @Option(names = "--to", paramLabel = "DIR", description = "where they go; usually the folder dist")
    private Path to = Path.of("dist");

    @Override
    public Integer call() throws TakeException, InterruptedException {
        ToolProvider jpackage = tool("jpackage");
        ToolProvider jlink = tool("jlink");
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
            Path icon = icon(input);
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
                    "--icon",
                    icon.toString(),
                    "--runtime-image",
                    runtime(jlink, input).toString(),
                    "--java-options",
                    "-Xmx1g -Xms64m -XX:MaxNewSize=16m -XX:MinHeapFreeRatio=10 -XX:MaxHeapFreeRatio=30"
                            + " -XX:+UseSerialGC -XX:-UsePerfData -Dprism.dirtyregioncount=15 -Dprism.lcdtext=false"
                            + " -XX:Tier4InvocationThreshold=100000 -XX:Tier4MinInvocationThreshold=20000"
                            + " -XX:Tier4CompileThreshold=200000 -XX:Tier4BackEdgeThreshold=1000000"
                            + " -Dslf4j.provider=ch.qos.logback.classic.spi.LogbackServiceProvider"
                            + " -Dslf4j.internal.verbosity=WARN");
            made.add(image);
            if (packed(image, archive)) {
                made.add(archive);
            }
            installer(jpackage, image, icon).ifPresent(made::add);
        } catch (TakeException e) {
            throw e;
        } catch (IOException e) {
            throw new TakeException(to + " cannot be written: " + DiskWords.of(e), e);
        } finally {
            remove(input);
            remove(input == null ? null : input.resolveSibling(input.getFileName() + "-runtime"));
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
        StyleArchive.write(input.resolve("styles.jar"));
        // What it is made of may be passed on with its licences only.
        Path sources = jar.toAbsolutePath().getParent().getParent().getParent();
        for (String name : List.of("LICENSE", "docs/LICENCES.md")) {
            Path licence = sources.resolve(name);
            if (!Files.exists(licence)) {
                throw new Refusal(licence + " is not there; it has to go along");
            }
            Files.copy(licence, input.resolve(licence.getFileName()));
        }
        return input;
    }

    /** @return a runtime of the modules that are needed, its classes laid out once, so that each start is quicker */
    private static Path runtime(ToolProvider jlink, Path input) throws IOException, InterruptedException {
        Path runtime = input.resolveSibling(input.getFileName() + "-runtime");
        run(
                jlink,
                "--add-modules",
                MODULES,
                "--strip-debug",
                "--no-man-pages",
                "--no-header-files",
                "--compress=2",
                "--include-locales=en,de",
                "--output",
                runtime.toString());
        process(List.of(runtime.resolve("bin").resolve("java").toString(), "-Xshare:dump"));
        return runtime;
    }

    /** The slice, as the system's menu wants it. */
    private static Path icon(Path folder) throws IOException {
        int size = 256;
        BufferedImage image = new BufferedImage(size, size, BufferedImage.TYPE_INT_ARGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setColor(new Color(0x2F4038));
        g.fillOval(4, 4, size - 8, size - 8);
        g.setColor(new Color(0xF2B632));
        for (int i = 0; i < 8; i++) {
            g.fillArc(24, 24, size - 48, size - 48, 45 * i + 3, 39);
        }
        g.dispose();
        Path file = folder.resolve(NAME + ".png");
        ImageIO.write(image, "png", file.toFile());
        return file;
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

    /** @return what this system installs from; empty where the tools to make it are not on this machine */
    private static String type() {
        String system = System.getProperty("os.name").toLowerCase(Locale.ROOT);
        if (system.contains("win")) {
            return Stream.of("candle.exe", "light.exe").allMatch(PackageCommand::onPath) ? "msi" : "";
        }
        if (system.contains("mac")) {
            return "dmg";
        }
        return Stream.of("dpkg-deb", "fakeroot").allMatch(PackageCommand::onPath)
                ? "deb"
                : onPath("rpmbuild") ? "rpm" : "";
    }

    /** @return what the package does when it is put on or taken off; the packager fills in its commands */
    private static String script(String when, String commands) {
        return "#!/bin/sh\ncase \"$1\" in\n  " + when + ")\n    (\nset +e\n"
                + (when.equals("configure") ? "" : "UTILITY_SCRIPTS\n" + ICONS_OFF) + commands
                + "\n    ) >/dev/null 2>&1 || true\n    ;;\nesac\nexit 0\n";
    }

    /** @return the installer, where the tools for one are on this machine */
    private Optional<Path> installer(ToolProvider jpackage, Path image, Path icon) throws IOException {
        String type = type();
        if (type.isEmpty()) {
            Inputs.hint("no installer is made: dpkg-deb and fakeroot, or rpmbuild, are not on this machine");
            return Optional.empty();
        }
        Path folder = Files.createTempDirectory("associations");
        try {
            Path takes = folder.resolve("take.properties");
            Files.writeString(
                    takes,
                    "extension=zest\nmime-type=application/x-zesty-take\ndescription=A take of Zesty Signal\nicon="
                            + icon + "\n");
            Path rigs = folder.resolve("rig.properties");
            Files.writeString(
                    rigs,
                    "extension=zrig\nmime-type=application/x-zesty-rig+json\ndescription=A rig of Zesty Signal\nicon="
                            + icon + "\n");
            List<String> words = new ArrayList<>(List.of(
                    "--type",
                    type,
                    "--app-image",
                    image.toString(),
                    "--name",
                    NAME,
                    "--app-version",
                    version(),
                    "--description",
                    "Streams, records, cleans and reads sensor signals",
                    "--license-file",
                    image.resolve(type.equals("dmg") ? "Contents/app/LICENSE" : "lib/app/LICENSE")
                            .toString(),
                    "--dest",
                    to.toString()));
            if (!type.equals("dmg")) {
                words.addAll(List.of("--file-associations", takes.toString(), "--file-associations", rigs.toString()));
            }
            if (type.equals("deb") || type.equals("rpm")) {
                words.addAll(List.of("--linux-shortcut", "--linux-menu-group", "Science", "--icon", icon.toString()));
            }
            if (type.equals("deb")) {
                // A system without a desktop has no menu to write into: that keeps nobody from the command line.
                Files.writeString(folder.resolve("postinst"), script("configure", "DESKTOP_COMMANDS_INSTALL"));
                Files.writeString(
                        folder.resolve("prerm"), script("remove|upgrade|deconfigure", "DESKTOP_COMMANDS_UNINSTALL"));
                words.addAll(List.of("--resource-dir", folder.toString()));
                // What the window's library loads when it starts, which the tool does not see.
                words.addAll(List.of(
                        "--linux-package-deps",
                        "libgtk-3-0 | libgtk-3-0t64, libxtst6, libxxf86vm1, libgl1, libasound2 | libasound2t64"));
            }
            run(jpackage, words.toArray(String[]::new));
        } finally {
            remove(folder);
        }
        try (Stream<Path> files = Files.list(to)) {
            return files.filter(one -> one.toString().endsWith("." + type)).findFirst();
        }
    }

    private static boolean onPath(String tool) {
        return Stream.of(System.getenv().getOrDefault("PATH", "").split(File.pathSeparator))
                .anyMatch(folder -> Files.isExecutable(Path.of(folder, tool)));
    }

    private static void remove(Path folder) {
        if (folder == null || !Files.exists(folder)) {
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
