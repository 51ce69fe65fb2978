package zesty.signal.engine.truth;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.SplittableRandom;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.Reading;
import zesty.signal.engine.TableReading;

/**
 * Reads many random records of all kinds and holds what is said of their quality against whether the answers are right:
 * {@code benchmarks/run truth}.
 */
public final class Truth {
    private static final Map<String, List<Record.Source>> SOURCES = new LinkedHashMap<>();
    private static final List<String> LINES_THAT_LOSE = List.of("pulse", "muscle", "hits", "motion", "step");
    /** Of the records a fifth come over a line that loses rows. */
    private static final int LOSING = 5;

    static {
        SOURCES.put(
                "pulse",
                List.of(
                        PulseRecords::optical,
                        PulseRecords::electrical,
                        PulseRecords::optical,
                        PulseRecords::electrical,
                        PulseRecords::nothing));
        SOURCES.put(
                "muscle",
                List.of(
                        MuscleRecords::raw,
                        MuscleRecords::envelope,
                        MuscleRecords::raw,
                        MuscleRecords::envelope,
                        MuscleRecords::nothing));
        SOURCES.put(
                "hits", List.of(HitRecords::strikes, HitRecords::strikes, HitRecords::strikes, HitRecords::nothing));
        SOURCES.put("vibration", List.of(ShakeRecords::lines));
        SOURCES.put("tone", List.of(ShakeRecords::tone, ShakeRecords::tone, ShakeRecords::noTone));
        SOURCES.put("wind", List.of(SlowRecords::wind));
        SOURCES.put(
                "motion", List.of(MotionRecords::lean, MotionRecords::walk, MotionRecords::car, MotionRecords::pickUp));
        SOURCES.put("step", List.of(SlowRecords::step, SlowRecords::step, SlowRecords::noResponse));
        SOURCES.put("level", List.of(SlowRecords::level));
    }

    /** An answer beside the truth. @param objection empty where it is right */
    public record Answer(String kind, int hard, String scene, long seed, double quality, String objection) {
        public boolean right() {
            return objection.isEmpty();
        }
    }

    private Truth() {}

    /** @return the kinds that there are records of */
    public static List<String> kinds() {
        return List.copyOf(SOURCES.keySet());
    }

    /** Reads so many records of a kind, a part of them with rows lost. */
    public static List<Answer> of(String kind, int count, long seed) {
        return read(kind, count, seed, Double.NaN);
    }

    /** Reads so many records of a kind, all over a line that loses this share of the rows. */
    public static List<Answer> losing(String kind, int count, long seed, double share) {
        return read(kind, count, seed, share);
    }

    private static List<Answer> read(String kind, int count, long seed, double share) {
        List<Answer> answers = new ArrayList<>();
        List<Record.Source> sources = SOURCES.get(kind);
        for (int i = 0; i < count; i++) {
            long own = seed * 100_003 + i;
            // Of seeds in a row the first numbers are alike: they are mixed first.
            Random random = new Random(new SplittableRandom(own).nextLong());
            int hard = i / sources.size() % 2;
            Record record = sources.get(i % sources.size()).draw(random, hard);
            if (share == share) {
                record = record.losing(share, random);
            } else if (LINES_THAT_LOSE.contains(kind) && random.nextInt(LOSING) == 0) {
                record = record.losing(0.02, random);
            }
            answers.add(answer(record, hard, own));
        }
        return answers;
    }

    private static Answer answer(Record record, int hard, long seed) {
        double quality;
        String objection;
        try {
            Reading reading = TableReading.of(
                    record.kind(), record.settings(), record.columns(), record.seconds(), record.rateHz());
            quality = reading.quality().share();
            objection = record.judge().objection(reading);
        } catch (ReaderException e) {
            quality = 0;
            objection = "refused: " + e.getMessage();
        }
        return new Answer(
                record.kind(), hard, record.scene() + " at " + record.rateHz() + "/s", seed, quality, objection);
    }

    /** @return of the answers of that quality: how many there are and how many of these are right */
    public static int[] right(List<Answer> answers, double from, double to) {
        int all = 0;
        int right = 0;
        for (Answer one : answers) {
            if (one.quality() >= from && one.quality() < to) {
                all++;
                right += one.right() ? 1 : 0;
            }
        }
        return new int[] {all, right};
    }

    /** @param words how many records a kind, the seed, and kinds where not all are meant */
    public static void main(String[] words) {
        int count = words.length > 0 ? Integer.parseInt(words[0]) : 240;
        long seed = words.length > 1 ? Long.parseLong(words[1]) : 1;
        List<String> kinds = words.length > 2 ? List.of(words).subList(2, words.length) : kinds();
        List<Answer> all = new ArrayList<>();
        System.out.println("kind        q >= 0.9      0.6 to 0.9    0.3 to 0.6    below 0.3   right of all");
        for (String kind : kinds) {
            List<Answer> answers = of(kind, count, seed);
            all.addAll(answers);
            row(kind, answers);
        }
        row("all", all);
        System.out.println("worst: wrong with the highest quality");
        all.stream()
                .filter(one -> !one.right())
                .sorted((a, b) -> Double.compare(b.quality(), a.quality()))
                .limit(words.length > 2 ? 40 : 10)
                .forEach(one -> System.out.printf(
                        Locale.ROOT,
                        "%.2f %s %d %s: %s (seed %d)%n",
                        one.quality(),
                        one.kind(),
                        one.hard(),
                        one.scene(),
                        one.objection(),
                        one.seed()));
    }

    private static void row(String name, List<Answer> answers) {
        StringBuilder line = new StringBuilder(String.format(Locale.ROOT, "%-10s", name));
        double[] edges = {2, 0.9, 0.6, 0.3, -1};
        for (int i = 1; i < edges.length; i++) {
            int[] right = right(answers, edges[i], edges[i - 1]);
            line.append(String.format(Locale.ROOT, "  %4d of %4d", right[1], right[0]));
        }
        int[] whole = right(answers, -1, 2);
        line.append(String.format(Locale.ROOT, "  %4d of %4d", whole[1], whole[0]));
        System.out.println(line);
    }
}
