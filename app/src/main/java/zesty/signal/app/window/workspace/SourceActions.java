package zesty.signal.app.window.workspace;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.link.SerialPorts;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.decode.Role;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ByteTail;
import zesty.signal.engine.LineEnding;
import zesty.signal.engine.SentLine;
import zesty.signal.engine.SpeedFinder;
import zesty.signal.engine.Trail;
import zesty.signal.takes.FormatJson;

/** What can be done with the bytes of the live source: looking, sending, reading them otherwise. JavaFX thread only. */
public final class SourceActions {
    private static final double LISTEN_SECONDS = 0.7;
    private static final ByteTail.Newest NOTHING = new ByteTail.Newest(new byte[0], 0, new long[0], new long[0]);

    private final Workspace workspace;
    private final Supplier<Trail> trail;

    SourceActions(Workspace workspace, Supplier<Trail> trail) {
        this.workspace = workspace;
        this.trail = trail;
    }

    /** @return how many bytes have come from the source in hand; 0 where none runs */
    public long byteCount() {
        Trail running = trail.get();
        return running == null ? 0 : running.bytes(source()).count();
    }

    /** @return the bytes that came since there were so many; null where they are more than are kept */
    public byte[] since(long count) {
        Trail running = trail.get();
        if (running == null) {
            return new byte[0];
        }
        long length = running.bytes(source()).count() - count;
        ByteTail.Newest newest = running.bytes(source()).newest((int) Math.min(Integer.MAX_VALUE, Math.max(0, length)));
        return newest.bytes().length < length ? null : newest.bytes();
    }

    /** @return where in the rig the source in hand is: the one that looking, sending and reading otherwise are meant for */
    public int source() {
        return Math.min(
                workspace.live().sourceInHand().get(),
                workspace.shown().rig().sources().size() - 1);
    }

    /** @return the setup of the source in hand */
    public SourceSetup setup() {
        return workspace.shown().rig().sources().get(source()).setup();
    }

    /** @return the format of the source in hand; null while it is not known */
    public StreamFormat format() {
        return workspace.shown().rig().sources().get(source()).format();
    }

    /** @return the newest bytes of the source in hand; empty when there is none */
    public ByteTail.Newest newest(int most) {
        Trail running = trail.get();
        return running == null ? NOTHING : running.bytes(source()).newest(most);
    }

    /** @return the bytes from which the format was recognised; empty when there are none */
    public byte[] sample() {
        Trail running = trail.get();
        return running == null ? new byte[0] : running.sample(source());
    }

    /** @return what the recogniser made of them, best first */
    public List<Recogniser.Proposal> proposals() {
        Trail running = trail.get();
        return running == null ? List.of() : running.proposals(source());
    }

