package mintshelf.app.store.search;

import java.io.Closeable;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import mintshelf.core.access.Access;
import org.apache.lucene.document.Document;
import org.apache.lucene.facet.FacetResult;
import org.apache.lucene.facet.FacetsCollector;
import org.apache.lucene.facet.FacetsCollectorManager;
import org.apache.lucene.facet.LabelAndValue;
import org.apache.lucene.facet.StringDocValuesReaderState;
import org.apache.lucene.facet.StringValueFacetCounts;
import org.apache.lucene.index.IndexReader;
import org.apache.lucene.index.IndexWriter;
import org.apache.lucene.index.IndexWriterConfig;
import org.apache.lucene.index.MultiDocValues;
import org.apache.lucene.index.NumericDocValues;
import org.apache.lucene.index.Term;
import org.apache.lucene.search.IndexSearcher;
import org.apache.lucene.search.Query;
import org.apache.lucene.search.ScoreDoc;
import org.apache.lucene.search.SearcherManager;
import org.apache.lucene.search.Sort;
import org.apache.lucene.search.SortField;
import org.apache.lucene.search.TopDocs;
import org.apache.lucene.search.TopFieldCollectorManager;
import org.apache.lucene.store.Directory;

/** One index: written to and asked. */
final class SearchIndex implements Closeable {
    /** Values of one facet that are counted out; the others are told by how many they are. */
    static final int MOST_VALUES = 40;

    private static final int MOST_ALIKE = 6;

    private static final double MEMORY = 48;

    private final Directory folder;
    private final IndexWriter writer;
    private final SearcherManager searchers;
    /** What a facet's values are is found out once for each state of the index. */
    private final Map<IndexReader.CacheKey, Map<String, StringDocValuesReaderState>> states = new ConcurrentHashMap<>();

    /**
     * @param folder is closed with it
     * @param anew whether what lies there is of no use
     * @throws IOException when the folder is another process's, or broken
     */
    SearchIndex(Directory folder, boolean anew) throws IOException {
        this.folder = folder;
        try {
            IndexWriterConfig config = new IndexWriterConfig(Fields.WORDS_OF);
            config.setOpenMode(anew ? IndexWriterConfig.OpenMode.CREATE : IndexWriterConfig.OpenMode.CREATE_OR_APPEND);
            config.setRAMBufferSizeMB(MEMORY);
            writer = new IndexWriter(folder, config);
        } catch (IOException | RuntimeException e) {
            folder.close();
            throw e;
        }
        searchers = new SearcherManager(writer, null);
    }

    /** What was kept with the last commit. */
    Map<String, String> kept() {
        Map<String, String> kept = new HashMap<>();
        Iterable<Map.Entry<String, String>> data = writer.getLiveCommitData();
        if (data != null) data.forEach(e -> kept.put(e.getKey(), e.getValue()));
        return kept;
    }

