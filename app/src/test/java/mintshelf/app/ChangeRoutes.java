package mintshelf.app;

import java.util.List;
import java.util.Optional;
import mintshelf.app.use.job.GiveJob;
import mintshelf.core.signoff.Asked;

/** The addresses of changes and jobs, for the table of {@link RoutesTest}. */
final class ChangeRoutes {
    private ChangeRoutes() {}

    /** A job that the designer has given to herself. */
    static long job(Server server, long item) {
        String to = server.bean(GiveJob.class)
                .give(
                        server.actor("priya"),
                        Server.key(),
                        List.of(item),
                        Optional.empty(),
                        "look at it",
                        new Asked(
                                Asked.Kind.PERSON,
                                Long.toString(server.actor("priya").person())),
                        Optional.empty());
        return Long.parseLong(to.substring("/jobs/".length()));
    }

    /** Pattern, address, expected statuses. */
    static List<List<String>> rows(long order, long request, long released, long draft, long job) {
        String paper = "302 404 404 200 200 200";
        return List.of(
                List.of("/changes", "/changes", "302 200 200 200 200 200"),
                List.of("/changes/new", "/changes/new", "302 200 200 200 200 200"),
                List.of("/changes/flow", "/changes/flow", "302 200 200 200 200 200"),
                List.of("/ask-for-change", "/ask-for-change?items=" + released, "302 404 200 200 200 200"),
                List.of("/changes/{id}", "/changes/" + order, "302 302 302 302 302 302"),
                List.of("/changes/{id}/reach", "/changes/" + order + "/reach", paper),
                List.of("/changes/decision", "/changes/decision?move=defer&items=" + request, paper),
                List.of("/requests/{id}", "/requests/" + request, paper),
                List.of("/orders/{id}", "/orders/" + order, paper),
                List.of("/orders/{id}/lines", "/orders/" + order + "/lines?mark=x", paper),
                List.of(
                        "/orders/{id}/lines/{item}/facts",
                        "/orders/" + order + "/lines/" + released + "/facts",
                        "302 404 404 403 404 404"),
                List.of("/changes/{id}/lines.{format}", "/changes/" + order + "/lines.csv", paper),
                List.of("/changes/{id}/lines-table", "/changes/" + order + "/lines-table", paper),
                List.of("/orders/{id}/new-document", "/orders/" + order + "/new-document", "302 404 404 403 200 200"),
                List.of(
                        "/documents/{id}/versions/{number}/differences",
                        "/documents/" + released + "/versions/1/differences?old=1",
                        "302 404 204 204 204 204"),
                List.of("/orders/{id}/disposition", "/orders/" + order + "/disposition", paper),
                List.of("/orders/{id}/board", "/orders/" + order + "/board", "302 404 404 409 409 409"),
                List.of("/orders/{id}/carry-out", "/orders/" + order + "/carry-out", paper),
                List.of("/notices/{id}/order", "/notices/" + released + "/order", "302 404 404 404 404 404"),
                List.of("/jobs", "/jobs", "302 200 200 200 200 200"),
                List.of("/jobs/give", "/jobs/give?items=" + draft, "302 404 404 404 200 200"),
                List.of("/jobs/{id}", "/jobs/" + job, "302 404 404 404 200 404"));
    }
}
