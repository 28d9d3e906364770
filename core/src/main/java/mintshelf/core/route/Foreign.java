package mintshelf.core.route;

import java.io.StringReader;
import java.io.StringWriter;
import java.util.Optional;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import javax.xml.stream.XMLStreamWriter;

/**
 * What a state chart holds for other readers: elements of any namespace, kept as text that stands by itself, never run, and given out again
 * where they stood. O(letters).
 */
final class Foreign {
    /** Letters of one chart that are kept. */
    static final int MOST = 100_000;

    private static final String AROUND = "<around>";

    private Foreign() {}

    /** The element at which a reader stands, with all that is in it; the reader stands at its end then. */
    static String take(XMLStreamReader in) throws XMLStreamException {
        StringWriter text = new StringWriter();
        XMLStreamWriter out = XMLOutputFactory.newFactory().createXMLStreamWriter(text);
        copy(in, out);
        out.flush();
        return text.toString();
    }

    /** Writes elements that were taken where a writer stands. */
    static void give(String kept, XMLStreamWriter out) throws XMLStreamException {
        XMLInputFactory factory = factory();
        XMLStreamReader in = factory.createXMLStreamReader(new StringReader(AROUND + kept + AROUND.replace("<", "</")));
        in.nextTag();
        while (in.hasNext()) {
            int event = in.next();
            if (event == XMLStreamConstants.START_ELEMENT) copy(in, out);
        }
    }

    /** A reader that takes in nothing from outside. */
    static XMLInputFactory factory() {
        XMLInputFactory factory = XMLInputFactory.newFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_REPLACING_ENTITY_REFERENCES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        return factory;
    }

    private static void copy(XMLStreamReader in, XMLStreamWriter out) throws XMLStreamException {
        int deep = 0;
        while (true) {
            switch (in.getEventType()) {
                case XMLStreamConstants.START_ELEMENT -> {
                    start(in, out);
                    deep++;
                }
                case XMLStreamConstants.END_ELEMENT -> {
                    out.writeEndElement();
                    if (--deep == 0) return;
                }
                case XMLStreamConstants.CHARACTERS, XMLStreamConstants.CDATA, XMLStreamConstants.SPACE ->
                    out.writeCharacters(in.getText());
                case XMLStreamConstants.ENTITY_REFERENCE -> throw new XMLStreamException("It refers to an entity");
                default -> {
                    // Comments and instructions are for whoever wrote them.
                }
            }
            if (!in.hasNext()) throw new XMLStreamException("It ends early");
            in.next();
        }
    }

    /** Each element says its own namespaces, so that it means the same wherever it is put. */
    private static void start(XMLStreamReader in, XMLStreamWriter out) throws XMLStreamException {
        String prefix = Optional.ofNullable(in.getPrefix()).orElse("");
        String namespace = Optional.ofNullable(in.getNamespaceURI()).orElse("");
        out.writeStartElement(prefix, in.getLocalName(), namespace);
        if (prefix.isEmpty()) out.writeDefaultNamespace(namespace);
        else out.writeNamespace(prefix, namespace);
        for (int i = 0; i < in.getNamespaceCount(); i++) {
            String other = Optional.ofNullable(in.getNamespacePrefix(i)).orElse("");
            if (!other.equals(prefix) && !other.isEmpty())
                out.writeNamespace(
                        other, Optional.ofNullable(in.getNamespaceURI(i)).orElse(""));
        }
        for (int i = 0; i < in.getAttributeCount(); i++) {
            String of = Optional.ofNullable(in.getAttributePrefix(i)).orElse("");
            if (of.isEmpty()) {
                out.writeAttribute(in.getAttributeLocalName(i), in.getAttributeValue(i));
                continue;
            }
            String space = Optional.ofNullable(in.getAttributeNamespace(i)).orElse("");
            if (!of.equals(prefix) && !declares(in, of)) out.writeNamespace(of, space);
            out.writeAttribute(of, space, in.getAttributeLocalName(i), in.getAttributeValue(i));
        }
    }

    private static boolean declares(XMLStreamReader in, String prefix) {
        for (int i = 0; i < in.getNamespaceCount(); i++) {
            if (prefix.equals(Optional.ofNullable(in.getNamespacePrefix(i)).orElse(""))) return true;
        }
        return false;
    }
}
