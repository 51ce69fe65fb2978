package zesty.signal.app.help;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.read.kinds.ReaderKinds;

class HelpBookTest {
    private final HelpBook book = new HelpBook();

    /** Every stop, every kind of reader and every step has its topic, with something to say, found by one id only. */
    @Test
    void everyPlaceAndEveryKindHasItsTopic() {
        Set<String> ids = new HashSet<>();
        for (HelpTopic topic : book.all()) {
            assertThat(ids.add(topic.id())).as(topic.id()).isTrue();
            assertThat(topic.title()).isNotBlank();
            assertThat(topic.paragraphs()).as(topic.id()).isNotEmpty().allMatch(text -> text.length() > 9);
        }
        for (Stop stop : Stop.values()) {
            assertThat(book.topic(stop.name().toLowerCase(Locale.ROOT))).isPresent();
        }
        ReaderKinds.all().forEach(kind -> assertThat(
                        book.topic(HelpBook.reader(kind.name())).orElseThrow().paragraphs())
                .as(kind.name())
                .hasSizeGreaterThan(2));
        Recipe.examples()
                .forEach(step -> assertThat(book.topic("step-" + step.text().replaceAll(":.*", "")))
                        .isPresent());
        assertThat(ids).contains("trail", "takes", "planner", "phone", "quality", "cautions");
    }

    @Test
    void aWordIsFoundByTitleBeforeText() {
        List<HelpTopic> found = book.find("  Alias ");
        assertThat(found.get(0).id()).isEqualTo("aliasing");
        assertThat(book.find("hysteresis")).extracting(HelpTopic::id).startsWith("hysteresis");
        assertThat(book.find("99 times a second")).extracting(HelpTopic::id).contains("aliasing");
        assertThat(book.find("no such word")).isEmpty();
        assertThat(book.find(" ")).hasSameSizeAs(book.all());
    }

    /** In German, which takes a process of its own, it has the same topics in the same order, and is no copy. */
    @Test
    void theGuideIsToldInGermanAsWell(@TempDir Path folder) throws Exception {
        Path made = folder.resolve("de.html");
        Process process = new ProcessBuilder(
                        ProcessHandle.current().info().command().orElseThrow(),
                        "-cp",
                        System.getProperty("java.class.path"),
                        "zesty.signal.app.Zesty",
                        "guide",
                        "--language",
                        "de",
                        "--to",
                        made.toString())
                .redirectErrorStream(true)
                .start();
        assertThat(new String(process.getInputStream().readAllBytes())).isEmpty();
        assertThat(process.waitFor()).isZero();
        String german = Files.readString(made);
        assertThat(Files.readString(Path.of("..", "docs", "guide", "de.html")))
                .as("made by ./zesty guide --language de --to docs/guide/de.html")
                .isEqualTo(german);
        assertThat(ids(german)).isEqualTo(ids(Guide.page(book)));
        assertThat(german).contains("<html lang=\"de\">", "Abtastrate", "Herzrate");
        List<String> english = book.all().stream()
                .flatMap(topic -> topic.paragraphs().stream())
                .filter(text -> text.length() > 40 && german.contains(text))
                .toList();
        assertThat(english).isEmpty();
    }

    private static List<String> ids(String page) {
        return Pattern.compile("<h3 id=\"([^\"]+)\"")
                .matcher(page)
                .results()
                .map(found -> found.group(1))
                .toList();
    }

    /** The guide in the documents is the one of this version, asks for nothing, and its links lead somewhere. */
    @Test
    void theGuideOnDiskIsMadeOfTheSameTexts() throws Exception {
        String page = Guide.page(book);
        Path kept = Path.of("..", "docs", "guide", "index.html");
        assertThat(Files.readString(kept))
                .as("made by ./zesty guide --to docs/guide/index.html")
                .isEqualTo(page);
        assertThat(page).doesNotContain("http:", "https:", "<script", "src=");
        Pattern.compile("href=\"#([^\"]+)\"").matcher(page).results().forEach(link -> assertThat(page)
                .contains("<h3 id=\"" + link.group(1) + "\">"));
    }
}
