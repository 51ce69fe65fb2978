package zesty.signal.app.window.workspace;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.DoublePredicate;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleDoubleProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import javafx.util.Duration;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.DiskWords;
import zesty.signal.takes.TakeException;

/**
 * Work beside the window's thread: what is pressed is done in its order on one thread, what takes long on another, what
 * nobody waits for on a third. What is under way for longer than a moment is told, with how far it is, and can be given
 * up. JavaFX thread only, but for the work itself.
 */
public final class BackgroundTasks {
    private static final Logger LOG = LoggerFactory.getLogger(BackgroundTasks.class);
    /** Shorter work is not told: words that flash by say nothing. */
    private static final Duration MOMENT = Duration.millis(300);

    private static final int SECONDS_TO_END = 5;

    private final ExecutorService inOrder = worker(Messages.of("workspace.tasks-in-order"));
    private final ExecutorService atLength = worker(Messages.of("workspace.long-task"));
    private final ExecutorService leisure = worker(Messages.of("workspace.task-at-leisure"));
    private final Consumer<String> trouble;
    /** What has been under way for longer than a moment, the newest last: that one is told. */
    private final List<Task> told = new ArrayList<>();

    private final List<Task> underWay = new ArrayList<>();
    private final StringProperty busy = new SimpleStringProperty("");
    private final DoubleProperty progress = new SimpleDoubleProperty(-1);
    private final BooleanProperty cancellable = new SimpleBooleanProperty();

    /** Something under way. */
    private static final class Task {
        final String words;
        final boolean cancellable;
        final AtomicBoolean cancelled = new AtomicBoolean();
        double share = -1;

        Task(String words, boolean cancellable) {
            this.words = words;
            this.cancellable = cancellable;
        }
    }

    /** Work that may throw. */
    @FunctionalInterface
    public interface Work {
        void run() throws Exception;
    }

    /** Work with a result that may throw. */
    @FunctionalInterface
    public interface Fetch<T> {
        T run() throws Exception;
    }

    /** Work that tells how far it is, 0 … 1, and asks whether to go on. */
    @FunctionalInterface
    public interface LongWork<T> {
        T run(DoublePredicate goOn) throws Exception;
    }

    /** Work at leisure, told how to ask whether to go on. */
    @FunctionalInterface
    public interface Leisure {
        void run(BooleanSupplier goOn) throws Exception;
    }

    /** @param trouble hears, in words, of work that failed */
    BackgroundTasks(Consumer<String> trouble) {
        this.trouble = trouble;
    }

    private static ExecutorService worker(String name) {
        return Executors.newSingleThreadExecutor(task -> {
            Thread thread = new Thread(task, name);
            thread.setDaemon(true);
            return thread;
        });
    }

    /** @return what is under way, in words; empty for nothing that takes longer than a moment */
    public StringProperty busy() {
        return busy;
    }

    /** @return its share done, 0 … 1; −1 when that is not known */
    public DoubleProperty progress() {
        return progress;
    }

    /** @return whether it can be given up */
    public BooleanProperty cancellable() {
        return cancellable;
    }

    /** Gives up what is told to be under way. */
    public void cancel() {
        if (!told.isEmpty()) {
            told.get(told.size() - 1).cancelled.set(true);
        }
    }

    /** Does the work in its order, then {@code after} here, unless it fails: then says so. */
    public void later(String failing, Work work, Runnable after) {
        run(
                inOrder,
                failing,
                null,
                () -> {
                    work.run();
                    return null;
                },
                nothing -> after.run());
    }

    /** As {@link #later}, with the result handed on. */
    public <T> void fetch(String failing, Fetch<T> work, Consumer<T> after) {
        run(inOrder, failing, null, work, after);
    }

    /** As {@link #fetch}, and tells that it is under way. */
    public <T> void fetchTold(String words, String failing, Fetch<T> work, Consumer<T> after) {
        run(inOrder, failing, begin(words, false), work, after);
    }

