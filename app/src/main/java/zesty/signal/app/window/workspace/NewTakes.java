package zesty.signal.app.window.workspace;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.exchange.foreign.ForeignFile;
import zesty.signal.exchange.foreign.TakeImport;
import zesty.signal.takes.Shelf;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;
import zesty.signal.takes.TakeJoin;
import zesty.signal.takes.TakeTrim;

/** Takes that are made of other takes or of files from elsewhere, which stay as they are. JavaFX thread only. */
public final class NewTakes {
    private final Workspace workspace;
    private final Shelf shelf;

    NewTakes(Workspace workspace, Shelf shelf) {
        this.workspace = workspace;
        this.shelf = shelf;
    }

    /** Makes a take of its own of a part of another; that one stays as it is. */
    void trim(Path file, Span span) {
        Path out = shelf.freshFile(LocalDateTime.now(ZoneId.systemDefault()));
        workspace
                .tasks()
                .fetch(
                        Messages.of("workspace.the-part-could-not-be-cut-out"),
                        () -> {
                            try (Take take = Take.open(file)) {
                                return TakeTrim.write(take, span.from(), span.to(), out);
                            }
                        },
                        rows -> {
                            workspace.say(Messages.of("workspace.cut-out-rows-a-take-of-their-own", rows));
                            workspace.takes().list();
                        });
    }

    /** Makes one take of several of the same columns; they stay as they are. */
    public void join(List<Path> files) {
        Path out = shelf.freshFile(LocalDateTime.now(ZoneId.systemDefault()));
        workspace
                .tasks()
                .fetch(Messages.of("workspace.the-takes-could-not-be-joined"), () -> joined(files, out), rows -> {
                    workspace.say(Messages.of("workspace.joined-rows-a-take-of-their-own", rows));
                    workspace.takes().list();
                });
    }

    private static long joined(List<Path> files, Path out) throws TakeException {
        List<Take> open = new ArrayList<>();
        try {
            for (Path file : files) {
                open.add(Take.open(file));
            }
            return TakeJoin.write(open, out);
        } finally {
            for (Take one : open) {
                one.close();
            }
        }
    }

    /** Makes two takes of one, which stays as it is. @param at where, in s from its first sample */
    public void split(Path file, double at) {
        Path first = shelf.freshFile(LocalDateTime.now(ZoneId.systemDefault()));
        workspace
                .tasks()
                .fetch(
                        Messages.of("workspace.the-take-could-not-be-split"),
                        () -> {
                            try (Take take = Take.open(file)) {
                                if (!(at > 0 && at < take.seconds())) {
                                    throw new TakeException(Messages.of(
                                            "workspace.the-take-has-0-to-s-split-it", Digits.fixed(take.seconds(), 3)));
                                }
                                long rows = TakeTrim.write(take, 0, Math.nextDown(at), first);
                                Path second = shelf.freshFile(LocalDateTime.now(ZoneId.systemDefault()));
                                try {
                                    return rows + TakeTrim.write(take, at, take.seconds(), second);
                                } catch (TakeException e) {
                                    // Half of it is no split.
                                    Files.deleteIfExists(first);
                                    throw e;
                                }
                            }
                        },
                        rows -> {
                            workspace.say(Messages.of("workspace.split-two-takes-with-rows-together", rows));
                            workspace.takes().list();
                        });
    }

    /** Makes a take of a file from elsewhere and puts it on the shelf. @param rateHz NaN to go by the file's own times */
    public void importFile(ForeignFile view, Path from, double rateHz, Runnable done) {
        String name = String.valueOf(from.getFileName()).replaceFirst("\\.[^.]*$", "");
        workspace
                .tasks()
                .atLength(
                        "Importing " + from.getFileName(),
                        Messages.of("workspace.the-file-could-not-be-imported"),
                        goOn -> {
                            Files.createDirectories(shelf.folder());
                            Path out = shelf.freshFile(LocalDateTime.now(ZoneId.systemDefault()));
                            Instant started = view.started()
                                    .orElse(Files.getLastModifiedTime(from).toInstant());
                            try (view) {
                                return TakeImport.write(view, out, name, from.toString(), started, rateHz, goOn);
                            } catch (CancellationException e) {
                                return -1L;
                            }
                        },
                        rows -> {
                            if (rows < 0) {
                                workspace.say(Messages.of("workspace.import-given-up-nothing-was"));
                                return;
                            }
                            workspace.say(Messages.of(
                                    "workspace.imported",
                                    name,
                                    rows,
                                    (rows == 1 ? Messages.of("workspace.row") : Messages.of("workspace.rows"))));
                            workspace.takes().list();
                            done.run();
                        });
    }
}
