package zesty.signal.app.command;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

class LicencesTest {
    private static final Pattern OF_TESTS = Pattern.compile(
            "(junit|assertj|testfx|archunit|opentest4j|apiguardian|hamcrest|byte-buddy|jqwik|surefire|json-schema|jackson-dataformat|"
                    + "snakeyaml|itu|org.osgi.core|benchmarks|openjfx|jmh).*");

    /** What a package holds is listed with its licence, file by file, and nothing is listed that is not in it. */
    @Test
    void everyFileOfAPackageIsListedWithItsLicence() throws Exception {
        Set<String> files = new TreeSet<>();
        for (String one : System.getProperty("java.class.path").split(Pattern.quote(File.pathSeparator))) {
            String name = Path.of(one).getFileName().toString();
            String part = name.replaceAll("-\\d[\\w.]*(-linux)?\\.jar$", "");
            boolean own = name.endsWith("-0.1.0.jar") || !name.endsWith(".jar");
            if (!own && !OF_TESTS.matcher(part).matches()) {
                files.add(part);
            }
        }
        String list = Files.readString(Path.of("..", "docs", "LICENCES.md"));
        String byFile = list.substring(list.indexOf("## File by file"));
        Set<String> listed = new TreeSet<>();
        Pattern.compile("`([\\w.-]+)`").matcher(byFile).results().forEach(found -> listed.add(found.group(1)));
        assertThat(listed).containsExactlyElementsOf(files);
        assertThat(Stream.of("GPL", "MIT", "Apache").allMatch(list::contains)).isTrue();
    }
}