    /** Replaces all that is said of documents; nothing is left of those without entries. */
    void put(Collection<Long> items, Map<Long, List<Entry>> entries) {
        try {
            for (long item : items) {
                List<Document> documents = Entries.documents(entries.getOrDefault(item, List.of()));
                Term all = new Term(Fields.ITEM, Long.toString(item));
                if (documents.isEmpty()) writer.deleteDocuments(all);
                else writer.updateDocuments(all, documents);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** What was put is found from now on. */
    void refresh() {
        try {
            searchers.maybeRefreshBlocking();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Keeps it as it stands over the end of the process. */
    void keep(Map<String, String> data) {
        try {
            writer.setLiveCommitData(data.entrySet());
            writer.commit();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    Ask.Answer ask(Ask ask) {
        Ask.Answer answer = ask(ask, false);
        int words = ask.question().words().size();
        // Each word is held against all words of the index: a sentence of mistakes would keep the node busy.
        if (answer.total() > 0 || words == 0 || words > MOST_ALIKE) return answer;
        Ask.Answer alike = ask(ask, true);
        return alike.total() == 0 ? answer : alike;
    }

    /** How many hits a question has, as it is written. */
    int count(Ask ask) {
        try {
            IndexSearcher searcher = searchers.acquire();
            try {
                return searcher.count(query(ask, false));
            } finally {
                searchers.release(searcher);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * Documents that a person may see and that have most of some traits.
     *
     * @param traits at least a sixth of them is wanted
     * @param title words of which one in the title is enough, where there are no traits
     * @param except the document that they are of
     */
    List<Long> alike(Access access, List<String> traits, List<String> title, long except, int most) {
        Query query = IndexQueries.alike(access, traits, title, except);
        Sort sort = new Sort(
                SortField.FIELD_SCORE,
                new SortField(Fields.BY_NUMBER, SortField.Type.STRING),
                new SortField(Fields.ITEM, SortField.Type.LONG));
        try {
            IndexSearcher searcher = searchers.acquire();
            try {
                List<Long> items = new ArrayList<>();
                for (ScoreDoc doc : searcher.search(query, most, sort).scoreDocs) {
                    items.add(value(searcher, doc, Fields.ITEM));
                }
                return items;
            } finally {
                searchers.release(searcher);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Query query(Ask ask, boolean alike) {
        return new IndexQueries(ask.own(), alike).of(ask.question(), ask.plain(), ask.access(), ask.versions());
    }

    private Ask.Answer ask(Ask ask, boolean alike) {
        Query query = query(ask, alike);
        try {
            IndexSearcher searcher = searchers.acquire();
            try {
                return answer(searcher, query, ask, alike);
            } finally {
                searchers.release(searcher);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private Ask.Answer answer(IndexSearcher searcher, Query query, Ask ask, boolean alike) throws IOException {
        Sort sort = sort(ask);
        int wanted = Math.max(
                1,
                Math.min(
                        ask.from() + ask.most(),
                        Math.max(1, searcher.getIndexReader().maxDoc())));
        TopDocs top;
        Map<Ask.Facet, List<Ask.Count>> facets = Map.of();
        if (ask.facets().isEmpty()) {
            top = searcher.search(query, new TopFieldCollectorManager(sort, wanted, null, Integer.MAX_VALUE));
        } else {
            var found = FacetsCollectorManager.search(searcher, query, wanted, sort, new FacetsCollectorManager());
            top = found.topDocs();
            facets = count(searcher.getIndexReader(), found.facetsCollector(), ask.facets());
        }
        List<Ask.Hit> hits = new ArrayList<>();
        for (int i = ask.from(); i < top.scoreDocs.length && hits.size() < ask.most(); i++) {
            hits.add(hit(searcher, top.scoreDocs[i], ask.versions()));
        }
        return new Ask.Answer(hits, Math.toIntExact(top.totalHits.value), facets, alike);
    }

    private static Ask.Hit hit(IndexSearcher searcher, ScoreDoc doc, boolean version) throws IOException {
        return new Ask.Hit(
                value(searcher, doc, Fields.ITEM), version ? Math.toIntExact(value(searcher, doc, Fields.VERSION)) : 0);
    }

    private static long value(IndexSearcher searcher, ScoreDoc doc, String field) throws IOException {
        NumericDocValues values = MultiDocValues.getNumericValues(searcher.getIndexReader(), field);
        return values != null && values.advanceExact(doc.doc) ? values.longValue() : 0;
    }

    private static Sort sort(Ask ask) {
        SortField number = new SortField(Fields.BY_NUMBER, SortField.Type.STRING);
        SortField item = new SortField(Fields.ITEM, SortField.Type.LONG);
        List<SortField> by = new ArrayList<>();
        switch (ask.order()) {
            // Versions stand by their documents.
            case FIT -> {
                if (!ask.versions()) by.add(SortField.FIELD_SCORE);
            }
            case TITLE -> by.add(new SortField(Fields.BY_TITLE, SortField.Type.STRING));
            case CHANGED -> by.add(new SortField(Fields.CHANGED, SortField.Type.LONG, true));
            case NUMBER -> {}
        }
        by.add(number);
        by.add(item);
        if (ask.versions()) by.add(new SortField(Fields.VERSION, SortField.Type.LONG, true));
        return new Sort(by.toArray(SortField[]::new));
    }

    private Map<Ask.Facet, List<Ask.Count>> count(IndexReader reader, FacetsCollector found, List<Ask.Facet> facets)
            throws IOException {
        Map<Ask.Facet, List<Ask.Count>> counts = new LinkedHashMap<>();
        for (Ask.Facet facet : facets) {
            String field = Fields.facet(field(facet));
            List<Ask.Count> values = new ArrayList<>();
            StringDocValuesReaderState state = state(reader, field);
            FacetResult result = new StringValueFacetCounts(state, found).getTopChildren(MOST_VALUES, field);
            if (result != null) {
                for (LabelAndValue value : result.labelValues) {
                    values.add(new Ask.Count(value.label, value.value.intValue()));
                }
            }
            if (!values.isEmpty()) counts.put(facet, values);
        }
        return counts;
    }

    private StringDocValuesReaderState state(IndexReader reader, String field) {
        IndexReader.CacheHelper helper = reader.getReaderCacheHelper();
        Map<String, StringDocValuesReaderState> of = states.computeIfAbsent(helper.getKey(), key -> {
            helper.addClosedListener(states::remove);
            return new ConcurrentHashMap<>();
        });
        return of.computeIfAbsent(field, f -> {
            try {
                return new StringDocValuesReaderState(reader, f);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
    }

    private static String field(Ask.Facet facet) {
        if (facet instanceof Ask.Facet.Fact fact) return Fields.says(fact.id());
        return switch (((Ask.Facet.Known) facet).field()) {
            case STAGE -> Fields.STAGE;
            case REVISION -> Fields.REVISION;
            case KIND -> Fields.KIND;
            case SHELF -> Fields.SHELF;
            case FOLDER -> Fields.FOLDER;
            case HOLDER -> Fields.HOLDER;
            case STAGE_CLASS, AUTHOR, FORMAT -> throw new IllegalArgumentException("not counted: " + facet);
        };
    }

    /** How many entries it has. */
    int size() {
        try {
            IndexSearcher searcher = searchers.acquire();
            try {
                return searcher.getIndexReader().numDocs();
            } finally {
                searchers.release(searcher);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Override
    public void close() throws IOException {
        searchers.close();
        writer.close();
        folder.close();
    }
}
