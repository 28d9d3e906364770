package mintshelf.app.sight;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.redline.RemarkStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.core.access.Access;
import mintshelf.core.base.Refusal;
import mintshelf.core.change.LineState;
import mintshelf.core.change.OrderRules;
import mintshelf.core.change.PaperLine;
import mintshelf.core.document.Document;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.reference.ReferenceRules;
import mintshelf.core.route.By;
import mintshelf.core.route.Case;
import mintshelf.core.route.Gate;
import mintshelf.core.route.Route;
import mintshelf.core.route.Way;
import mintshelf.core.signoff.Round;
import mintshelf.core.structure.StructureGraph;
import org.springframework.stereotype.Component;

/**
 * What is known of documents when their gates are asked. What a gate asks for is read for all of them at once, when it first does:
 * the number of statements follows the gates, not the documents. Sheets alone are read one by one, and kept.
 */
@Component
public class Cases {
    private final FactStore facts;
    private final SpineStore spines;
    private final HouseStore house;
    private final LinkStore links;
    private final RoundStore rounds;
    private final OnOrders orders;
    private final CheckSheets checks;
    private final RemarkStore remarks;
    private final MadeOf made;

    public Cases(
            FactStore facts,
            SpineStore spines,
            HouseStore house,
            LinkStore links,
            RoundStore rounds,
            OnOrders orders,
            CheckSheets checks,
            RemarkStore remarks,
            MadeOf made) {
        this.facts = facts;
        this.spines = spines;
        this.house = house;
        this.links = links;
        this.rounds = rounds;
        this.orders = orders;
        this.checks = checks;
        this.remarks = remarks;
        this.made = made;
    }

    /** Of documents that an act wants to move together. */
    public Map<Long, Case> of(Actor actor, Collection<Seen> all) {
        return of(actor, all, false);
    }

    /** For a page: it does not wait for a sheet that takes long; the act looks at it anyway. */
    public Map<Long, Case> soon(Actor actor, Collection<Seen> all) {
        return of(actor, all, true);
    }

    private Map<Long, Case> of(Actor actor, Collection<Seen> all, boolean soon) {
        Together together = new Together(actor, all, soon);
        Map<Long, Case> cases = new LinkedHashMap<>();
        for (Seen seen : all) cases.put(seen.spine().id(), together.new One(seen.document()));
        return cases;
    }

    /** Read when it is first asked for. */
    private static final class Later<T> {
        private final Supplier<T> reading;
        private Optional<T> read = Optional.empty();

        Later(Supplier<T> reading) {
            this.reading = reading;
        }

        T get() {
            if (read.isEmpty()) read = Optional.of(reading.get());
            return read.get();
        }
    }

    private final class Together {
        private final Actor actor;
        private final boolean soon;
        private final Map<Long, Document> all = new LinkedHashMap<>();
        private final Later<Map<Long, List<String>>> emptyFacts = new Later<>(() -> emptyFacts(all.values()));
        private final Later<Map<Long, List<Reference>>> refers = new Later<>(this::refers);
        private final Later<Map<Long, List<Long>>> parts = new Later<>(this::parts);
        private final Later<Map<Long, Spine>> components = new Later<>(this::componentSpines);
        private final Later<Map<Long, List<String>>> newer = new Later<>(this::newer);
        private final Later<Map<Long, List<String>>> marked = new Later<>(() -> remarks.openChanges(all.keySet()));
        private final Later<Map<Long, Round>> open = new Later<>(this::open);
        private final Later<Map<Long, CheckSheets.Due>> due = new Later<>(() -> checks.due(all.values()));
        private final Later<Map<Long, Refusal>> unseen = new Later<>(() -> checks.withoutNeutral(all.values()));
        private final Later<Map<Long, PaperStore.On>> on = new Later<>(() -> orders.open(all.keySet()));

        Together(Actor actor, Collection<Seen> seen, boolean soon) {
            this.actor = actor;
            this.soon = soon;
            seen.forEach(s -> all.put(s.spine().id(), s.document()));
        }

        private Map<Long, List<Reference>> refers() {
            return made.references(
                    all.values().stream().map(d -> d.head().version()).toList());
        }

        private List<Reference> of(Document document) {
            return refers.get().getOrDefault(document.head().version(), List.of());
        }

        /** What documents are made of, by document. */
        private Map<Long, List<Long>> parts() {
            return made.of(all.keySet()).stream()
                    .collect(Collectors.groupingBy(
                            StructureGraph.Use::parent,
                            Collectors.mapping(StructureGraph.Use::component, Collectors.toList())));
        }

        private Stream<Long> within(Document document) {
            return parts.get().getOrDefault(document.id(), List.of()).stream().distinct();
        }

        private Map<Long, Spine> componentSpines() {
            return spines.spines(all.values().stream().flatMap(this::within).collect(Collectors.toSet()));
        }

        private Map<Long, List<String>> newer() {
            List<LinkStore.Link> behind = links.around(all.keySet()).stream()
                    .filter(l -> l.kind() == LinkStore.Kind.SHOWS && all.containsKey(l.item()) && l.isBehind())
                    .toList();
            if (behind.isEmpty()) return Map.of();
            Map<Long, Spine> models =
                    spines.spines(behind.stream().map(LinkStore.Link::target).toList());
            Map<Long, List<String>> numbers = new HashMap<>();
            for (LinkStore.Link link : behind) {
                numbers.computeIfAbsent(link.item(), i -> new ArrayList<>()).add(name(models.get(link.target())));
            }
            return numbers;
        }