    /** As {@link #fetch}, with progress and {@link #cancel()}. */
    public <T> void inOrder(String words, String failing, LongWork<T> work, Consumer<T> after) {
        Task task = begin(words, true);
        run(inOrder, failing, task, () -> work.run(share -> goOn(task, share)), after);
    }

    /** Does long work beside all that is pressed meanwhile, with progress and {@link #cancel()}. */
    public <T> void atLength(String words, String failing, LongWork<T> work, Consumer<T> after) {
        Task task = begin(words, true);
        run(atLength, failing, task, () -> work.run(share -> goOn(task, share)), after);
    }

    /** Work that nobody waits for, beside everything else; it asks now and then whether to go on. */
    public void atLeisure(String failing, Leisure work, Runnable after) {
        run(
                leisure,
                failing,
                null,
                () -> {
                    work.run(() -> !leisure.isShutdown());
                    return null;
                },
                nothing -> after.run());
    }

    private Task begin(String words, boolean cancellable) {
        Task task = new Task(words, cancellable);
        underWay.add(task);
        PauseTransition moment = new PauseTransition(MOMENT);
        moment.setOnFinished(event -> {
            if (underWay.contains(task)) {
                told.add(task);
                tell();
            }
        });
        moment.play();
        return task;
    }

    private boolean goOn(Task task, double share) {
        Platform.runLater(() -> {
            task.share = share;
            tell();
        });
        return !task.cancelled.get();
    }

    private void end(Task task) {
        underWay.remove(task);
        told.remove(task);
        tell();
    }

    private void tell() {
        Task newest = told.isEmpty() ? null : told.get(told.size() - 1);
        busy.set(newest == null ? "" : newest.words);
        progress.set(newest == null ? -1 : newest.share);
        cancellable.set(newest != null && newest.cancellable);
    }

    private <T> void run(ExecutorService where, String failing, Task task, Fetch<T> work, Consumer<T> after) {
        // What is asked for after the end is not done any more.
        if (where.isShutdown()) {
            return;
        }
        AtomicReference<T> result = new AtomicReference<>();
        where.execute(() -> {
            String why = "";
            try {
                result.set(work.run());
            } catch (CancellationException e) {
                why = task == null
                        ? why(failing, e)
                        : Messages.of("workspace.given-up-nothing-was-changed", task.words);
            } catch (Throwable e) {
                if (e instanceof Error || e instanceof RuntimeException) {
                    LOG.error("{}", failing, e);
                } else {
                    LOG.warn("{}: {}", failing, e.getMessage());
                }
                why = why(failing, e);
            }
            String wrong = why;
            Platform.runLater(() -> {
                if (task != null) {
                    end(task);
                }
                if (wrong.isEmpty()) {
                    after.accept(result.get());
                } else {
                    trouble.accept(wrong);
                }
            });
        });
    }

    private static String why(String failing, Throwable e) {
        if (e instanceof TakeException) {
            return e.getMessage();
        }
        if (e instanceof OutOfMemoryError) {
            return Messages.of("workspace.memory-ran-out-start-with-more-for", failing);
        }
        return failing + ": "
                + (e instanceof IOException io
                        ? DiskWords.of(io)
                        : e instanceof RuntimeException
                                ? e.getMessage()
                                : e.getClass().getSimpleName());
    }

    /** Does something that nobody hears of, in its order, unless all has ended. */
    void quietly(Runnable work) {
        if (!inOrder.isShutdown()) {
            inOrder.execute(work);
        }
    }

    boolean over() {
        return inOrder.isShutdown();
    }

    /** Ends all work: what was asked for in order and {@code last} are done, the rest is given up. Waits some seconds. */
    void close(Runnable last) {
        underWay.forEach(task -> task.cancelled.set(true));
        atLength.shutdown();
        leisure.shutdown();
        inOrder.execute(last);
        inOrder.shutdown();
        try {
            boolean all = inOrder.awaitTermination(SECONDS_TO_END, TimeUnit.SECONDS)
                    && leisure.awaitTermination(SECONDS_TO_END, TimeUnit.SECONDS);
            if (!all) {
                LOG.warn("some work did not end in time");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
