package mintshelf.companion;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import mintshelf.companion.Companion.Unreadable;
import mintshelf.companion.machine.DesktopNotices;
import mintshelf.companion.machine.FileAct;
import mintshelf.companion.machine.Notices;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** What a file manager's entries do with the files that are chosen in it. */
@Command(name = "act", description = "look, work, check-in, ask, undo, next or saves, with files of a desk")
final class ActCommand extends OnDesk {
    @Parameters(index = "0")
    private String act = "";

    @Parameters(index = "1..*", arity = "1..*")
    private List<Path> files = List.of();

    @Override
    int run() throws IOException {
        FileAct wanted = FileAct.of(act)
                .orElseThrow(() ->
                        new Unreadable("“" + act + "” is no act: look, work, check-in, ask, undo, next or saves."));
        Optional<Notices> notices = DesktopNotices.of(machine());
        FileActs.Tell tell = notice -> notices.ifPresent(n -> n.tell(notice, chosen -> {}));
        try {
            Map<Path, List<String>> byDesk = new LinkedHashMap<>();
            Map<Path, DeskFolder> desks = new LinkedHashMap<>();
            for (Path file : files) {
                DeskFolder desk = DeskFolder.of(file);
                desks.putIfAbsent(desk.root(), desk);
                byDesk.computeIfAbsent(desk.root(), r -> new ArrayList<>())
                        .add(desk.path(file).orElseThrow());
            }
            for (Map.Entry<Path, List<String>> one : byDesk.entrySet()) {
                DeskFolder desk = Objects.requireNonNull(desks.get(one.getKey()));
                new FileActs(machine(), desk, desk.client(machine()), out(), tell).run(wanted, one.getValue());
            }
            return 0;
        } catch (ShelfClient.Refusal | Unreadable e) {
            tell.tell(Notices.Notice.of(wanted.words() + ": nothing was done", String.valueOf(e.getMessage())));
            throw e;
        } finally {
            notices.ifPresent(Notices::close);
        }
    }
}