    /** Sends a line to the board. */
    public void send(String line, LineEnding ending) {
        Trail running = trail.get();
        if (running == null) {
            workspace.trouble(Messages.of("workspace.nothing-to-send-to-connect-a"));
            return;
        }
        int to = source();
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-line-could-not-be-sent"),
                        () -> running.send(to, line, ending, System.nanoTime()),
                        () -> {});
    }

    /** @return what was sent lately, oldest first */
    public List<SentLine> sent() {
        Trail running = trail.get();
        return running == null ? List.of() : running.sent(source());
    }

    /** Keeps a line as a button of the rig, or takes its button away. */
    public void keepOrder(String line, boolean kept) {
        List<String> orders = new ArrayList<>(setup().orders());
        orders.remove(line);
        if (kept) {
            orders.add(line);
        }
        changeLink(link -> link.withOrders(orders));
    }

    /** Changes how long the board warms up, in s. Counts from the next time the link opens. */
    public void warmUp(double seconds) {
        changeLink(link -> link.withWarmUp(seconds));
    }

    /**
     * Changes the rate that the board's program states. Counts from the next time the link opens.
     *
     * @param hz NaN when it is not known
     * @throws IllegalArgumentException when it is not above 0
     */
    public void statedRate(double hz) {
        SourceSetup changed = setup().withStatedRate(hz);
        changeLink(link -> link.withStatedRate(changed.statedRateHz()));
    }

    private void changeLink(UnaryOperator<SourceSetup> change) {
        int of = source();
        workspace.change(rig -> rig.withSource(of, source -> source.withSetup(change.apply(source.setup()))));
    }

    /** Lines like this one need not be set aside any more. */
    public void passOver(String line) {
        String shape = RejectedLines.shapeOf(line);
        List<String> shapes = new ArrayList<>(setup().passOver());
        if (!shapes.contains(shape)) {
            shapes.add(shape);
            changeLink(link -> link.withPassOver(shapes));
            workspace.say(Messages.of("workspace.lines-like-are-passed-over-from", line.strip()));
        }
    }

    /** @return the format that understands the bytes at hand and these lines as well; null when there is none */
    public StreamFormat taught(String lines) {
        byte[] known = sample();
        byte[] more = lines.getBytes(StandardCharsets.UTF_8);
        byte[] all = java.util.Arrays.copyOf(known, known.length + more.length);
        System.arraycopy(more, 0, all, known.length, more.length);
        Recogniser.Proposal best = null;
        for (Recogniser.Proposal proposal : Recogniser.recognise(all, all.length)) {
            Recogniser.Proposal own = Recogniser.propose(proposal.format(), more, more.length);
            if (own.rows() > 0 && (best == null || proposal.confidence() > best.confidence())) {
                best = proposal;
            }
        }
        if (best != null) {
            return best.format();
        }
        List<Recogniser.Proposal> alone = Recogniser.recognise(more, more.length);
        return alone.isEmpty() ? null : alone.get(0).format();
    }

    /** Reads the stream with another format; channels go with their columns. {@link Workspace#undo()} takes it back. */
    public void reformat(StreamFormat format) {
        if (!workspace.shown().isLive()) {
            workspace.trouble(Messages.of("workspace.a-stored-take-keeps-the-format-it"));
            return;
        }
        if (workspace.live().snapshot(System.nanoTime()).recording().running()) {
            workspace.trouble(Messages.of("workspace.a-recording-is-running-with-this-2"));
            return;
        }
        int of = source();
        workspace.change(rig -> carriedOver(rig, of, format));
    }

    /** A renamed column takes its channel along, where the columns are as many as before. */
    private static Rig carriedOver(Rig rig, int of, StreamFormat format) {
        Source source = rig.sources().get(of);
        StreamFormat before = source.format();
        Rig reformatted = rig.withSource(of, one -> one.withFormat(format));
        boolean alike =
                before != null && before.columns().size() == format.columns().size();
        if (!alike || before.indexOf(Role.STATION) >= 0) {
            return reformatted;
        }
        Rig moved = reformatted;
        // By way of names that nobody has, so that two columns may change places.
        for (int i = 0; i < before.columns().size(); i++) {
            moved = moved.renamed(source.prefix() + before.columns().get(i).name(), passing(i), passing(i));
        }
        for (int i = 0; i < before.columns().size(); i++) {
            Column was = before.columns().get(i);
            Column is = format.columns().get(i);
            String called = rig.channels().stream()
                    .filter(c -> c.column().equals(source.prefix() + was.name()))
                    .map(Channel::name)
                    .findFirst()
                    .orElse(was.name());
            String column = source.prefix() + is.name();
            moved = moved.renamed(passing(i), column, called.equals(was.name()) ? is.name() : called);
            moved = moved.withChannel(
                    column,
                    c -> c.scaling().isAsItCame() && c.scaling().unit().equals(was.unit())
                            ? c.withScaling(Scaling.asItCame(is.unit()))
                            : c);
        }
        return moved;
    }

    private static String passing(int index) {
        return "\u0001" + index;
    }

    /** Writes the format in force to a file to share. */
    public void saveFormat(Path file) {
        StreamFormat format = format();
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-format-could-not-be-saved"),
                        () -> Settings.writeWhole(file, FormatJson.write(format)),
                        () -> workspace.say(Messages.of("workspace.format-saved-as", file)));
    }

    /** Reads a shared format from a file, and the stream with it. */
    public void loadFormat(Path file) {
        workspace
                .tasks()
                .fetch(
                        Messages.of("workspace.the-format-could-not-be-read"),
                        () -> FormatJson.read(
                                Files.readString(file), file.getFileName().toString()),
                        this::reformat);
    }

    /** Writes bytes to a file. */
    public void save(Path file, byte[] bytes) {
        workspace
                .tasks()
                .later(
                        Messages.of("workspace.the-bytes-could-not-be-saved"),
                        () -> Settings.writeWhole(file, bytes),
                        () -> workspace.say(Messages.of("workspace.saved-bytes-as", bytes.length, file)));
    }

    /** Tries the usual speeds on a port, with progress and {@link BackgroundTasks#cancel()}. The port must be free. */
    public void findSpeed(LinkAddress.Serial port, Consumer<List<SpeedFinder.Trial>> after) {
        workspace
                .tasks()
                .atLength(
                        Messages.of("workspace.trying-the-usual-speeds-on", port.path()),
                        Messages.of("workspace.the-speeds-could-not-be-tried"),
                        goOn -> SpeedFinder.rank(
                                SpeedFinder.port(port), SerialPorts.USUAL_SPEEDS, LISTEN_SECONDS, goOn),
                        after);
    }
}
