package zesty.signal.app.command;

import java.io.PrintWriter;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;
import zesty.signal.boards.link.SerialPorts;
import zesty.signal.boards.sim.SimulatedBoards;

@Command(name = "boards", description = "Lists the simulated boards and the serial ports found.")
final class BoardsCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        PrintWriter out = spec.commandLine().getOut();
        out.println("simulated boards");
        for (SimulatedBoards.Entry board : SimulatedBoards.all()) {
            out.println("  sim:" + board.name() + "   " + board.about());
            SimulatedBoards.modes(board.name())
                    .forEach((word, about) -> out.println("    sim:" + board.name() + "+" + word + "   " + about));
        }
        out.println("serial ports");
        List<SerialPorts.Found> ports = SerialPorts.list();
        for (SerialPorts.Found port : ports) {
            out.println("  serial:" + port.path() + "@115200   " + port.about());
        }
        if (ports.isEmpty()) {
            out.println("  none found; is the board plugged in?");
        }
        out.flush();
        return Commands.DONE;
    }
}
