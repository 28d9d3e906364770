package mintshelf.app;

import java.util.List;
import java.util.Set;

/** The addresses of the search and of what is at hand, for the table of {@link RoutesTest}. */
final class SearchRoutes {
    private static final String ALL = "302 200 200 200 200 200";

    private SearchRoutes() {}

    /** Acts that anybody who is signed in may do for themselves. */
    static final Set<String> OWN = Set.of(
            "/me/settings",
            "/me/columns",
            "/me/widths",
            "/searches",
            "/requests",
            "/me/password",
            "/me/sessions/{name}/end",
            "/notices/{id}/put-away",
            "/first-start",
            "/invitations/{token}",
            "/habits/forget",
            "/habits/quiet",
            "/habits/straight",
            "/follow/{what}/{id}",
            "/follows/drop",
            "/follows/mails",
            "/desk/code",
            "/desk/tokens",
            "/desk/tokens/{id}/revoke");

    /**
     * Pattern, address, expected statuses.
     *
     * @param takeIn a taking-in of the data manager
     * @param kept address of a search that the designer keeps for herself
     */
    static List<List<String>> rows(String kept, long takeIn, long draft, long released) {
        return List.of(
                List.of("/in-tray", "/in-tray", ALL),
                List.of("/sign", "/sign?items=" + draft, ALL),
                List.of("/search", "/search?q=route", ALL),
                List.of("/search/hints", "/search/hints?q=route", ALL),
                List.of("/search/hits.{form:csv|xlsx}", "/search/hits.csv?q=route", ALL),
                List.of("/searches/{id}", kept, "302 404 404 404 302 404"),
                List.of("/me/bom-columns", "/me/bom-columns?who=engineering", ALL),
                List.of("/look-up/people", "/look-up/people?q=pri", ALL),
                List.of("/look-up/documents", "/look-up/documents?q=ordered", ALL),
                List.of(
                        "/documents/{id}/bom/changed",
                        "/documents/" + released + "/bom/changed?version=1&old=1",
                        "302 404 204 204 204 204"),
                List.of("/documents/{id}/bom.stp", "/documents/" + released + "/bom.stp", "302 404 200 200 200 200"),
                List.of("/parts/new", "/parts/new", "302 404 404 404 200 200"),
                List.of("/documents/{id}/item", "/documents/" + draft + "/item", "302 404 404 200 200 200"),
                List.of("/documents/{id}/item", "/documents/" + released + "/item", "302 404 200 200 200 200"),
                List.of("/documents/{id}/like", "/documents/" + draft + "/like", "302 404 404 200 200 200"),
                List.of("/documents/{id}/like", "/documents/" + released + "/like", "302 404 200 200 200 200"),
                List.of("/take-ins/{id}", "/take-ins/" + takeIn, "302 404 404 404 404 200"),
                List.of(
                        "/take-ins/{id}/table.{format}",
                        "/take-ins/" + takeIn + "/table.csv",
                        "302 404 404 404 404 200"),
                List.of("/bring-for", "/bring-for?items=" + draft, "302 404 404 200 200 200"),
                List.of(
                        "/documents/{id}/bom.{format}",
                        "/documents/" + released + "/bom.csv",
                        "302 404 200 200 200 200"),
                List.of(
                        "/documents/{id}/bom/orders",
                        "/documents/" + released + "/bom/orders",
                        "302 404 200 200 200 200"),
                List.of("/documents/{id}/bom/rows", "/documents/" + released + "/bom/rows", "302 404 200 200 200 200"),
                List.of("/documents/{id}/parts-list", "/documents/" + draft + "/parts-list", "302 404 404 200 200 200"),
                List.of("/documents/{id}/variants", "/documents/" + draft + "/variants", "302 404 404 200 200 200"),
                List.of("/house/currencies", "/house/currencies", "302 403 403 403 403 200"),
                List.of("/documents/{id}/bom/table", "/documents/" + draft + "/bom/table", "302 404 404 403 200 409"),
                List.of("/documents/{id}/bom/line", "/documents/" + draft + "/bom/line", "302 404 404 200 200 200"),
                List.of("/baselines", "/baselines", ALL),
                List.of("/baselines/new", "/baselines/new?items=" + draft, "302 404 404 200 200 200"),
                List.of("/swap", "/swap?items=" + draft, "302 404 404 200 200 200"),
                List.of("/swap/seats", "/swap/seats?parent=" + draft + "&pairs=1-2", "302 404 404 200 200 200"),
                List.of("/swap/back", "/swap/back?run=999999999", "302 404 404 404 404 404"),
                List.of("/relocate", "/relocate?items=" + draft, ALL),
                List.of("/names-in-files", "/names-in-files?of=" + draft, ALL),
                List.of("/sizes", "/sizes?at=40", ALL),
                List.of("/documents/{id}/sizes", "/documents/" + draft + "/sizes", "302 404 404 404 404 404"),
                List.of("/change-kind", "/change-kind?items=" + draft, ALL),
                List.of("/filings/{id}/rows/{row}", "/filings/1/rows/999999999", "302 404 404 404 404 404"),
                List.of("/documents/{id}/rename", "/documents/" + draft + "/rename", "302 404 404 200 200 200"),
                List.of(
                        "/documents/{id}/versions/{number}/copies/{form}",
                        "/documents/" + released + "/versions/1/copies/step",
                        "302 404 404 404 404 404"),
                List.of(
                        "/documents/{id}/versions/{number}/chapters",
                        "/documents/" + released + "/versions/1/chapters",
                        "302 404 404 404 404 404"),
                List.of(
                        "/documents/{id}/versions/{number}/rest",
                        "/documents/" + released + "/versions/1/rest",
                        "302 404 404 404 404 404"),
                List.of(
                        "/documents/{id}/versions/{number}/page-ink",
                        "/documents/" + released + "/versions/1/page-ink?old=1&pair=0&part=old",
                        "302 404 404 404 404 404"),
                List.of("/new", "/new", "302 404 404 404 200 200"),
                List.of("/documents/{id}/new", "/documents/" + draft + "/new", "302 404 404 404 200 200"),
                List.of("/documents/{id}/pack", "/documents/" + draft + "/pack", "302 404 404 200 200 200"),
                List.of("/trials", "/trials", ALL),
                List.of("/trials/new", "/trials/new?items=" + draft, "302 404 404 200 200 200"),
                List.of("/trials/{id}", "/trials/999999999", "302 404 404 404 404 404"),
                List.of("/trials/{id}/ask", "/trials/999999999/ask", "302 404 404 404 404 404"),
                List.of("/trials/{id}/adopt", "/trials/999999999/adopt", "302 404 404 404 404 404"),
                List.of("/trials/{id}/files.zip", "/trials/999999999/files.zip", "302 404 404 404 404 404"),
                List.of("/documents/{id}/trials", "/documents/" + draft + "/trials", "302 404 404 200 200 200"),
                List.of("/documents/{id}/lines/{line}", "/documents/" + draft + "/lines/t1", "302 404 404 404 404 404"),
                List.of("/baselines/{id}", "/baselines/999999999", "302 404 404 404 404 404"),
                List.of("/baselines/{id}/files.zip", "/baselines/999999999/files.zip", "302 404 404 404 404 404"),
                List.of("/baselines/{id}/list.{format}", "/baselines/999999999/list.csv", "302 404 404 404 404 404"),
                List.of("/packs", "/packs", ALL),
                List.of("/packs/{id}", "/packs/999999999", "302 404 404 404 404 404"),
                List.of("/packs/{id}/back", "/packs/999999999/back", "302 404 404 404 404 404"),
                List.of("/packs/{id}/files.zip", "/packs/999999999/files.zip", "302 404 404 404 404 404"),
                List.of("/documents/{id}/origin", "/documents/" + draft + "/origin", "302 404 404 404 404 404"),
                List.of(
                        "/documents/{id}/origin/count",
                        "/documents/" + draft + "/origin/count",
                        "302 404 404 200 200 200"),
                List.of("/documents/{id}/new-design", "/documents/" + draft + "/new-design", "302 404 404 404 200 200"),
                List.of("/at-hand", "/at-hand", ALL),
                List.of("/me/columns", "/me/columns", ALL),
                List.of("/pins/{kind}/{id}", "/pins/item/" + released, ALL));
    }
}
