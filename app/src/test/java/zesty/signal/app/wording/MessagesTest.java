package zesty.signal.app.wording;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.source.tree.AnnotationTree;
import com.sun.source.tree.LiteralTree;
import com.sun.source.tree.MethodInvocationTree;
import com.sun.source.tree.NewClassTree;
import com.sun.source.util.JavacTask;
import com.sun.source.util.TreeScanner;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.tools.ToolProvider;
import org.junit.jupiter.api.Test;
import zesty.signal.core.text.Messages;

class MessagesTest {
    private static final List<String> MODULES = List.of("core", "boards", "takes", "exchange", "engine", "app");

    /** Texts of files, of the command line and of the demo's own club are no words of the window. */
    private static final Pattern NOT_OF_THE_WINDOW = Pattern.compile(".*/(command|sim|portable)/.*|.*/("
            + "Demo\\w+|Pictures|SceneRunner|Guide|ReportHtml|SvgPen|TakeSchema|DecisionTable|FrameTable|Tally|TakeData|"
            + "TakeRows|TakeMarks|TakeNotes|TakeFile|PyramidBuilder|UnitWords|Roles|WavExport|EdfExport|EdfFile|"
            + "ListeningLink|WatchdogProcess|StepPlan|SensorKind|Settings|StyleSheet|KindJson|LogSetup)\\.java");

    /** Two words in a row, as nobody but people reads them. */
    private static final Pattern WORDS = Pattern.compile("[\\p{L}]{2,},? [\\p{L}]{2,}");

    private static final Pattern PLACE = Pattern.compile("\\{\\d+}|%[-0-9.]*[a-z]");
    private static final Pattern KEY = Pattern.compile("Messages\\s*\\.(?:of|in)\\((?:\\s*\\w+,)?\\s*\"([^\"]+)\"");

    private final Map<String, String> english = Messages.all(Locale.ENGLISH);

    @Test
    void bothLanguagesSayAllThatIsAskedForWithTheSamePlaces() throws Exception {
        Set<String> asked = new TreeSet<>();
        for (Path source : sources()) {
            KEY.matcher(Files.readString(source)).results().forEach(found -> asked.add(found.group(1)));
        }
        Set<String> unused = new TreeSet<>(english.keySet());
        unused.removeAll(asked);
        assertThat(unused).allMatch(key -> key.startsWith("page.") || key.startsWith("token."));
        assertThat(english.keySet()).containsAll(asked);

        Set<String> inGerman = new HashSet<>();
        for (String module : MODULES) {
            Path bundle = Path.of("..", module, "src/main/resources/zesty/signal/words", module + "_de.properties");
            Files.readAllLines(bundle)
                    .forEach(line ->
                            inGerman.add(line.substring(0, line.indexOf('=')).replace("\\", "")));
        }
        assertThat(inGerman).containsExactlyInAnyOrderElementsOf(english.keySet());
        Messages.all(Locale.GERMAN).forEach((key, text) -> {
            String other = english.get(key);
            assertThat(places(text)).as(key).containsExactlyInAnyOrderElementsOf(places(other));
            // What is joined to other text keeps its spaces.
            assertThat(text.startsWith(" ")).as(key + " begins with a space").isEqualTo(other.startsWith(" "));
            assertThat(text.endsWith(" ")).as(key + " ends with a space").isEqualTo(other.endsWith(" "));
        });
    }

    @Test
    void noWordOfTheWindowStandsInCode() throws Exception {
        List<String> found = new ArrayList<>();
        var compiler = ToolProvider.getSystemJavaCompiler();
        try (var files = compiler.getStandardFileManager(null, Locale.ROOT, null)) {
            List<Path> sources = sources().stream()
                    .filter(one -> !NOT_OF_THE_WINDOW.matcher(one.toString()).matches())
                    .toList();
            JavacTask task = (JavacTask) compiler.getTask(
                    null, files, null, List.of("-proc:none"), null, files.getJavaFileObjectsFromPaths(sources));
            for (var unit : task.parse()) {
                String file =
                        Path.of(unit.getSourceFile().toUri()).getFileName().toString();
                unit.accept(new Literals(file, found), null);
            }
        }
        assertThat(found).isEmpty();
    }

    /** A text comes with its places filled, a brace as a brace, and where German lacks nothing, in German. */
    @Test
    void aTextIsFilledAndSpokenInTheLanguageThatIsChosen() {
        assertThat(Messages.of("lanes.marker", "gust")).isEqualTo("marker gust");
        assertThat(Messages.of("act.line-must-hold-value-was", "x{1}"))
                .isEqualTo("line must hold {value}, was \"x{1}\"");
        assertThat(Messages.of("no.such-key")).isEqualTo("no.such-key");
        assertThat(Messages.in(Locale.GERMAN, "lanes.marker")).isEqualTo("Marke {0}");
        // A rig made in German says so of its cue.
        assertThat(Messages.means("rate", "Herzrate")).isFalse();
        assertThat(Messages.means("recovery", "Erholung")).isTrue();
        assertThat(Messages.means("recovery", "Recovery")).isTrue();
        assertThat(Messages.in(Locale.FRENCH, "lanes.marker")).isEqualTo("marker {0}");
        Map<String, Integer> same = new HashMap<>();
        Messages.all(Locale.GERMAN).forEach((key, text) -> {
            if (WORDS.matcher(text).find() && text.equals(english.get(key))) {
                same.merge(text, 1, Integer::sum);
            }
        });
        // Names, and lines of a plan or a protocol, are the same in both.
        assertThat(same).hasSizeLessThan(20);
    }

    private static List<Path> sources() throws Exception {
        List<Path> all = new ArrayList<>();
        for (String module : MODULES) {
            try (Stream<Path> files = Files.walk(Path.of("..", module, "src", "main", "java"))) {
                files.filter(one -> one.toString().endsWith(".java")).forEach(all::add);
            }
        }
        return all;
    }

    private static List<String> places(String text) {
        return PLACE.matcher(text).results().map(one -> one.group()).toList();
    }

    /** String literals with words in them, outside of annotations and of what is written into the log. */
    private static final class Literals extends TreeScanner<Void, Void> {
        private static final Pattern MACHINE = Pattern.compile(
                "-fx-|^M-?\\d+ |^(CREATE|SELECT|INSERT|UPDATE|DELETE|PRAGMA) |missing, check_sum|period_seconds, check_sum|"
                        + "uuuu-MM|Atkinson|^\\(\\?i\\)|%msg|^: still there");
        private final String file;
        private final List<String> found;

        Literals(String file, List<String> found) {
            this.file = file;
            this.found = found;
        }

        @Override
        public Void visitAnnotation(AnnotationTree annotation, Void nothing) {
            return null;
        }

        @Override
        public Void visitMethodInvocation(MethodInvocationTree call, Void nothing) {
            String called = call.getMethodSelect().toString();
            // What other programs say is English.
            boolean ofOthers = called.endsWith(".contains") || called.startsWith("LOG.");
            return ofOthers || called.endsWith("out.println") ? null : super.visitMethodInvocation(call, nothing);
        }

        @Override
        public Void visitNewClass(NewClassTree made, Void nothing) {
            return made.getIdentifier().toString().matches("Thread|BackgroundTasks.*")
                    ? null
                    : super.visitNewClass(made, nothing);
        }

        @Override
        public Void visitLiteral(LiteralTree literal, Void nothing) {
            if (literal.getValue() instanceof String text
                    && WORDS.matcher(text).find()
                    && !MACHINE.matcher(text).find()) {
                found.add(file + ": " + text);
            }
            return null;
        }
    }
}
