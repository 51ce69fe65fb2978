package zesty.signal.engine.fuzz;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.TreeMap;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.BoardClock;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.decode.Rows;
import zesty.signal.core.decode.StreamDecoder;
import zesty.signal.core.decode.Timestamper;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.Settings;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Limits;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;
import zesty.signal.core.scale.Formula;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.RigJson;
import zesty.signal.takes.TakeException;

/**
 * Spoils what makers and boards write, one case a seed: rigs, recipes, formulas, addresses, settings of readers, lines,
 * and time stamps. Each is taken or refused in our own words; rows are neither lost nor invented, and time never falls.
 * {@code benchmarks/run soak} runs a million.
 */
public final class Fuzz {
    private static final String SIGNS = "0123456789.,;:-+*/|=@ \t\"'{}[]()xXeEnNaA\n\\\u00b5\u0000";
    private static final List<String> LINES = List.of(
            "12,34,56\n",
            "t=10 a=1.5 b=2\n",
            "{\"a\":1,\"b\":2.5}\n",
            "Temp: 21.5 C, Hum: 40 %\n",
            "$A,1,2*13\n",
            "1;2,5;3\n");
    private static final String RIG = rig();
    private static final List<String> RECIPES = List.of(
            "bandpass:0.5..8@2", "notch:50", "median:5", "spikes:7@4", "comb:50", "wavelet:4@3", "baseline:0.5");
    private static final List<String> FORMULAS =
            List.of("x * 3.3 / 4095", "sqrt(x) + a^2", "min(x, a) - log(x)", "(x - 1) / -2");
    private static final List<String> ADDRESSES =
            List.of("serial:/dev/x@9600,7E1", "tcp:*@127.0.0.1:80", "udp:90", "sim:deck+hum#3");
    private static final double[] STAMPS = {
        Double.NaN, Double.POSITIVE_INFINITY, Double.NEGATIVE_INFINITY, -1, 0, 1e300, 4_294_967_295.0, 0.5, -1e18
    };

    private Fuzz() {}

