package mintshelf.app.api;

import java.io.StringWriter;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import mintshelf.app.ground.Actor;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.search.KeptSearchStore.Kept;
import mintshelf.app.use.search.KeptSearches;
import mintshelf.app.use.search.Search;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Kept searches for programs, and as feeds (Atom, RFC 4287). */
@RestController
@RequestMapping("/api/v1")
class SearchApi {
    private static final String ATOM = "http://www.w3.org/2005/Atom";

    private final KeptSearches searches;
    private final Settings settings;

    SearchApi(KeptSearches searches, Settings settings) {
        this.searches = searches;
        this.settings = settings;
    }

    /**
     * A kept search.
     *
     * @param hits how many documents fit
     * @param fresh how many of them have moved since the person looked at them last
     */
    record KeptSearch(Long id, String name, String q, String group, int hits, int fresh) {}

    @GetMapping("/searches")
    List<KeptSearch> searches(Actor actor) {
        return searches.lines(actor).stream()
                .map(l -> new KeptSearch(
                        l.kept().map(Kept::id).orElse(null),
                        l.name(),
                        l.q(),
                        l.kept().map(Kept::groupName).orElse(""),
                        l.hits(),
                        l.fresh()))
                .toList();
    }

    /** The hits that moved last, as a feed; a reader of feeds may sign in with a token in place of a password. */
    @GetMapping(path = "/searches/{id}/feed", produces = "application/atom+xml;charset=UTF-8")
    String feed(Actor actor, @PathVariable long id) throws XMLStreamException {
        KeptSearches.Feed feed = searches.feed(actor, id);
        StringWriter out = new StringWriter();
        XMLStreamWriter xml = XMLOutputFactory.newInstance().createXMLStreamWriter(out);
        xml.writeStartDocument("UTF-8", "1.0");
        xml.writeStartElement("feed");
        xml.writeDefaultNamespace(ATOM);
        String page = settings.origin() + "/searches/" + id;
        element(xml, "id", page);
        element(xml, "title", feed.kept().name());
        Instant latest = feed.hits().stream()
                .map(h -> h.seen().spine().changed())
                .max(Instant::compareTo)
                .orElse(feed.kept().keptAt());
        element(xml, "updated", latest.toString());
        xml.writeStartElement("author");
        element(xml, "name", "Mint Shelf");
        xml.writeEndElement();
        link(xml, "alternate", page);
        link(xml, "self", settings.origin() + "/api/v1/searches/" + id + "/feed");
        for (Search.Hit hit : feed.hits()) entry(xml, hit.seen());
        xml.writeEndElement();
        xml.writeEndDocument();
        xml.flush();
        return out.toString();
    }

    private void entry(XMLStreamWriter xml, Seen seen) throws XMLStreamException {
        var d = seen.document();
        String page = settings.origin() + "/documents/" + d.id();
        Optional<String> label = seen.current().label();
        xml.writeStartElement("entry");
        // What moved again is news again.
        element(xml, "id", page + "#" + seen.spine().changed().toEpochMilli());
        element(xml, "title", d.number() + label.map(l -> " " + l).orElse("") + " " + d.title());
        element(xml, "updated", seen.spine().changed().toString());
        link(xml, "alternate", page);
        element(
                xml,
                "summary",
                seen.spine().kindName() + ", version " + seen.version() + ", "
                        + seen.current().stage().name());
        xml.writeEndElement();
    }

    private static void link(XMLStreamWriter xml, String rel, String href) throws XMLStreamException {
        xml.writeEmptyElement("link");
        xml.writeAttribute("rel", rel);
        xml.writeAttribute("href", href);
    }

    private static void element(XMLStreamWriter xml, String name, String text) throws XMLStreamException {
        xml.writeStartElement(name);
        xml.writeCharacters(text);
        xml.writeEndElement();
    }
}
