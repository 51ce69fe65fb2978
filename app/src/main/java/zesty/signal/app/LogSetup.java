package zesty.signal.app;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.LoggerContext;
import ch.qos.logback.classic.encoder.PatternLayoutEncoder;
import ch.qos.logback.classic.spi.Configurator;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.ConsoleAppender;
import ch.qos.logback.core.spi.ContextAwareBase;

/**
 * Logs to standard error, errors only, or from the level that ZESTY_LOG names. In code rather than in XML, which would
 * take a tenth of a second of every start.
 */
public final class LogSetup extends ContextAwareBase implements Configurator {
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
        root.setLevel(Level.toLevel(System.getenv("ZESTY_LOG"), Level.ERROR));
        return ExecutionStatus.DO_NOT_INVOKE_NEXT_IF_ANY;
    }
}
