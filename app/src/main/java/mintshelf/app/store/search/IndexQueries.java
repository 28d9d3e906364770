package mintshelf.app.store.search;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.core.access.Access;
import mintshelf.core.access.Grant;
import mintshelf.core.access.Right;
import mintshelf.core.access.Scope;
import mintshelf.core.base.Texts;
import mintshelf.core.change.PaperType;
import mintshelf.core.search.Condition;
import mintshelf.core.search.Question;
import mintshelf.core.search.SearchText;
import mintshelf.core.search.Wanted;
import org.apache.lucene.document.DoublePoint;
import org.apache.lucene.document.LongPoint;
import org.apache.lucene.index.Term;
import org.apache.lucene.search.BooleanClause.Occur;
import org.apache.lucene.search.BooleanQuery;
import org.apache.lucene.search.BoostQuery;
import org.apache.lucene.search.ConstantScoreQuery;
import org.apache.lucene.search.DisjunctionMaxQuery;
import org.apache.lucene.search.FuzzyQuery;
import org.apache.lucene.search.MatchAllDocsQuery;
import org.apache.lucene.search.MultiTermQuery;
import org.apache.lucene.search.PhraseQuery;
import org.apache.lucene.search.PrefixQuery;
import org.apache.lucene.search.Query;
import org.apache.lucene.search.TermInSetQuery;
import org.apache.lucene.search.TermQuery;
import org.apache.lucene.util.BytesRef;

/**
 * Questions and rights as the index is asked. What fits better has a fixed weight: a weight that came of how often a word occurs would
 * tell, by the order of what is shown, of what is hidden.
 */
final class IndexQueries {
    private static final Query NONE = new BooleanQuery.Builder().build();
    private static final int LONG_WORD = 8;
    private static final int SHORT_WORD = 4;

    private final Map<Wanted.Mine, Set<Long>> own;
    private final boolean alike;

    /**
     * @param own what only the asking person's papers say, by document
     * @param alike whether words count that are written alike
     */
    IndexQueries(Map<Wanted.Mine, Set<Long>> own, boolean alike) {
        this.own = own;
        this.alike = alike;
    }

    /** All of a question, for what is a document or a version. */
    Query of(Question question, String plain, Access access, boolean versions) {
        BooleanQuery.Builder all = new BooleanQuery.Builder();
        all.add(term(Fields.WHAT, versions ? Fields.VERSION : Fields.DOCUMENT), Occur.FILTER);
        all.add(visible(access), Occur.FILTER);
        boolean some = false;
        for (Condition condition : question.conditions()) {
            Query query = wanted(condition.wanted());
            if (condition.not()) {
                all.add(query, Occur.MUST_NOT);
            } else {
                boolean words = condition.wanted() instanceof Wanted.Words;
                all.add(query, words ? Occur.MUST : Occur.FILTER);
                some |= words;
            }
        }
        if (some) all.add(whole(plain), Occur.SHOULD);
        else all.add(new ConstantScoreQuery(new MatchAllDocsQuery()), Occur.MUST);
        return all.build();
    }

    /** Documents that share traits, each of which weighs the same; where there are none, words of the title. */
    static Query alike(Access access, List<String> traits, List<String> title, long except) {
        BooleanQuery.Builder all = new BooleanQuery.Builder();
        all.add(term(Fields.WHAT, Fields.DOCUMENT), Occur.FILTER);
        all.add(visible(access), Occur.FILTER);
        all.add(term(Fields.ITEM, Long.toString(except)), Occur.MUST_NOT);
        traits.forEach(t -> all.add(weighs(1, term(Fields.TRAIT, t)), Occur.SHOULD));
        if (traits.isEmpty()) title.forEach(w -> all.add(weighs(1, term(Fields.TITLE, Fields.term(w))), Occur.SHOULD));
        all.setMinimumNumberShouldMatch(Math.max(1, traits.size() / 6));
        return all.build();
    }

