package mintshelf.app.store.search;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import mintshelf.core.base.Texts;
import mintshelf.core.fact.FactValue;
import org.apache.lucene.document.Document;
import org.apache.lucene.document.DoublePoint;
import org.apache.lucene.document.Field;
import org.apache.lucene.document.LongPoint;
import org.apache.lucene.document.NumericDocValuesField;
import org.apache.lucene.document.SortedDocValuesField;
import org.apache.lucene.document.SortedSetDocValuesField;
import org.apache.lucene.document.StringField;
import org.apache.lucene.document.TextField;
import org.apache.lucene.util.BytesRef;

/** Entries as the index keeps them. */
final class Entries {
    private static final int SORTED = 120;

    private Entries() {}

    static Document document(Entry e) {
        Document d = new Document();
        term(d, Fields.ITEM, Long.toString(e.item()));
        d.add(new NumericDocValuesField(Fields.ITEM, e.item()));
        term(d, Fields.WHAT, e.version().isPresent() ? Fields.VERSION : Fields.DOCUMENT);
        e.version().ifPresent(n -> d.add(new NumericDocValuesField(Fields.VERSION, n)));
        if (e.all()) term(d, Fields.VIEW, Fields.ALL);
        if (e.released()) term(d, Fields.VIEW, Fields.RELEASED);
        numbers(d, e);
        words(d, e);
        placed(d, e.placed());
        stands(d, e);
        times(d, e);
        e.facts().forEach((fact, value) -> fact(d, fact, value));
        return d;
    }

    private static void numbers(Document d, Entry e) {
        for (int i = 0; i < e.numbers().size(); i++) {
            String number = e.numbers().get(i);
            term(d, i == 0 ? Fields.NUMBER : Fields.FORMER, Texts.key(number));
            term(d, i == 0 ? Fields.COMPACT : Fields.FORMER_COMPACT, Fields.compact(number));
        }
        d.add(new SortedDocValuesField(Fields.BY_NUMBER, new BytesRef(Texts.shorten(e.sort(), 250))));
        d.add(new SortedDocValuesField(Fields.BY_TITLE, new BytesRef(Texts.shorten(Texts.key(e.title()), SORTED))));
    }

    private static void words(Document d, Entry e) {
        d.add(new TextField(Fields.TITLE, e.title(), Field.Store.NO));
        d.add(new TextField(Fields.FILE, e.fileName(), Field.Store.NO));
        e.words().forEach(w -> d.add(new TextField(Fields.WORDS, w, Field.Store.NO)));
        for (String trait : e.traits().split(" ")) if (!trait.isEmpty()) term(d, Fields.TRAIT, trait);
        if (!e.comment().isEmpty()) d.add(new TextField(Fields.COMMENT, e.comment(), Field.Store.NO));
    }

    private static void placed(Document d, Entry.Placed p) {
        counted(d, Fields.SHELF, Long.toString(p.shelf()));
        for (int i = 0; i < p.folders().size(); i++) {
            String folder = Long.toString(p.folders().get(i));
            term(d, Fields.FOLDER, folder);
            if (i == 0) facet(d, Fields.FOLDER, folder);
        }
        counted(d, Fields.KIND, Long.toString(p.kind()));
        term(d, Fields.AUTHOR, Long.toString(p.author()));
        if (!p.paper().isEmpty()) term(d, Fields.PAPER, p.paper());
    }

    private static void stands(Document d, Entry e) {
        e.stages().forEach(s -> term(d, Fields.STAGE_CLASS, s.stageClass()));
        distinct(e.stages().stream().map(Entry.StageOf::term).toList()).forEach(s -> counted(d, Fields.STAGE, s));
        for (String label : distinct(e.revisions())) {
            term(d, Fields.REVISION, Texts.key(label));
            facet(d, Fields.REVISION, label);
        }
        // Who holds it is told to those alone who see work in preparation; a version is held by nobody.
        if (e.version().isEmpty() && e.all()) {
            counted(
                    d,
                    Fields.HOLDER,
                    e.held().map(h -> Long.toString(h.person())).orElse(Fields.NOBODY));
        }
        term(d, Fields.FORMAT, e.format());
    }

    private static void times(Document d, Entry e) {
        moment(d, Fields.CHANGED, e.changed().toEpochMilli());
        e.releasedAt().ifPresent(at -> d.add(new LongPoint(Fields.RELEASED_AT, at.toEpochMilli())));
        e.held().ifPresent(h -> d.add(new LongPoint(Fields.HELD_AT, h.since().toEpochMilli())));
    }

    private static void moment(Document d, String field, long at) {
        d.add(new LongPoint(field, at));
        d.add(new NumericDocValuesField(field, at));
    }

    private static void fact(Document d, long fact, FactValue value) {
        term(d, Fields.FILLED, Long.toString(fact));
        if (value instanceof FactValue.Words words) {
            d.add(new TextField(Fields.says(fact), words.text(), Field.Store.NO));
            facet(d, Fields.says(fact), words.text());
        } else if (value instanceof FactValue.Quantity quantity) {
            d.add(new DoublePoint(Fields.amount(fact), amount(quantity.number())));
        } else if (value instanceof FactValue.Day day) {
            d.add(new DoublePoint(Fields.amount(fact), day.day().toEpochDay()));
        }
    }

    private static double amount(BigDecimal number) {
        return number.doubleValue();
    }

    private static void term(Document d, String field, String term) {
        d.add(new StringField(field, term, Field.Store.NO));
    }

    private static void facet(Document d, String field, String value) {
        d.add(new SortedSetDocValuesField(Fields.facet(field), new BytesRef(Texts.shorten(value, SORTED))));
    }

    private static void counted(Document d, String field, String term) {
        term(d, field, term);
        facet(d, field, term);
    }

    private static List<String> distinct(List<String> all) {
        return new ArrayList<>(new LinkedHashSet<>(all));
    }

    /** Those that are about one document stand side by side in the index. */
    static List<Document> documents(List<Entry> entries) {
        return entries.stream().map(Entries::document).toList();
    }
}
