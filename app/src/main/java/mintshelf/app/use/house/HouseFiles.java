package mintshelf.app.use.house;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import mintshelf.core.access.Right;
import mintshelf.core.access.Role;
import mintshelf.core.base.ContentHash;
import mintshelf.core.change.PaperType;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.Aspect;
import mintshelf.core.document.OutputFormat;
import mintshelf.core.document.Outputs;
import mintshelf.core.document.Stage;
import mintshelf.core.fact.FactForm;
import mintshelf.core.fact.FactHands;
import mintshelf.core.fact.FactType;
import mintshelf.core.fact.FactUse;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.house.FactRule;
import mintshelf.core.house.FilingOrder;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.SeriesRule;
import mintshelf.core.house.SignOffRule;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Gate;
import mintshelf.core.route.Gates;
import mintshelf.core.route.Move;
import mintshelf.core.signoff.Policy;
import mintshelf.core.signoff.SignOffLine;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** The house rules that are shipped, as files under {@code /house}: usable untouched, readable by whoever wants to know them. */
@Component
public class HouseFiles {
    private static final String FOLDER = "/house/";
    private static final List<String> ROUTES = List.of(
            "straight", "reviewed", "reviewed-twice", "paper", "part", "change-request", "change-order", "notice");

    private final JsonMapper json;

    public HouseFiles(JsonMapper json) {
        this.json = json;
    }

    private static <T> List<T> listed(T @Nullable [] values) {
        return values == null ? List.of() : List.of(values);
    }

    private static String said(@Nullable String text) {
        return text == null ? "" : text;
    }

    record RoleFile(String code, String name, String[] rights) {
        /** {@code *} stands for all rights. */
        Role role() {
            Set<Right> all = Arrays.asList(rights).contains("*")
                    ? EnumSet.allOf(Right.class)
                    : Arrays.stream(rights)
                            .map(Right::valueOf)
                            .collect(Collectors.toCollection(() -> EnumSet.noneOf(Right.class)));
            return new Role(code, name, all);
        }
    }

    record SeriesFile(String code, String name, String pattern, String scope) {
        SeriesRule rule() {
            return new SeriesRule(code, name, pattern, SeriesRule.Counts.valueOf(scope));
        }
    }

    record FactFile(
            String name,
            String label,
            FactType type,
            @Nullable String unit,
            @Nullable String pattern,
            String @Nullable [] choices,
            @Nullable String property,
            @Nullable String least,
            @Nullable Right released) {
        FactRule rule() {
            FactHands hands = new FactHands(
                    FactHands.USUAL.preparing(), FactHands.USUAL.deciding(), Optional.ofNullable(released));
            return new FactRule(
                    name,
                    label,
                    new FactForm(type, said(unit), said(pattern), listed(choices), said(least), ""),
                    FactUse.USUAL.of(said(property)).by(hands));
        }
    }

    record KindFactFile(
            String fact,
            @Nullable String required,
            @Nullable Boolean cleared) {
        KindRule.OnSheet onSheet() {
            return new KindRule.OnSheet(
                    fact,
                    required == null ? RequiredAt.NEVER : RequiredAt.valueOf(required),
                    cleared != null && cleared);
        }
    }

    record KindFile(
            String code,
            String name,
            Aspect aspect,
            String glyph,
            String numbers,
            String revisions,
            String labelAt,
            String route,
            @Nullable PaperType paper,
            KindFactFile @Nullable [] facts,
            OutputFormat @Nullable [] outputs,
            @Nullable String outputName) {
        KindRule rule() {
            return new KindRule(
                    code,
                    name,
                    aspect,
                    glyph,
                    numbers,
                    revisions,
                    labelAt.equals("START"),
                    route,
                    Optional.ofNullable(paper),
                    listed(facts).stream().map(KindFactFile::onSheet).toList(),
                    new Outputs(
                            outputs == null ? Outputs.USUAL.formats() : List.of(outputs),
                            outputName == null ? Outputs.USUAL.name() : outputName));
        }
    }

    record FilingRuleFile(
            String @Nullable [] contents, @Nullable String named, String kind) {
        FilingOrder.Sentence sentence() {
            return new FilingOrder.Sentence(
                    listed(contents).stream().map(ContentKind::valueOf).toList(), said(named), kind);
        }
    }

    record MoveFile(
            String code,
            String name,
            String from,
            String to,
            Right who,
            String @Nullable [] gates,
            Effect @Nullable [] effects,
            @Nullable String signOff) {
        Move move() {
            return new Move(
                    code,
                    name,
                    from,
                    to,
                    who,
                    listed(gates).stream().map(MoveFile::gate).toList(),
                    listed(effects),
                    said(signOff));
        }

        private static Gate gate(String code) {
            return Gates.of(code).orElseThrow(() -> new IllegalStateException("No gate is called " + code));
        }
    }

    /** A stage's class is called {@code class} in the file. */
    record RouteFile(String code, String name, Map<String, String>[] stages, MoveFile @Nullable [] moves) {
        List<Stage> stagesInOrder() {
            return IntStream.range(0, stages.length)
                    .mapToObj(i -> new Stage(
                            0,
                            stages[i].get("code"),
                            stages[i].get("name"),
                            StageClass.valueOf(stages[i].get("class")),
                            i + 1))
                    .toList();
        }

        List<Move> movesInOrder() {
            return listed(moves).stream().map(MoveFile::move).toList();
        }
    }

    /** A route as shipped, with the hash of its file. */
    record Shipped(RouteFile route, ContentHash hash) {}

    record SignOffFile(
            String code,
            String name,
            SignOffLine[] lines,
            @Nullable Policy policy) {
        SignOffRule rule() {
            return new SignOffRule(code, name, List.of(lines), policy == null ? Policy.FIRST_RETURN : policy);
        }
    }

    List<SignOffFile> signOffs() {
        return List.of(read("sign-offs.json", SignOffFile[].class));
    }

    List<RoleFile> roles() {
        return List.of(read("roles.json", RoleFile[].class));
    }

    List<SeriesFile> series() {
        return List.of(read("series.json", SeriesFile[].class));
    }

    List<FactFile> facts() {
        return List.of(read("facts.json", FactFile[].class));
    }

    List<KindFile> kinds() {
        return List.of(read("kinds.json", KindFile[].class));
    }

    List<FilingRuleFile> filingRules() {
        return List.of(read("filing-rules.json", FilingRuleFile[].class));
    }

    List<Shipped> routes() {
        return ROUTES.stream()
                .map(code -> bytes("routes/" + code + ".json"))
                .map(bytes -> new Shipped(json.readValue(bytes, RouteFile.class), ContentHash.compute(bytes)))
                .toList();
    }

    private <T> T read(String name, Class<T> type) {
        return json.readValue(bytes(name), type);
    }

    private static byte[] bytes(String name) {
        try (InputStream in = HouseFiles.class.getResourceAsStream(FOLDER + name)) {
            if (in == null) throw new IllegalStateException("The house rules lack " + name);
            return in.readAllBytes();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