    private static String rig() {
        try {
            return RigJson.write(Rig.blank("fuzz", "sim:deck")
                    .withChannels(List.of(new Channel(
                                    "heel", "heel", Scaling.asItCame("deg"), Recipe.parse("mean:3 | lowpass:5@2"), true)
                            .withLimits(new Limits(-30, 30))))
                    .withReaders(
                            List.of(new ReaderSetup("pulse", List.of("heel"), Map.of("kind", "optical"))), List.of()));
        } catch (TakeException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Runs so many cases from a seed on. @return what went wrong, in words; at most twenty of them */
    public static List<String> run(long first, long cases) {
        List<String> wrong = new ArrayList<>();
        for (long seed = first; seed < first + cases && wrong.size() < 20; seed++) {
            String why;
            try {
                why = one(new SplittableRandom(seed));
            } catch (IllegalArgumentException | TakeException e) {
                why = e.getMessage() == null || e.getMessage().isBlank() ? "refused without a word: " + e : "";
            } catch (Throwable e) {
                why = e.toString();
            }
            if (!why.isEmpty()) {
                wrong.add(seed + ": " + why);
            }
        }
        return wrong;
    }

    public static void main(String[] arguments) {
        long cases = Long.parseLong(arguments[0]);
        List<String> wrong = run(1, cases);
        wrong.forEach(System.out::println);
        System.out.println(cases + " spoilt rigs, recipes, formulas, addresses, settings, lines and stamps: "
                + wrong.size() + " wrong");
        System.exit(wrong.isEmpty() ? 0 : 1);
    }

    private static String one(SplittableRandom random) throws TakeException {
        switch (random.nextInt(8)) {
            case 0:
                RigJson.read(spoilt(RIG, random), "fuzz.json");
                return "";
            case 1:
                Recipe recipe = Recipe.parse(spoilt(any(RECIPES, random), random));
                double[] signal = random.doubles(80).toArray();
                recipe.onceThrough(signal, 100);
                return recipe.text().isEmpty() && !recipe.steps().isEmpty() ? "a recipe without a text" : "";
            case 2:
                new Formula(spoilt(any(FORMULAS, random), random), Map.of(), "V", List.of("a"));
                return "";
            case 3:
                LinkAddress address = LinkAddress.parse(spoilt(any(ADDRESSES, random), random));
                return LinkAddress.parse(address.text()).equals(address)
                        ? ""
                        : "reads back as another: " + address.text();
            case 4:
                return settings(random);
            case 5, 6:
                return stamps(random);
            default:
                return lines(random);
        }
    }

    private static <T> T any(List<T> of, SplittableRandom random) {
        return of.get(random.nextInt(of.size()));
    }

    private static String spoilt(String text, SplittableRandom random) {
        StringBuilder spoilt = new StringBuilder(text);
        for (int hits = 1 + random.nextInt(3); hits > 0; hits--) {
            int at = random.nextInt(spoilt.length() + 1);
            char sign = SIGNS.charAt(random.nextInt(SIGNS.length()));
            switch (random.nextInt(4)) {
                case 0 -> spoilt.insert(at, sign);
                case 1 -> spoilt.delete(at, Math.min(spoilt.length(), at + 1 + random.nextInt(4)));
                case 2 -> spoilt.insert(at, spoilt.substring(at, Math.min(spoilt.length(), at + random.nextInt(20))));
                default -> {
                    if (at < spoilt.length()) {
                        spoilt.setCharAt(at, sign);
                    }
                }
            }
        }
        return spoilt.toString();
    }

    private static String settings(SplittableRandom random) {
        ReaderKind kind = any(ReaderKinds.all(), random);
        Map<String, String> said = new TreeMap<>();
        for (Setting setting : kind.settings()) {
            if (random.nextInt(3) == 0) {
                said.put(setting.key(), spoilt(setting.usual(), random));
            }
        }
        kind.reader(Settings.of(kind, said), 10 + 2000 * random.nextDouble());
        return "";
    }

    private static String stamps(SplittableRandom random) {
        BoardClock clock = new BoardClock(
                0, random.nextBoolean() ? 1000 : 1e6, random.nextInt(3) == 0 ? 0 : BoardClock.WRAP_32_BIT);
        Timestamper keeper = new Timestamper(clock, Double.NaN, 100);
        double at = random.nextInt(1_000_000);
        double before = Double.NEGATIVE_INFINITY;
        int sent = 0;
        int dated = 0;
        for (int piece = 0; piece < 6; piece++) {
            double[] ticks = new double[1 + random.nextInt(60)];
            for (int i = 0; i < ticks.length; i++) {
                at += clock.ticksPerSecond() / 100 * (random.nextInt(200) == 0 ? 50 : 1);
                ticks[i] = random.nextInt(25) == 0 ? STAMPS[random.nextInt(STAMPS.length)] : Math.floor(at);
            }
            sent += ticks.length;
            Block block = keeper.date(new Rows(new double[][] {ticks}, ticks.length), piece * 0.6, 0);
            for (int half = 0; half < 2; half++) {
                for (int row = 0; row < block.rows(); row++) {
                    double now = block.time().secondsAt(row);
                    if (!(now >= before) || Double.isInfinite(now)) {
                        return "time goes from " + before + " to " + now;
                    }
                    before = now;
                }
                dated += block.rows();
                block = half == 0 && piece == 5 && keeper.holds() ? keeper.rest() : block.head(0);
            }
        }
        return dated == sent ? "" : sent + " rows, " + dated + " dated";
    }

    private static String lines(SplittableRandom random) {
        StringBuilder text = new StringBuilder();
        String line = any(LINES, random);
        for (int i = 0; i < 30; i++) {
            text.append(random.nextInt(10) == 0 ? spoilt(line, random) : line);
        }
        byte[] bytes = text.toString().getBytes(StandardCharsets.UTF_8);
        for (Recogniser.Proposal one : Recogniser.recognise(bytes, bytes.length)) {
            StreamDecoder decoder = one.format().decoder(new RejectedLines(5));
            decoder.feed(bytes, 0, bytes.length);
            long all = decoder.takeRows().count() + decoder.rejectedLines().count();
            if (all > decoder.lines() + 1) {
                return all + " rows and rejects of " + decoder.lines() + " lines: "
                        + one.format().words();
            }
        }
        return "";
    }
}
