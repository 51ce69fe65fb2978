package zesty.signal.app.command;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.util.ArrayList;
import java.util.List;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import zesty.signal.core.clean.RecipeException;
import zesty.signal.takes.DiskWords;
import zesty.signal.takes.TakeException;

/** All commands, and what their ends mean: 0 done, 2 words or input wrong, 1 anything else. */
@Command(
        name = "zesty",
        description = "Streams, records, cleans and reads sensor signals.",
        subcommands = {
            WindowCommand.Demo.class,
            WindowCommand.Pictures.class,
            BoardsCommand.class,
            SimulateCommand.class,
            DecodeCommand.class,
            RecordCommand.class,
            CleanCommand.class,
            ReadersCommand.class,
            ExtractCommand.class,
            SpectrumCommand.class,
            TuneCommand.class,
            DecideCommand.class,
            PlanCommand.class,
            PortableCommand.class,
            CalibrateCommand.class,
            ConvertCommand.class,
            ExportCommand.class,
            ImportCommand.class,
            ReportCommand.class,
            PackageCommand.class,
            GuideCommand.class,
            InfoCommand.class,
            NoteCommand.class,
            TakesCommand.class,
            CompareCommand.class
        })
public final class Commands extends WindowCommand {
    static final int DONE = 0;
    static final int FAILED = 1;
    static final int WRONG = 2;

    /** Runs one command line. @return the exit status */
    public static int run(String... arguments) {
        CommandLine line = new CommandLine(new Commands());
        line.setUnmatchedOptionsArePositionalParams(false);
        line.getSubcommands().values().forEach(c -> c.getCommandSpec().mixinStandardHelpOptions(true));
        line.getCommandSpec().mixinStandardHelpOptions(true);
        line.setParameterExceptionHandler((e, args) -> say(line, WRONG, wrong(e)));
        line.setExecutionExceptionHandler((e, command, parsed) -> failed(line, e));
        int status;
        try {
            status = line.execute(withValuesLast(arguments));
        } catch (OutOfMemoryError e) {
            status = say(
                    line,
                    FAILED,
                    "memory ran out; give it more, for example ZESTY_MEMORY=2g, or cut the file into pieces");
        } catch (StackOverflowError e) {
            status = say(line, FAILED, "a formula or a line is nested too deeply to be worked out");
        }
        // Both must hear of it, whatever happened to one of them.
        boolean broke = line.getOut().checkError() | System.out.checkError();
        return broke && status == DONE
                ? say(line, FAILED, "standard output took no more: the disk behind it is full, or its reader went away")
                : status;
    }

    /** A negative VALUE of {@code convert} is a value, not an option: values go behind the mark that ends the options. */
    private static String[] withValuesLast(String[] arguments) {
        if (arguments.length == 0 || !arguments[0].equals("convert")) {
            return arguments;
        }
        List<String> options = new ArrayList<>(List.of("convert"));
        List<String> values = new ArrayList<>();
        for (int i = 1; i < arguments.length; i++) {
            String word = arguments[i];
            boolean option = word.startsWith("-") && !word.matches("-[.\\d].*");
            (option ? options : values).add(word);
            if (word.equals("--set") && i + 1 < arguments.length) {
                options.add(arguments[++i]);
            }
        }
        options.add("--");
        options.addAll(values);
        return options.toArray(String[]::new);
    }

    private static String wrong(CommandLine.ParameterException e) {
        CommandLine.Model.CommandSpec spec = e.getCommandLine().getCommandSpec();
        if (!(e instanceof CommandLine.UnmatchedArgumentException unmatched)
                || unmatched.getUnmatched().isEmpty()) {
            return e.getMessage();
        }
        String word = unmatched.getUnmatched().get(0);
        if (spec.parent() == null) {
            return "no command is called '" + word + "'; there are "
                    + String.join(", ", spec.subcommands().keySet());
        }
        List<String> options = spec.options().stream().map(o -> o.longestName()).toList();
        return spec.name() + " does not take '" + word + "'; it takes " + String.join(", ", options);
    }

    private static int failed(CommandLine line, Exception e) {
        if (e instanceof Refusal || e instanceof RecipeException) {
            return say(line, WRONG, e.getMessage());
        }
        if (e instanceof TakeException) {
            return say(line, FAILED, e.getMessage());
        }
        StringWriter trace = new StringWriter();
        e.printStackTrace(new PrintWriter(trace));
        org.slf4j.LoggerFactory.getLogger(Commands.class).debug("{}", trace);
        return say(
                line,
                FAILED,
                e instanceof java.io.IOException
                        ? DiskWords.of(e)
                        : "it stopped by a fault of the program itself ("
                                + e.getClass().getSimpleName() + ")");
    }

    private static int say(CommandLine line, int status, String message) {
        line.getErr().println("zesty: " + oneLine(message));
        line.getErr().flush();
        return status;
    }

    /** @return the text without signs that a terminal would obey; what it held of them is shown */
    static String plain(String text) {
        StringBuilder shown = new StringBuilder(text.length());
        text.codePoints()
                .forEach(one -> shown.appendCodePoint(
                        one < ' '
                                ? 0x2400 + one
                                : one >= 0x7f && one < 0xa0 || Character.getType(one) == Character.FORMAT
                                        ? '\uFFFD'
                                        : one));
        return shown.toString();
    }

    private static String oneLine(String message) {
        return plain(String.join(" ", List.of(String.valueOf(message).split("\\R"))));
    }
}
