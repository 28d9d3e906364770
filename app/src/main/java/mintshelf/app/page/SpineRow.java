package mintshelf.app.page;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import mintshelf.app.sight.Seen;
import mintshelf.core.document.Revision;
import mintshelf.core.revision.StageClass;

/**
 * What a row of a list tells its script: which document it is, and how it stands for the person who looks, in single words.
 *
 * @param stands of {@code mine held pending decides sends changes signs released}, those that hold
 * @param file the number of the version that this person gets, and its file's name: "10 gland.dxf"
 */
public record SpineRow(long id, String href, String number, String stands, String file) {
    /** @param toSign documents that wait for this person's signature */
    static SpineRow of(Seen seen, long person, Collection<Long> toSign) {
        var document = seen.document();
        Optional<StageClass> stage = seen.pending().map(Revision::stage).map(s -> s.stageClass());
        List<String> stands = new ArrayList<>();
        document.holder().ifPresent(h -> stands.add("held"));
        if (document.holder().filter(h -> h.person() == person).isPresent()) stands.add("mine");
        if (stage.isPresent()) stands.add("pending");
        if (stage.filter(s -> s == StageClass.DECIDING).isPresent()) stands.add("decides");
        if (seen.all() && stage.filter(s -> s == StageClass.PREPARING).isPresent()) stands.add("sends");
        if (!seen.spine().isChangePaper()) stands.add("changes");
        if (toSign.contains(document.id())) stands.add("signs");
        if (document.released().isPresent()) stands.add("released");
        return new SpineRow(
                document.id(),
                "/documents/" + document.id(),
                document.number(),
                String.join(" ", stands),
                seen.version() + " " + document.fileName());
    }
}
