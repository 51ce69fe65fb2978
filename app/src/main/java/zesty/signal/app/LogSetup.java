package zesty.signal.app;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.LoggerContext;
import ch.qos.logback.classic.encoder.PatternLayoutEncoder;
import ch.qos.logback.classic.filter.ThresholdFilter;
import ch.qos.logback.classic.spi.Configurator;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.ConsoleAppender;
import ch.qos.logback.core.rolling.FixedWindowRollingPolicy;
import ch.qos.logback.core.rolling.RollingFileAppender;
import ch.qos.logback.core.rolling.SizeBasedTriggeringPolicy;
import ch.qos.logback.core.spi.ContextAwareBase;
import ch.qos.logback.core.util.FileSize;
import java.nio.file.Path;
import org.slf4j.LoggerFactory;

/**
 * Logs to standard error from the level that ZESTY_LOG names, nothing without one: what a user has to know is said in
 * words of its own. The window logs to a file as well. An error is what must not happen, a warning what went wrong and is
 * told, information what was done. In code rather than in XML, which would
 * take a tenth of a second of every start.
 */
public final class LogSetup extends ContextAwareBase implements Configurator {
    /** The file's name in its folder. */
    public static final String NAME = "zesty.log";

    private static volatile boolean ready;

    private static final String FILE = "file";
    private static final long MOST_BYTES = 1 << 20;

    @Override
    public ExecutionStatus configure(LoggerContext context) {
        PatternLayoutEncoder encoder = new PatternLayoutEncoder();
        encoder.setContext(context);
        encoder.setPattern("%level %logger{0}: %msg%n");
        encoder.start();
        ConsoleAppender<ILoggingEvent> console = new ConsoleAppender<>();
        console.setContext(context);
        console.setTarget("System.err");
        console.setEncoder(encoder);
        console.start();
        var root = context.getLogger(org.slf4j.Logger.ROOT_LOGGER_NAME);
        root.addAppender(console);
        root.setLevel(Level.toLevel(System.getenv("ZESTY_LOG"), Level.OFF));
        ready = true;
        return ExecutionStatus.DO_NOT_INVOKE_NEXT_IF_ANY;
    }

    /** @return whether a log was set up, so that asking for one costs nothing */
    static boolean isReady() {
        return ready;
    }

    /** Logs to a file in that folder from now on, besides; a full one is put aside, and two such are kept. */
    public static void toFile(Path folder) {
        LoggerContext context = (LoggerContext) LoggerFactory.getILoggerFactory();
        var root = context.getLogger(org.slf4j.Logger.ROOT_LOGGER_NAME);
        if (root.getAppender(FILE) != null) {
            root.getAppender(FILE).stop();
            root.detachAppender(FILE);
        }
        PatternLayoutEncoder encoder = new PatternLayoutEncoder();
        encoder.setContext(context);
        encoder.setPattern("%d{yyyy-MM-dd HH:mm:ss.SSS} %level [%thread] %logger{0}: %msg%n%ex");
        encoder.start();
        RollingFileAppender<ILoggingEvent> file = new RollingFileAppender<>();
        file.setContext(context);
        file.setName(FILE);
        file.setFile(folder.resolve(NAME).toString());
        file.setEncoder(encoder);
        FixedWindowRollingPolicy window = new FixedWindowRollingPolicy();
        window.setContext(context);
        window.setParent(file);
        window.setFileNamePattern(folder.resolve("zesty.%i.log").toString());
        window.setMinIndex(1);
        window.setMaxIndex(2);
        window.start();
        SizeBasedTriggeringPolicy<ILoggingEvent> size = new SizeBasedTriggeringPolicy<>();
        size.setContext(context);
        size.setMaxFileSize(new FileSize(MOST_BYTES));
        size.start();
        file.setRollingPolicy(window);
        file.setTriggeringPolicy(size);
        file.start();
        Level console = Level.toLevel(System.getenv("ZESTY_LOG"), Level.OFF);
        root.iteratorForAppenders().forEachRemaining(appender -> {
            ThresholdFilter filter = new ThresholdFilter();
            filter.setLevel(console.toString());
            filter.start();
            appender.clearAllFilters();
            appender.addFilter(filter);
        });
        root.addAppender(file);
        root.setLevel(console.isGreaterOrEqual(Level.INFO) ? Level.INFO : console);
        // What the toolkits say of themselves is not for the log of this product.
        context.getLogger("javafx").setLevel(Level.WARN);
    }
}
