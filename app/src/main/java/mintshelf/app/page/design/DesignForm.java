package mintshelf.app.page.design;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.page.Pages;
import mintshelf.app.use.design.ReadDesign.Asked;
import mintshelf.core.base.Texts;
import mintshelf.core.reuse.Design;
import mintshelf.core.structure.StructureView;
import org.springframework.util.MultiValueMap;

/**
 * What the page of a new design holds of what was typed. A cell says something of its own where it is not what the page put into it; what was typed on
 * other parts of a long tree goes along in one field.
 */
final class DesignForm {
    private static final Pattern CELL = Pattern.compile("n[0-9]{1,18}");
    private static final Pattern TYPED = Pattern.compile("[0-9]{1,18}=.*");
    /** Lines of words and facts that are taken. */
    private static final int MOST_LINES = 20;

    private final MultiValueMap<String, String> form;

    DesignForm(MultiValueMap<String, String> form) {
        this.form = form;
    }

    private String one(String field) {
        return Optional.ofNullable(form.getFirst(field)).orElse("");
    }

    /** Which part of the tree is shown, from 0. */
    int part() {
        return one("part").matches("[0-9]{1,4}") ? Integer.parseInt(one("part")) : 0;
    }

    /** What was seen of it when it was asked for. */
    String seen() {
        return one("seen");
    }

    String key() {
        return one("actKey");
    }

    Asked asked(long root) {
        return new Asked(
                one("from"),
                one("to"),
                one("by").equals("series"),
                new Wish.Design(
                        root,
                        view(),
                        typed(),
                        Pages.ids(one("folder")).stream().findFirst(),
                        one("newFolder").strip(),
                        words(),
                        facts(),
                        form.containsKey("hold")));
    }

    private StructureView view() {
        for (StructureView view : DesignPages.VIEWS) if (view.code().equals(one("view"))) return view;
        return StructureView.LATEST;
    }

    private Map<Long, String> typed() {
        Map<Long, String> typed = new LinkedHashMap<>();
        for (String line : one("typed").split("\n")) {
            String clean = line.strip();
            if (TYPED.matcher(clean).matches()) {
                int cut = clean.indexOf('=');
                typed.put(Long.parseLong(clean.substring(0, cut)), clean.substring(cut + 1));
            }
        }
        form.forEach((name, values) -> {
            if (!CELL.matcher(name).matches() || values.isEmpty()) return;
            long id = Long.parseLong(name.substring(1));
            String said = Texts.line(values.get(0));
            if (said.equals(one("w" + id))) typed.remove(id);
            else typed.put(id, said);
        });
        return typed;
    }

    /** What was typed, as the field carries it. */
    static String joined(Map<Long, String> typed) {
        StringBuilder all = new StringBuilder();
        typed.forEach((id, number) -> all.append(id).append('=').append(number).append('\n'));
        return all.toString();
    }

    private List<Design.Words> words() {
        List<Design.Words> words = new ArrayList<>();
        List<String> from = form.getOrDefault("wordsFrom", List.of());
        List<String> to = form.getOrDefault("wordsTo", List.of());
        for (int i = 0; i < Math.min(MOST_LINES, Math.min(from.size(), to.size())); i++)
            if (!from.get(i).isBlank())
                words.add(new Design.Words(from.get(i).strip(), to.get(i).strip()));
        return words;
    }

    private List<Wish.Design.Fact> facts() {
        List<Wish.Design.Fact> facts = new ArrayList<>();
        List<String> names = form.getOrDefault("fact", List.of());
        List<String> from = form.getOrDefault("factFrom", List.of());
        List<String> to = form.getOrDefault("factTo", List.of());
        for (int i = 0; i < Math.min(MOST_LINES, Math.min(names.size(), Math.min(from.size(), to.size()))); i++)
            if (!names.get(i).isBlank())
                facts.add(new Wish.Design.Fact(
                        names.get(i), from.get(i).strip(), to.get(i).strip()));
        return facts;
    }
}
