package mintshelf.core.route;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import mintshelf.core.access.Access;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;

/** What is known of a document, said in a test: nothing is in the way but what is added. */
record Known(
        Document document,
        Access access,
        List<String> emptyFacts,
        Optional<Refusal> lostReferences,
        List<Refusal> sheet,
        List<Refusal> unread,
        List<Case.Within> components,
        List<String> newerModels,
        List<String> missingSignOffs,
        Optional<String> order,
        List<Refusal> linesInTheWay,
        Set<Long> along,
        List<String> openChanges,
        List<Refusal> goalsInTheWay,
        List<Refusal> neutralInTheWay)
        implements Case {
    static Known of(Document document, Access access) {
        return new Known(
                document,
                access,
                List.of(),
                Optional.empty(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                Optional.empty(),
                List.of(),
                Set.of(),
                List.of(),
                List.of(),
                List.of());
    }

    Known lacking(List<String> facts) {
        return new Known(
                document,
                access,
                facts,
                lostReferences,
                sheet,
                unread,
                components,
                newerModels,
                missingSignOffs,
                order,
                linesInTheWay,
                along,
                openChanges,
                goalsInTheWay,
                neutralInTheWay);
    }

    Known unsigned(String... missing) {
        return new Known(
                document,
                access,
                emptyFacts,
                lostReferences,
                sheet,
                unread,
                components,
                newerModels,
                List.of(missing),
                order,
                linesInTheWay,
                along,
                openChanges,
                goalsInTheWay,
                neutralInTheWay);
    }

    Known lost(Refusal file) {
        return new Known(
                document,
                access,
                emptyFacts,
                Optional.of(file),
                sheet,
                unread,
                components,
                newerModels,
                missingSignOffs,
                order,
                linesInTheWay,
                along,
                openChanges,
                goalsInTheWay,
                neutralInTheWay);
    }

    Known found(List<Refusal> findings, List<Refusal> ofReading) {
        return new Known(
                document,
                access,
                emptyFacts,
                lostReferences,
                findings,
                ofReading,
                components,
                newerModels,
                missingSignOffs,
                order,
                linesInTheWay,
                along,
                openChanges,
                goalsInTheWay,
                neutralInTheWay);
    }

    Known consisting(List<Case.Within> of, Set<Long> moving) {
        return new Known(
                document,
                access,
                emptyFacts,
                lostReferences,
                sheet,
                unread,
                of,
                newerModels,
                missingSignOffs,
                order,
                linesInTheWay,
                moving,
                openChanges,
                goalsInTheWay,
                neutralInTheWay);
    }

    Known showing(String... newer) {
        return new Known(
                document,
                access,
                emptyFacts,
                lostReferences,
                sheet,
                unread,
                components,
                List.of(newer),
                missingSignOffs,
                order,
                linesInTheWay,
                along,
                openChanges,
                goalsInTheWay,
                neutralInTheWay);
    }

    Known on(String number) {
        return new Known(
                document,
                access,
                emptyFacts,
                lostReferences,
                sheet,
                unread,
                components,
                newerModels,
                missingSignOffs,
                Optional.of(number),
                linesInTheWay,
                along,
                openChanges,
                goalsInTheWay,
                neutralInTheWay);
    }

    Known lines(Refusal... inTheWay) {
        return new Known(
                document,
                access,
                emptyFacts,
                lostReferences,
                sheet,
                unread,
                components,
                newerModels,
                missingSignOffs,
                order,
                List.of(inTheWay),
                along,
                openChanges,
                goalsInTheWay,
                neutralInTheWay);
    }

    Known goals(Refusal... inTheWay) {
        return new Known(
                document,
                access,
                emptyFacts,
                lostReferences,
                sheet,
                unread,
                components,
                newerModels,
                missingSignOffs,
                order,
                linesInTheWay,
                along,
                openChanges,
                List.of(inTheWay),
                neutralInTheWay);
    }

    @Override
    public List<Refusal> findings(boolean review) {
        return review ? Stream.concat(sheet.stream(), unread.stream()).toList() : sheet;
    }

    @Override
    public boolean movesAlong(long item) {
        return along.contains(item);
    }

    Known marked(String... open) {
        return new Known(
                document,
                access,
                emptyFacts,
                lostReferences,
                sheet,
                unread,
                components,
                newerModels,
                missingSignOffs,
                order,
                linesInTheWay,
                along,
                List.of(open),
                goalsInTheWay,
                neutralInTheWay);
    }

    Known behind(Refusal inTheWay) {
        return new Known(
                document,
                access,
                emptyFacts,
                lostReferences,
                sheet,
                unread,
                components,
                newerModels,
                missingSignOffs,
                order,
                linesInTheWay,
                along,
                openChanges,
                goalsInTheWay,
                List.of(inTheWay));
    }
}
