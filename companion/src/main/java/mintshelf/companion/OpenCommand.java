package mintshelf.companion;

import java.io.PrintWriter;
import mintshelf.companion.machine.DesktopNotices;
import mintshelf.companion.machine.Notices;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Takes a link of a page where no watch runs that would. */
@Command(name = "open", description = "takes a link of a page, as the browser hands it over")
final class OpenCommand extends OnDesk {
    @Parameters(index = "0")
    private String link = "";

    @Override
    int run() {
        PrintWriter err = spec.commandLine().getErr();
        boolean done = new Opening(machine(), out(), (title, says) -> {
                    // There is no terminal behind a browser: the desktop says it, too.
                    err.println(title + ". " + says);
                    DesktopNotices.of(machine()).ifPresent(n -> {
                        n.tell(Notices.Notice.of(title, says), chosen -> {});
                        n.close();
                    });
                })
                .open(link);
        return done ? 0 : 1;
    }
}
