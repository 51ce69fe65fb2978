package zesty.signal.app.command;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import zesty.signal.app.show.Publisher;
import zesty.signal.app.show.ShowServer;
import zesty.signal.app.show.Where;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;
import zesty.signal.engine.ActSnapshot;
import zesty.signal.engine.FromStart;
import zesty.signal.engine.LinkHealth;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.RecordingCue;
import zesty.signal.engine.RecordingLimit;
import zesty.signal.engine.RecordingPlan;
import zesty.signal.engine.RecordingSnapshot;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.Trail;
import zesty.signal.takes.DiskWords;
import zesty.signal.takes.RigJson;
import zesty.signal.takes.TakeException;

/** Longer than others: every way in which a recording is asked for without a window, with what each refuses. */
@Command(name = "record", description = "Records a source without a window.")
final class RecordCommand implements Callable<Integer> {
    private static final long LOOK_MS = 20;
    private static final long SETTLE_MS = 3000;
    private static final double HINT_SECONDS = 5;

    private final long startNanos = System.nanoTime();
    private final AtomicBoolean summed = new AtomicBoolean();
    private volatile boolean toldToEnd;
    private String toldWaiting = "";
    private int told;
    private final Set<String> toldRules = new HashSet<>();
    private double nextHintSeconds = HINT_SECONDS;

    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "SOURCE")
    private String source;

    @Option(names = "--out", paramLabel = "FILE.zest", required = true)
    private Path out;

    @Option(names = "--for", paramLabel = "DURATION")
    private String duration;

    @Option(names = "--samples", paramLabel = "N")
    private String samples;

    @Option(names = "--rig", paramLabel = "RIG.json")
    private Path rigFile;

    @Option(names = "--start-when", paramLabel = "COLUMN > X", description = "waits for it (also <, >=, <=)")
    private String startWhen;

    @Option(names = "--before", paramLabel = "DURATION", description = "keeps what came just before, 60 s at most")
    private String before;

    @Option(names = "--stop-when", paramLabel = "COLUMN < X", description = "ends it")
    private String stopWhen;

    @Option(names = "--repeat", description = "goes on with OUT-2.zest, OUT-3.zest, … each time the start comes again")
    private boolean repeat;

    @Option(names = "--at", paramLabel = "HH:MM[:SS]", description = "waits for the clock")
    private String at;

    @Option(
            names = "--show",
            arity = "0..1",
            fallbackValue = "here",
            paramLabel = "here|network",
            description = "a page with the numbers, for a browser on this computer or for a phone in its network")
    private String show;

    @Option(names = "--show-markers", description = "viewers of the page may send markers")
    private boolean showMarkers;

    @Option(names = "--publish", paramLabel = "mqtt://HOST/PREFIX", description = "readings and decisions to a broker")
    private String publish;

    @Option(names = "--publish-what", paramLabel = "NAME", split = ",", description = "channels and rules to publish")
    private List<String> publishWhat = new ArrayList<>();

    @Option(names = "--publish-every", paramLabel = "DURATION", defaultValue = "1s", description = "how often (1s)")
    private String publishEvery;

    @Override
    public Integer call() throws TakeException, InterruptedException {
        Where where = where();
        if (publish == null && !publishWhat.isEmpty()) {
            throw new Refusal("--publish-what needs --publish: there is no broker to send it to");
        }
        LinkAddress address = address(source);
        RecordingPlan plan = plan(limit());
        Rig rig = rig().withSource(address.text());
        for (Source other : rig.sources()) {
            address(other.setup().address());
        }
        if (rig.channels().stream().anyMatch(rig::waits)) {
            throw new Refusal(rigFile + " has a sensor on a body. " + Caution.BODY.words()
                    + " Once you have read this, write \"acknowledged\": [\"body\"] into it");
        }
        if (!out.getFileName().toString().endsWith(".zest")) {
            throw new Refusal("--out " + out + " must end in .zest");
        }
        Inputs.writable(out);
        if (Files.exists(out)) {
            throw new Refusal(out + " is there already; choose another name");
        }
        FromStart order = new FromStart(
                out,
                title(),
                plan,
                Instant.now(),
                !byReading(plan) && rig.act().isNone() && where == null && publish == null && !ofTopics(address));
        Trail trail = Trail.startRecording(rig, address, address.link(), order);
        Thread whole = new Thread(() -> stopped(trail), "closing");
        Runtime.getRuntime().addShutdownHook(whole);
        tellOfListening(rig);
        ShowServer page = null;
        Publisher publisher = null;
        try {
            publisher = publish == null ? null : publisher(trail);
            page = where == null ? null : page(where, trail);
            return watch(trail);
        } finally {
            if (page != null) {
                page.close();
            }
            if (publisher != null) {
                publisher.close();
                tellOfPublishing(publisher);
            }
            trail.close();
            unhook(whole);
        }
    }

    /** What is listened on is said before anybody can call. */
    private void tellOfListening(Rig rig) {
        for (Source one : rig.sources()) {
            LinkAddress at = address(one.setup().address());
            if (at instanceof LinkAddress.Udp || at instanceof LinkAddress.Tcp tcp && tcp.listens()) {
                hint("waiting for " + at.words());
            }
        }
    }

    /** Once a while, for as long as nothing is recorded: what comes instead. */
    private void tellOfWaiting(Snapshot snapshot) {
        double waited = (System.nanoTime() - startNanos) * 1e-9;
        if (waited < nextHintSeconds) {
            return;
        }
        nextHintSeconds = 4 * nextHintSeconds;
        for (int i = 0; i < snapshot.links().size(); i++) {
            LinkHealth link = snapshot.links().get(i);
            String at =
                    address(snapshot.rig().sources().get(i).setup().address()).words();
            String why = link.reason().isEmpty() ? "no data" : link.reason();
            if (link.rows() == 0) {
                hint(String.format(Locale.ROOT, "still waiting after %.0f s: %s: %s", waited, at, why));
            }
        }
    }

    private boolean listens(Snapshot snapshot, int source) {
        return address(snapshot.rig().sources().get(source).setup().address()) instanceof LinkAddress.Tcp tcp
                && tcp.listens();
    }

    private void hint(String words) {
        spec.commandLine().getErr().println("zesty: " + words);
        spec.commandLine().getErr().flush();
    }

    /** The process is told to end: what was recorded is made whole, and the summary is printed as at any end. */
    private void stopped(Trail trail) {
        toldToEnd = true;
        trail.close();
        RecordingSnapshot last = trail.stopRecording();
        if (last.file() != null && last.problem().isEmpty()) {
            summary(last, trail.snapshot(System.nanoTime()));
        }
    }

    private static void unhook(Thread whole) {
        try {
            Runtime.getRuntime().removeShutdownHook(whole);
        } catch (IllegalStateException e) {
            // The process is ending already, and the hook does its work.
        }
    }

    private static LinkAddress address(String source) {
        try {
            LinkAddress address = LinkAddress.parse(source);
            if (address instanceof LinkAddress.File file && !Files.isRegularFile(file.path())) {
                throw new Refusal("file " + file.path() + DiskWords.absent(file.path())
                        + (Files.exists(file.path()) ? "; a pipe is read as stdin" : ""));
            }
            return address;
        } catch (IllegalArgumentException e) {
            throw new Refusal(e.getMessage());
        }
    }

    private RecordingLimit limit() {
        if (duration != null && samples != null) {
            throw new Refusal("--for and --samples exclude each other; give one");
        }
        if (samples != null) {
            double count = Inputs.number("--samples", samples);
            if (count < 1 || count != Math.rint(count)) {
                throw new Refusal("--samples must be a whole number from 1 on, was " + samples);
            }
            return RecordingLimit.ofSamples((long) count);
        }
        return duration == null ? RecordingLimit.NONE : RecordingLimit.ofSeconds(Inputs.duration(duration));
    }

    /** A reader's number must be read to begin or end by it. */
    private static boolean byReading(RecordingPlan plan) {
        return plan.start() != null && plan.start().maybeReading()
                || plan.stop() != null && plan.stop().maybeReading();
    }

    private RecordingPlan plan(RecordingLimit limit) {
        if (repeat && startWhen == null) {
            throw new Refusal("--repeat needs --start-when: it waits for that again");
        }
        if (before != null && startWhen == null && at == null) {
            throw new Refusal("--before needs --start-when or --at: it keeps what came before that");
        }
        double kept = before == null ? 0 : Inputs.duration(before);
        if (kept > RecordingPlan.MOST_BEFORE_SECONDS) {
            throw new Refusal("--before keeps 60 s at most, was " + before);
        }
        try {
            return new RecordingPlan(
                    limit,
                    at == null ? null : moment(at),
                    startWhen == null ? null : RecordingCue.parse(startWhen),
                    kept,
                    stopWhen == null ? null : RecordingCue.parse(stopWhen),
                    repeat);
        } catch (IllegalArgumentException e) {
            throw new Refusal(e.getMessage());
        }
    }

    private static Instant moment(String clock) {
        try {
            return RecordingPlan.nextTime(clock);
        } catch (IllegalArgumentException e) {
            throw new Refusal("--at is " + e.getMessage());
        }
    }

    /** Of many topics the take is to know which is which, and that is found out where channels are made. */
    private static boolean ofTopics(LinkAddress address) {
        return address instanceof LinkAddress.Broker broker && broker.many();
    }

    private Where where() {
        if (show == null) {
            if (showMarkers) {
                throw new Refusal("--show-markers needs --show: there is no page to send them from");
            }
            return null;
        }
        return switch (show) {
            case "here" -> Where.HERE;
            case "network" -> Where.NETWORK;
            default -> throw new Refusal("--show is here or network, was '" + show + "'");
        };
    }

    private Publisher publisher(Trail trail) {
        try {
            return new Publisher(
                    publish,
                    Set.copyOf(publishWhat),
                    Inputs.duration(publishEvery),
                    () -> trail.snapshot(System.nanoTime()));
        } catch (IllegalArgumentException e) {
            throw new Refusal("--publish: " + e.getMessage());
        }
    }

    private void tellOfPublishing(Publisher publisher) {
        hint(publisher.sent() + " messages published"
                + (publisher.trouble().isEmpty() ? "" : "; the last was not: " + publisher.trouble()));
    }

    private ShowServer page(Where where, Trail trail) throws TakeException {
        try {
            ShowServer page = new ShowServer(
                    where, 0, () -> trail.snapshot(System.nanoTime()), text -> trail.mark(text, System.nanoTime()));
            page.takeMarkers(showMarkers);
            if (where == Where.NETWORK) {
                hint("whoever in this network has the address sees the numbers");
            }
            hint("page: " + page.address());
            return page;
        } catch (IOException e) {
            throw new TakeException("the page cannot be shown: " + e.getMessage(), e);
        }
    }

    private Rig rig() {
        if (rigFile == null) {
            return Rig.blank("recorded without a window", source);
        }
        try {
            return RigJson.read(Files.readString(rigFile), rigFile.toString());
        } catch (IOException e) {
            throw new Refusal(e instanceof TakeException ? e.getMessage() : rigFile + " cannot be read");
        }
    }

    private String title() {
        String name = out.getFileName().toString();
        return name.substring(0, name.length() - ".zest".length());
    }

    private int watch(Trail trail) throws InterruptedException, TakeException {
        boolean began = false;
        while (true) {
            Snapshot snapshot = trail.snapshot(System.nanoTime());
            RecordingSnapshot recording = snapshot.recording();
            if (!recording.problem().isEmpty()) {
                trail.stopRecording().made().forEach(this::tell);
                if (recording.problem().startsWith("the source has no column")) {
                    throw new Refusal(source + ": " + recording.problem());
                }
                throw new TakeException(recording.problem());
            }
            tellMade(recording);
            tellOfRules(snapshot);
            // Of what a board had at hand a short recording may be over before anybody looked.
            began |= recording.running() || recording.file() != null;
            if (began && !recording.running()) {
                return say(trail.stopRecording(), settled(trail));
            }
            LinkHealth ended = ended(snapshot);
            if (ended != null) {
                RecordingSnapshot last = trail.stopRecording();
                if (last.file() == null && began) {
                    throw new TakeException(source + " ended before " + startWords() + " came; nothing was recorded");
                }
                if (last.file() == null) {
                    if (ended.state() == LinkState.OVER) {
                        throw new Refusal(source + ": " + ended.reason());
                    }
                    throw new TakeException(ended.reason());
                }
                if (ended.state() == LinkState.REFUSED) {
                    throw new TakeException(ended.reason() + "; " + last.rows() + " rows are in " + out);
                }
                return say(last, settled(trail));
            }
            for (int i = 0; i < snapshot.links().size(); i++) {
                LinkHealth link = snapshot.links().get(i);
                if (link.state() == LinkState.LOST && link.bytes() == 0 && !listens(snapshot, i)) {
                    throw new TakeException(link.reason());
                }
            }
            if (!began) {
                tellOfWaiting(snapshot);
            }
            Thread.sleep(LOOK_MS);
        }
    }

    /** What is written of rules and outputs and does not come about is said, once each. */
    private void tellOfRules(Snapshot snapshot) {
        if (snapshot.channels().isEmpty()) {
            return;
        }
        for (ActSnapshot.RuleNow rule : snapshot.act().rules()) {
            if (!rule.found() && toldRules.add(rule.rule().name())) {
                hint("rule '" + rule.rule().name()
                        + "' decides nothing yet: no channel of that name has come; there are "
                        + snapshot.channels().stream()
                                .map(one -> one.channel().column())
                                .collect(Collectors.joining(", ")));
            }
        }
        for (ActSnapshot.OutputNow output : snapshot.act().outputs()) {
            boolean yet = output.trouble().endsWith("yet");
            if (!output.trouble().isEmpty()
                    && !yet
                    && toldRules.add(output.output().name() + output.trouble())) {
                hint("output '" + output.output().name() + "': " + output.trouble());
            }
        }
    }

    private String startWords() {
        return startWhen != null ? startWhen : at;
    }

    /** Of a recording on cue, each take once it is whole. */
    private void tellMade(RecordingSnapshot recording) {
        if (!recording.waitsFor().isEmpty() && !recording.waitsFor().equals(toldWaiting)) {
            hint("waiting for " + startWords());
            toldWaiting = recording.waitsFor();
        }
        for (; repeat && told < recording.made().size(); told++) {
            tell(recording.made().get(told));
        }
    }

    private void tell(RecordingSnapshot.Made made) {
        spec.commandLine()
                .getOut()
                .println(String.format(Locale.ROOT, "%s: %d rows, %.3f s", made.file(), made.rows(), made.seconds()));
        spec.commandLine().getOut().flush();
    }

    /** @return the link for which there is no use in waiting on: the only one left, or one that will never begin */
    private static LinkHealth ended(Snapshot snapshot) {
        List<LinkHealth> over = snapshot.links().stream()
                .filter(link -> link.state() == LinkState.OVER || link.state() == LinkState.REFUSED)
                .toList();
        Optional<LinkHealth> hopeless =
                over.stream().filter(link -> link.rows() == 0).findFirst();
        return hopeless.orElse(over.size() == snapshot.links().size() ? over.get(0) : null);
    }

    /** Once. Whoever comes second waits for the first: when told to end, the process is gone as soon as its hook has nothing left to do. */
    private synchronized void summary(RecordingSnapshot recording, Snapshot snapshot) {
        if (summed.getAndSet(true)) {
            return;
        }
        tellMade(recording);
        long stamps =
                snapshot.links().stream().mapToLong(LinkHealth::wrongStamps).sum();
        int callers = snapshot.links().stream().mapToInt(LinkHealth::turnedAway).sum();
        int old = snapshot.links().stream().mapToInt(LinkHealth::old).sum();
        long late = snapshot.links().stream().mapToLong(LinkHealth::lateRows).sum();
        long again =
                snapshot.links().stream().mapToLong(LinkHealth::repeatedRows).sum();
        String more = (stamps == 0 ? "" : ", " + stamps + (stamps == 1 ? " time stamp" : " time stamps") + " rejected")
                + (late == 0 ? "" : ", " + late + (late == 1 ? " row" : " rows") + " received late")
                + (again == 0 ? "" : ", " + again + (again == 1 ? " row" : " rows") + " received twice")
                + (callers == 0 ? "" : ", " + callers + (callers == 1 ? " caller" : " callers") + " turned away")
                + (old == 0
                        ? ""
                        : ", " + old + (old == 1 ? " old message" : " old messages") + " of the broker left out");
        spec.commandLine()
                .getOut()
                .println(String.format(
                        Locale.ROOT,
                        "%s: %d rows, %.3f s, %d rejected, %d lost%s",
                        repeat ? recording.made().size() + " takes" : out,
                        repeat
                                ? recording.made().stream()
                                        .mapToLong(RecordingSnapshot.Made::rows)
                                        .sum()
                                : recording.rows(),
                        repeat
                                ? recording.made().stream()
                                        .mapToDouble(RecordingSnapshot.Made::seconds)
                                        .sum()
                                : recording.seconds(),
                        snapshot.links().stream()
                                .mapToLong(LinkHealth::rejectedLines)
                                .sum(),
                        snapshot.links().stream()
                                        .mapToLong(LinkHealth::lostRows)
                                        .sum()
                                + recording.lostRows(),
                        more));
        spec.commandLine().getOut().flush();
    }

    /** A board that had much at hand fills a short recording before anybody could look at its channels. */
    private static Snapshot settled(Trail trail) throws InterruptedException {
        Snapshot snapshot = trail.snapshot(System.nanoTime());
        for (long waited = 0; waited < SETTLE_MS && !settled(snapshot); waited += LOOK_MS) {
            Thread.sleep(LOOK_MS);
            snapshot = trail.snapshot(System.nanoTime());
        }
        return snapshot;
    }

    private static boolean settled(Snapshot snapshot) {
        return snapshot.act().rules().isEmpty() || !snapshot.channels().isEmpty();
    }

    private int say(RecordingSnapshot recording, Snapshot snapshot) throws TakeException {
        if (!recording.problem().isEmpty()) {
            throw new TakeException(recording.problem());
        }
        tellOfRules(snapshot);
        summary(recording, snapshot);
        double wanted = duration == null ? 0 : Inputs.duration(duration);
        boolean ended = snapshot.links().stream().allMatch(link -> link.state() == LinkState.OVER);
        if (!repeat && recording.seconds() < wanted - 1 && !ended && !toldToEnd) {
            hint(String.format(
                    Locale.ROOT,
                    "the board was silent at the end: its last row was received %.1f s before",
                    wanted - recording.seconds()));
        }
        for (LinkHealth link : snapshot.links()) {
            if (link.reason().startsWith(LinkHealth.CHANGED)) {
                hint(link.reason().split("; it has ended")[0] + "; the take keeps the columns it began with");
            }
            if (link.reason().contains(LinkHealth.ASSUMED)) {
                hint(link.reason() + "; state the rate in a rig (--rig) if it is another");
            }
        }
        return Commands.DONE;
    }
}
