package zesty.signal.app.help;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.Step;
import zesty.signal.core.read.Need;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.text.Messages;

/** All that help tells: written texts, each kind of reader as it describes itself, each step of a recipe, and cautions. Immutable. */
public final class HelpBook {
    private static final String READERS = Messages.of("help.readers");
    private static final String STEPS = Messages.of("help.steps-of-a-recipe");

    private final List<HelpTopic> topics = new ArrayList<>();

    public HelpBook() {
        written();
        ReaderKinds.all().forEach(kind -> topics.add(of(kind)));
        Recipe.examples().forEach(step -> topics.add(of(step)));
        List<String> cautions = new ArrayList<>();
        for (Caution caution : Caution.values()) {
            cautions.add(caution.words());
        }
        topics.add(new HelpTopic(
                "cautions", Messages.of("help.cautions"), Messages.of("help.what-numbers-mean"), cautions));
    }

    /** @return every topic, in order */
    public List<HelpTopic> all() {
        return List.copyOf(topics);
    }

    /** @return the topic of that id */
    public Optional<HelpTopic> topic(String id) {
        return topics.stream().filter(one -> one.id().equals(id)).findFirst();
    }

    /** @return what answers a query, the best first; all of it where there is no query */
    public List<HelpTopic> find(String query) {
        if (query.isBlank()) {
            return all();
        }
        return topics.stream()
                .filter(one -> one.answers(query) > 0)
                .sorted(Comparator.comparingInt((HelpTopic one) -> -one.answers(query)))
                .toList();
    }

    /** @return the id of the topic of a kind of reader */
    public static String reader(String kind) {
        return "reader-" + kind;
    }

    private void written() {
        String text;
        try (InputStream in = HelpBook.class.getResourceAsStream(Messages.of("help.file"))) {
            text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(Messages.of("help.the-help-does-not-ship"), e);
        }
        for (String part : text.split("(?m)^# ")) {
            if (!part.isBlank()) {
                List<String> lines =
                        part.lines().filter(line -> !line.isBlank()).toList();
                String[] head = lines.get(0).split(" \\| ");
                topics.add(new HelpTopic(head[0], head[1], head[2], lines.subList(1, lines.size())));
            }
        }
    }

    private static String sentence(String words) {
        String text = words.strip();
        String whole = text.isEmpty() || ".!?".indexOf(text.charAt(text.length() - 1)) >= 0 ? text : text + ".";
        return whole.isEmpty() ? whole : Character.toUpperCase(whole.charAt(0)) + whole.substring(1);
    }

    private static HelpTopic of(ReaderKind kind) {
        List<String> said = new ArrayList<>();
        said.add(sentence(kind.words()));
        said.add(sentence(Messages.of("help.it-gives", kind.gives())));
        for (Need need : kind.needs()) {
            said.add(sentence(Character.toUpperCase(need.sensor().charAt(0))
                    + need.sensor().substring(1) + ": "
                    + need.limits()));
        }
        for (ScalarInfo scalar : kind.scalars()) {
            if (!scalar.tip().isBlank()) {
                said.add(scalar.words() + ": " + sentence(scalar.tip()));
            }
        }
        for (Setting setting : kind.settings()) {
            if (!setting.tip().isBlank()) {
                said.add(Messages.of("help.setting", setting.words(), sentence(setting.tip())));
            }
        }
        if (kind.onBody()) {
            said.add(Caution.BODY.words());
        }
        return new HelpTopic(reader(kind.name()), kind.title(), READERS, said);
    }

    private HelpTopic of(Step step) {
        String word = step.text().replaceAll(":.*", "");
        // One word may do two things, by what follows it.
        String name = topic("step-" + word).isPresent() ? step.text().replaceAll("[^\\w.]+", "-") : word;
        return new HelpTopic(
                "step-" + name,
                name,
                STEPS,
                List.of(sentence(step.about()), Messages.of("help.as-it-is-written-in-a-recipe", step.text())));
    }
}