    /** What a person may see: with work in preparation where they may, else released ones. As {@code Visible}, which asks the database. */
    static Query visible(Access access) {
        BooleanQuery.Builder seen = new BooleanQuery.Builder();
        Query preparing = scopes(access, Right.SEE_ALL);
        seen.add(both(term(Fields.VIEW, Fields.ALL), preparing), Occur.SHOULD);
        // Who asked for a change follows what becomes of it.
        Query asked = new BooleanQuery.Builder()
                .add(term(Fields.PAPER, PaperType.REQUEST.name()), Occur.FILTER)
                .add(term(Fields.AUTHOR, Long.toString(access.person())), Occur.FILTER)
                .build();
        seen.add(both(term(Fields.VIEW, Fields.ALL), asked), Occur.SHOULD);
        seen.add(
                new BooleanQuery.Builder()
                        .add(term(Fields.VIEW, Fields.RELEASED), Occur.FILTER)
                        .add(scopes(access, Right.SEE_RELEASED), Occur.FILTER)
                        .add(preparing, Occur.MUST_NOT)
                        .add(asked, Occur.MUST_NOT)
                        .build(),
                Occur.SHOULD);
        return seen.build();
    }

    private static Query both(Query a, Query b) {
        return new BooleanQuery.Builder()
                .add(a, Occur.FILTER)
                .add(b, Occur.FILTER)
                .build();
    }

    private static Query scopes(Access access, Right right) {
        List<Grant> grants = access.giving(right);
        if (grants.stream().anyMatch(g -> g.scope().equals(Scope.EVERYWHERE))) return new MatchAllDocsQuery();
        BooleanQuery.Builder any = new BooleanQuery.Builder();
        grants.stream().map(g -> scope(g.scope())).distinct().forEach(q -> any.add(q, Occur.SHOULD));
        return any.build();
    }

    private static Query scope(Scope scope) {
        BooleanQuery.Builder in = new BooleanQuery.Builder();
        scope.shelf().ifPresent(id -> in.add(term(Fields.SHELF, Long.toString(id)), Occur.FILTER));
        scope.folder().ifPresent(id -> in.add(term(Fields.FOLDER, Long.toString(id)), Occur.FILTER));
        scope.kind().ifPresent(id -> in.add(term(Fields.KIND, Long.toString(id)), Occur.FILTER));
        return in.build();
    }

    private Query wanted(Wanted wanted) {
        if (wanted instanceof Wanted.Words words) return words(words);
        if (wanted instanceof Wanted.Numbered numbered) return any(numbered.texts(), n -> number(n, false));
        if (wanted instanceof Wanted.Among among) return among(among);
        if (wanted instanceof Wanted.Within within) {
            return LongPoint.newRangeQuery(
                    switch (within.moment()) {
                        case CHANGED -> Fields.CHANGED;
                        case RELEASED -> Fields.RELEASED_AT;
                        case HELD -> Fields.HELD_AT;
                    },
                    within.from().map(i -> i.toEpochMilli()).orElse(Long.MIN_VALUE),
                    within.until().map(i -> i.toEpochMilli() - 1).orElse(Long.MAX_VALUE));
        }
        if (wanted instanceof Wanted.FactSays says) {
            return any(says.texts(), t -> beginnings(Fields.says(says.fact().id()), SearchText.words(t)));
        }
        if (wanted instanceof Wanted.FactWithin within) {
            return DoublePoint.newRangeQuery(Fields.amount(within.fact().id()), within.least(), within.most());
        }
        if (wanted instanceof Wanted.FactFilled filled) {
            return term(Fields.FILLED, Long.toString(filled.fact().id()));
        }
        Wanted.Own mine = (Wanted.Own) wanted;
        return new TermInSetQuery(
                Fields.ITEM,
                own.getOrDefault(mine.mine(), Set.of()).stream()
                        .map(id -> new BytesRef(Long.toString(id)))
                        .toList());
    }

    private static Query among(Wanted.Among among) {
        String field = switch (among.field()) {
            case STAGE -> Fields.STAGE;
            case STAGE_CLASS -> Fields.STAGE_CLASS;
            case REVISION -> Fields.REVISION;
            case KIND -> Fields.KIND;
            case SHELF -> Fields.SHELF;
            case FOLDER -> Fields.FOLDER;
            case HOLDER -> Fields.HOLDER;
            case AUTHOR -> Fields.AUTHOR;
            case FORMAT -> Fields.FORMAT;
        };
        if (!among.terms().isEmpty()) {
            return new TermInSetQuery(
                    field, among.terms().stream().map(BytesRef::new).toList());
        }
        // By anybody: it has one, and not nobody.
        return new BooleanQuery.Builder()
                .add(new PrefixQuery(new Term(field, "")), Occur.FILTER)
                .add(term(field, Fields.NOBODY), Occur.MUST_NOT)
                .build();
    }