        private Map<Long, Round> open() {
            Map<Long, Long> ids = rounds.openRounds(all.keySet());
            Map<Long, Round> byId = rounds.rounds(ids.values());
            Map<Long, Round> byItem = new HashMap<>();
            ids.forEach((item, round) -> byItem.put(item, byId.get(round)));
            return byItem;
        }

        /** What the actor may not know of has no name. */
        private String name(Spine spine) {
            return Seen.by(actor, spine).isPresent() ? spine.document().number() : "one that you do not see";
        }

        private final class One implements Case {
            private final Document document;

            One(Document document) {
                this.document = document;
            }

            @Override
            public Document document() {
                return document;
            }

            @Override
            public Access access() {
                return actor.access();
            }

            @Override
            public List<String> emptyFacts() {
                return emptyFacts.get().getOrDefault(document.id(), List.of());
            }

            @Override
            public Optional<Refusal> lostReferences() {
                List<Reference> all = of(document);
                return ReferenceRules.gate(
                        document.number(), paths(all, Reference.State.MISSING), paths(all, Reference.State.AMBIGUOUS));
            }

            @Override
            public List<Refusal> findings(boolean review) {
                CheckSheets.Due sheet = due.get().get(document.id());
                if (sheet == null) return List.of();
                return soon ? checks.inTheWaySoon(sheet, review) : checks.inTheWay(sheet, review);
            }

            @Override
            public List<Case.Within> components() {
                return within(document)
                        .filter(components.get()::containsKey)
                        .map(components.get()::get)
                        .map(s -> new Case.Within(
                                s.id(), name(s), s.document().released().isPresent()))
                        .toList();
            }

            @Override
            public List<String> newerModels() {
                return newer.get().getOrDefault(document.id(), List.of());
            }

            @Override
            public List<String> openChanges() {
                return marked.get().getOrDefault(document.id(), List.of());
            }

            @Override
            public List<String> missingSignOffs() {
                Round round = open.get().get(document.id());
                if (round == null) return List.of("the sign-offs of its round");
                return round.state() == Round.State.SIGNED ? List.of() : round.missing();
            }

            @Override
            public Optional<String> order() {
                return Optional.ofNullable(on.get().get(document.id())).map(PaperStore.On::number);
            }

            @Override
            public List<Refusal> linesInTheWay() {
                return lines(actor, document.id());
            }

            @Override
            public List<Refusal> goalsInTheWay() {
                return orders.goalsInTheWay(actor, document.id());
            }

            @Override
            public List<Refusal> neutralInTheWay() {
                return Optional.ofNullable(unseen.get().get(document.id())).stream()
                        .toList();
            }

            @Override
            public boolean movesAlong(long item) {
                return all.containsKey(item);
            }
        }
    }

    private static List<String> paths(List<Reference> references, Reference.State state) {
        return references.stream()
                .filter(r -> r.state() == state)
                .map(r -> r.written().path())
                .toList();
    }

    /** Labels of the facts that the kinds of documents require for release and their current revisions lack. */
    public Map<Long, List<String>> emptyFacts(Collection<Document> all) {
        Map<Long, List<KindFact>> sheets = house.factSheets();
        Map<Long, Set<String>> filled =
                facts.filled(all.stream().map(d -> d.current().id()).toList());
        Map<Long, List<String>> empty = new HashMap<>();
        for (Document document : all) {
            Set<String> has = filled.getOrDefault(document.current().id(), Set.of());
            empty.put(
                    document.id(),
                    sheets.getOrDefault(document.place().kind(), List.of()).stream()
                            .filter(f -> f.required() != RequiredAt.NEVER)
                            .filter(f -> !has.contains(f.fact().name()))
                            .map(f -> f.fact().label())
                            .toList());
        }
        return empty;
    }

    /** What keeps the lines of an order from its board: how far each is, and what its own move to review demands. */
    private List<Refusal> lines(Actor actor, long order) {
        List<PaperLine> lines = orders.lines(order);
        Set<Long> saying = orders.sayingFacts(order);
        Map<Long, Seen> seen = new LinkedHashMap<>();
        spines.spines(lines.stream().map(PaperLine::item).toList())
                .forEach((id, spine) -> Seen.by(actor, spine).ifPresent(s -> seen.put(id, s)));
        Map<Long, List<String>> empty =
                emptyFacts(seen.values().stream().map(Seen::document).toList());
        Map<Long, Case> cases = of(actor, seen.values());
        List<Refusal> inTheWay = new ArrayList<>();
        for (PaperLine line : lines) {
            Seen one = seen.get(line.item());
            if (one == null) {
                inTheWay.add(Refusal.of(
                        "order.line", "One of its documents you do not see.", "Ask somebody who sees them all."));
                continue;
            }
            Document document = one.document();
            LineState state = OrderRules.state(
                    line, document, empty.getOrDefault(document.id(), List.of()), saying.contains(document.id()));
            if (!state.isReady()) {
                inTheWay.add(Refusal.of(
                        "order.line",
                        document.number() + " is not ready: " + state.says() + ".",
                        state.says().startsWith("held by")
                                ? "Ask for it to be checked in."
                                : "Check in what the order asks for."));
                continue;
            }
            Route route = house.edition(document.current().stage().edition());
            if (line.factsOnly()) continue;
            // What has no review of its own is released from where it is.
            (line.withdraws()
                            ? Way.withdrawn().of(route, document).move()
                            : Way.toBoard()
                                    .of(route, document)
                                    .move()
                                    .or(() -> Way.released().of(route, document).move()))
                    .ifPresent(move -> inTheWay.addAll(Gate.all(move.gates(), cases.get(document.id()), By.ORDER)));
        }
        return inTheWay;
    }
}
