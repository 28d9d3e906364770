package mintshelf.companion;

import picocli.CommandLine;
import picocli.CommandLine.Command;

/**
 * Commands on files. Exit status 0 = done, 1 = the answer is “no” (differences found, checks failed), 2 = wrong call, 3 = the file
 * could not be read (one line on standard error).
 */
@Command(
        name = "shelf",
        subcommands = {DrawingCommands.class, ModelCommands.class, DeskCommands.class, TakeInCommand.class})
public final class Companion {
    private Companion() {}

    public static void main(String[] arguments) {
        System.exit(commandLine().execute(arguments));
    }

    /** The commands, ready to be executed. */
    public static CommandLine commandLine() {
        return new CommandLine(new Companion()).setExecutionExceptionHandler((e, line, parsed) -> {
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