    private Query words(Wanted.Words words) {
        return switch (words.where()) {
            case TITLE -> text(Fields.TITLE, words);
            case FILE -> text(Fields.FILE, words);
            case TEXT -> text(Fields.WORDS, words);
            case COMMENT -> text(Fields.COMMENT, words);
            case ANYWHERE -> {
                List<Query> ways = new ArrayList<>();
                if (!words.phrase()) ways.add(number(words.text(), true));
                ways.add(weighs(60, text(Fields.TITLE, words)));
                ways.add(weighs(40, text(Fields.FILE, words)));
                ways.add(weighs(10, text(Fields.COMMENT, words)));
                ways.add(weighs(10, text(Fields.WORDS, words)));
                yield new DisjunctionMaxQuery(ways, 0);
            }
        };
    }

    /** The number that was typed as a whole stands before all others. */
    private static Query whole(String plain) {
        List<Query> ways = new ArrayList<>();
        ways.add(weighs(100_000, term(Fields.NUMBER, Texts.key(plain))));
        ways.add(weighs(50_000, term(Fields.FORMER, Texts.key(plain))));
        return new DisjunctionMaxQuery(ways, 0);
    }

    /** A number from its beginning, with its hyphens or without; current before former ones. */
    private static Query number(String text, boolean weighed) {
        String key = Texts.key(text);
        String compact = Fields.compact(text);
        if (compact.isEmpty()) return NONE;
        Query current = either(begins(Fields.NUMBER, key), begins(Fields.COMPACT, compact));
        Query former = either(begins(Fields.FORMER, key), begins(Fields.FORMER_COMPACT, compact));
        if (!weighed) return either(current, former);
        return new DisjunctionMaxQuery(List.of(weighs(1000, current), weighs(500, former)), 0);
    }

    private Query text(String field, Wanted.Words words) {
        return words.phrase() ? phrase(field, words.words()) : beginnings(field, words.words());
    }

    /** All words, each as the beginning of one; a single letter is a word of its own. */
    private Query beginnings(String field, List<String> words) {
        if (words.isEmpty()) return NONE;
        BooleanQuery.Builder all = new BooleanQuery.Builder();
        for (String word : words) {
            String term = Fields.term(word);
            all.add(term.length() == 1 ? term(field, term) : begun(field, term), Occur.FILTER);
        }
        return all.build();
    }

    private Query begun(String field, String term) {
        Query begins = begins(field, term);
        if (!alike || term.length() < SHORT_WORD) return begins;
        // All words of the index are tried, so that what is hidden cannot push out what is not.
        Query near = new FuzzyQuery(
                new Term(field, term),
                term.length() < LONG_WORD ? 1 : 2,
                1,
                Integer.MAX_VALUE,
                true,
                MultiTermQuery.CONSTANT_SCORE_REWRITE);
        return either(begins, near);
    }

    private static Query phrase(String field, List<String> words) {
        if (words.isEmpty()) return NONE;
        if (words.size() == 1) return term(field, Fields.term(words.get(0)));
        return new PhraseQuery(field, words.stream().map(Fields::term).toArray(String[]::new));
    }

    private static Query any(Collection<String> texts, java.util.function.Function<String, Query> way) {
        BooleanQuery.Builder any = new BooleanQuery.Builder();
        texts.forEach(t -> any.add(way.apply(t), Occur.SHOULD));
        return any.build();
    }

    private static Query either(Query a, Query b) {
        return new BooleanQuery.Builder()
                .add(a, Occur.SHOULD)
                .add(b, Occur.SHOULD)
                .build();
    }

    private static Query begins(String field, String term) {
        return new PrefixQuery(new Term(field, term));
    }

    static Query term(String field, String term) {
        return new TermQuery(new Term(field, term));
    }

    private static Query weighs(float weight, Query query) {
        return new BoostQuery(new ConstantScoreQuery(query), weight);
    }
}
