package mintshelf.companion;

import mintshelf.companion.machine.Machine;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/**
 * Commands on files. Exit status 0 = done, 1 = the answer is “no” (differences found, checks failed), 2 = wrong call, 3 = the file
 * could not be read (one line on standard error).
 */
@Command(
        name = "mint-shelf",
        mixinStandardHelpOptions = true,
        scope = CommandLine.ScopeType.INHERIT,
        version = "0.1.0",
        subcommands = {DrawingCommands.class, ModelCommands.class, DeskCommands.class, TakeInCommand.class})
public final class Companion {
    private final Machine machine;

    private Companion(Machine machine) {
        this.machine = machine;
    }

    Machine machine() {
        return machine;
    }

    public static void main(String[] arguments) {
        // The bus of the desktop logs through it; nobody listens here.
        System.setProperty("slf4j.internal.verbosity", "ERROR");
        System.exit(commandLine().execute(arguments));
    }

    /** The commands on this machine, ready to be executed. */
    public static CommandLine commandLine() {
        return commandLine(Machine.here());
    }

    /** As {@link #commandLine()}, on a machine of its own. */
    public static CommandLine commandLine(Machine machine) {
        return new CommandLine(new Companion(machine)).setExecutionExceptionHandler((e, line, parsed) -> {
            if (!(e instanceof Unreadable)) throw e;
            line.getErr().println(e.getMessage());
            return 3;
        });
    }

    /** A file that cannot be read, with the one line that says why. */
    static final class Unreadable extends RuntimeException {
        Unreadable(String why) {
            super(why);
        }
    }
}
