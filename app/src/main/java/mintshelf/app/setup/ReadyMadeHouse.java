package mintshelf.app.setup;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact.Required;
import mintshelf.app.store.house.SheetMapStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.core.access.Right;
import mintshelf.core.access.Role;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.Aspect;
import mintshelf.core.document.Stage;
import mintshelf.core.drawing.titleblock.SheetMap;
import mintshelf.core.fact.FactType;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Gates;
import mintshelf.core.route.Move;
import mintshelf.core.route.SignOffLine;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;

/** The house rules that are shipped: usable untouched. Written once, into an empty database. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
public class ReadyMadeHouse implements ApplicationRunner {
    private final HouseStore house;
    private final PersonStore people;
    private static final String REVIEWED = "reviewed";
    private static final String ORDER = "change-order";
    private final SheetMapStore maps;
    private final UnitOfWork unit;

    public ReadyMadeHouse(HouseStore house, SheetMapStore maps, PersonStore people, UnitOfWork unit) {
        this.house = house;
        this.maps = maps;
        this.people = people;
        this.unit = unit;
    }

    @Override
    public void run(ApplicationArguments arguments) {
        boolean whole = !house.isEmpty()
                && house.route(REVIEWED).isPresent()
                && house.route(ORDER).isPresent()
                && !maps.isEmpty();
        if (whole) return;
        try {
            unit.run(this::write);
        } catch (org.springframework.dao.DuplicateKeyException e) {
            if (house.isEmpty() || maps.isEmpty()) throw e; // else another node wrote them at this moment
        }
    }

    /** Of a house that was written by an earlier release only what it lacks; its kinds keep their routes. */
    private void write() {
        if (maps.isEmpty()) maps.add(SheetMap.readyMade());
        boolean fresh = house.isEmpty();
        if (fresh) roles();
        long reviewed = house.route(REVIEWED).orElseGet(this::reviewed);
        if (fresh) kinds(straight(), reviewed);
        if (house.route(ORDER).isEmpty()) changePapers();
    }

    private void kinds(long route, long reviewed) {
        long documents = house.addSeries("documents", "Documents", "D-{n:5}", "SERVER");
        long papers = house.addSeries("papers", "Papers", "P-{n:5}", "SERVER");
        long material = house.addFact("material", "Material", FactType.TEXT, "", "", List.of());
        long mass = house.addFact("mass", "Mass", FactType.NUMBER, "kg", "", List.of());
        long surface = house.addFact("surface", "Surface treatment", FactType.TEXT, "", "", List.of());
        long format =
                house.addFact("format", "Sheet format", FactType.CHOICE, "", "", List.of("A0", "A1", "A2", "A3", "A4"));
        long scale = house.addFact("scale", "Scale", FactType.TEXT, "", "\\d+(\\.\\d+)?:\\d+(\\.\\d+)?", List.of());
        long subject = house.addFact("subject", "Subject", FactType.TEXT, "", "", List.of());

        Kind drawing = kind("drawing", "drawing", Aspect.DRAWING, "sheet", documents, "asme", true, reviewed, 1);
        house.giveFact(drawing.id(), material, Required.RELEASE, 1);
        house.giveFact(drawing.id(), mass, Required.NEVER, 2);
        house.giveFact(drawing.id(), surface, Required.NEVER, 3);
        house.giveFact(drawing.id(), format, Required.NEVER, 4);
        house.giveFact(drawing.id(), scale, Required.NEVER, 5);
        Kind part = kind("part-model", "part model", Aspect.MODEL, "cube", documents, "asme", true, route, 2);
        house.giveFact(part.id(), material, Required.NEVER, 1);
        house.giveFact(part.id(), mass, Required.NEVER, 2);
        Kind assembly =
                kind("assembly-model", "assembly model", Aspect.MODEL, "cubes", documents, "asme", true, route, 3);
        house.giveFact(assembly.id(), mass, Required.NEVER, 1);
        Kind specification =
                kind("specification", "specification", Aspect.PAPER, "folded", papers, "numbers", true, route, 4);
        Kind report = kind("report", "report", Aspect.PAPER, "folded", papers, "numbers", true, route, 5);
        Kind picture = kind("picture", "picture", Aspect.PAPER, "frame", papers, "numbers", true, route, 6);
        for (Kind paper : List.of(specification, report, picture)) {
            house.giveFact(paper.id(), subject, Required.NEVER, 1);
        }
        Kind template = kind("template", "template", Aspect.PAPER, "stack", papers, "letters", true, route, 7);

        house.addFilingRule(1, "", "template", template.id());
        house.addFilingRule(2, ContentKind.DXF.name(), "", drawing.id());
        house.addFilingRule(3, ContentKind.STEP.name(), "assembly|assy|-\\d000\\b", assembly.id());
        house.addFilingRule(4, ContentKind.STEP.name(), "", part.id());
        house.addFilingRule(5, "", "report|test|record", report.id());
        for (ContentKind kind :
                List.of(ContentKind.PNG, ContentKind.JPEG, ContentKind.GIF, ContentKind.TIFF, ContentKind.SVG)) {
            house.addFilingRule(6, kind.name(), "", picture.id());
        }
        for (ContentKind kind : List.of(ContentKind.PDF, ContentKind.OFFICE, ContentKind.TEXT)) {
            house.addFilingRule(7, kind.name(), "", specification.id());
        }
    }

    private Kind kind(
            String code,
            String name,
            Aspect aspect,
            String glyph,
            long numbers,
            String revisions,
            boolean atStart,
            long route,
            int position) {
        return house.addKind(new Kind(0, code, name, aspect, glyph, numbers, revisions, atStart, route), position);
    }

    private void roles() {
        Set<Right> designer = EnumSet.of(Right.SEE_RELEASED, Right.SEE_ALL, Right.REDLINE, Right.CHANGE, Right.FILE);
        Set<Right> checker = EnumSet.of(Right.SEE_RELEASED, Right.SEE_ALL, Right.REDLINE, Right.SIGN);
        people.addRole(new Role("reader", "Reader", EnumSet.of(Right.SEE_RELEASED)));
        people.addRole(new Role("designer", "Designer", designer));
        people.addRole(new Role("checker", "Checker", checker));
        people.addRole(new Role(
                "board-member",
                "Board member",
                EnumSet.of(Right.SEE_RELEASED, Right.SEE_ALL, Right.REDLINE, Right.SIGN, Right.DECIDE_CHANGES)));
        Set<Right> librarian = EnumSet.copyOf(designer);
        librarian.add(Right.LIBRARIAN);
        people.addRole(new Role("librarian", "Librarian", librarian));
        people.addRole(new Role("data-manager", "Data manager", EnumSet.allOf(Right.class)));
    }

    private static final List<Stage> AFTER = List.of(
            new Stage(0, "released", "Released", StageClass.RELEASED, 3),
            new Stage(0, "superseded", "Superseded", StageClass.SUPERSEDED, 4),
            new Stage(0, "withdrawn", "Withdrawn", StageClass.WITHDRAWN, 5),
            new Stage(0, "dropped", "Dropped", StageClass.CLOSED, 6));
    private static final Move WITHDRAW = new Move(
            "withdraw",
            "Withdraw",
            "released",
            "withdrawn",
            Right.KEEP_SHELF,
            List.of(Gates.HELD_BY_NOBODY, Gates.REASON_GIVEN),
            List.of());

    private static List<Stage> stages(Stage... first) {
        return Stream.concat(Arrays.stream(first), AFTER.stream()).toList();
    }

    /** The route on which nobody signs: who may change may release. What goes this way leaves as it is, a sheet template too. */
    private long straight() {
        return house.addRoute(
                "straight",
                "Straight",
                stages(new Stage(0, "preparation", "In preparation", StageClass.PREPARING, 1)),
                List.of(
                        new Move(
                                "release",
                                "Release",
                                "preparation",
                                "released",
                                Right.CHANGE,
                                List.of(
                                        Gates.HELD_BY_NOBODY,
                                        Gates.NOT_ON_AN_ORDER,
                                        Gates.OWN_VERSION,
                                        Gates.FACTS_FILLED,
                                        Gates.REFERENCES_FOUND,
                                        Gates.CHECKS_PASSED,
                                        Gates.COMPONENTS_RELEASED),
                                List.of(Effect.FIX_LABEL, Effect.SUPERSEDE_FORMER)),
                        WITHDRAW));
    }

    /** Orders and notices: papers with routes of their own, filed under numbers of their own. */
    private void changePapers() {
        long orders = house.addSeries("change-orders", "Change orders", "CO {yy}-{n:3}", "SERVER");
        long notices = house.addSeries("change-notices", "Change notices", "CN {yy}-{n:3}", "SERVER");
        List<Stage> stages = List.of(
                new Stage(0, "outlined", "Outlined", StageClass.PREPARING, 1),
                new Stage(0, "under-way", "Under way", StageClass.PREPARING, 2),
                new Stage(0, "board", "Before the board", StageClass.DECIDING, 3),
                new Stage(0, "carried-out", "Carried out", StageClass.RELEASED, 4),
                new Stage(0, "stopped", "Stopped", StageClass.CLOSED, 5));
        List<SignOffLine> board = List.of(
                new SignOffLine(1, "checker", 1, "checked", "checked_by", 3),
                new SignOffLine(2, "board-member", 1, "decided to go out", "approved_by", 3));
        List<Move> moves = List.of(
                new Move(
                        "start",
                        "Start the work",
                        "outlined",
                        "under-way",
                        Right.DECIDE_CHANGES,
                        List.of(),
                        List.of(Effect.START_LINES)),
                new Move(
                        "to-board",
                        "Put before the board",
                        "under-way",
                        "board",
                        Right.CHANGE,
                        List.of(Gates.LINES_READY),
                        List.of(Effect.OPEN_ROUND)),
                new Move(
                        "carry-out",
                        "Carry out",
                        "board",
                        "carried-out",
                        Right.DECIDE_CHANGES,
                        List.of(Gates.BOARD_SIGNED),
                        List.of(Effect.RELEASE_LINES),
                        board),
                new Move(
                        "back",
                        "Take back",
                        "board",
                        "under-way",
                        Right.CHANGE,
                        List.of(Gates.REASON_GIVEN),
                        List.of(Effect.END_ROUND)),
                new Move(
                        "stop",
                        "Stop",
                        "outlined",
                        "stopped",
                        Right.DECIDE_CHANGES,
                        List.of(Gates.REASON_GIVEN),
                        List.of()),
                new Move(
                        "stop-work",
                        "Stop",
                        "under-way",
                        "stopped",
                        Right.DECIDE_CHANGES,
                        List.of(Gates.REASON_GIVEN),
                        List.of()));
        long route = house.addRoute(ORDER, "Change order", stages, moves);
        long issued = house.addRoute(
                "notice",
                "Notice",
                List.of(
                        new Stage(0, "written", "Written", StageClass.PREPARING, 1),
                        new Stage(0, "issued", "Issued", StageClass.RELEASED, 2)),
                List.of());
        kind(Kind.CHANGE_ORDER, "change order", Aspect.PAPER, "folded", orders, "numbers", false, route, 30);
        kind(Kind.CHANGE_NOTICE, "change notice", Aspect.PAPER, "folded", notices, "numbers", false, issued, 31);
    }

    /** The route on which two people sign: one who checks, then one who leads. */
    private long reviewed() {
        return house.addRoute(
                REVIEWED,
                "Reviewed",
                stages(
                        new Stage(0, "preparation", "In preparation", StageClass.PREPARING, 1),
                        new Stage(0, "review", "In review", StageClass.DECIDING, 2)),
                List.of(
                        new Move(
                                "send",
                                "Send to review",
                                "preparation",
                                "review",
                                Right.CHANGE,
                                List.of(
                                        Gates.HELD_BY_NOBODY,
                                        Gates.NOT_ON_AN_ORDER,
                                        Gates.OWN_VERSION,
                                        Gates.FACTS_FILLED,
                                        Gates.REFERENCES_FOUND,
                                        Gates.SHEET_PASSED),
                                List.of(Effect.OPEN_ROUND)),
                        new Move(
                                "release",
                                "Release",
                                "review",
                                "released",
                                Right.SIGN,
                                List.of(
                                        Gates.HELD_BY_NOBODY,
                                        Gates.NOT_ON_AN_ORDER,
                                        Gates.OWN_VERSION,
                                        Gates.FACTS_FILLED,
                                        Gates.COMPONENTS_RELEASED,
                                        Gates.DRAWING_NOT_OLDER,
                                        Gates.SIGNED_OFF),
                                List.of(Effect.FIX_LABEL, Effect.SUPERSEDE_FORMER, Effect.WRITE_SHEET, Effect.MAKE_PDF),
                                List.of(
                                        new SignOffLine(1, "checker", 1, "checked", "checked_by", 2),
                                        new SignOffLine(
                                                2, "board-member", 1, "approved for production", "approved_by", 2))),
                        new Move(
                                "take-back",
                                "Take back",
                                "review",
                                "preparation",
                                Right.CHANGE,
                                List.of(Gates.REASON_GIVEN),
                                List.of(Effect.END_ROUND)),
                        WITHDRAW));
    }
}
