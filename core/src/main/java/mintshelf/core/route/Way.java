package mintshelf.core.route;

import java.util.Optional;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;

/**
 * Which way an act wants to go with each document: the move of its route, none for one that stays where it is, or why there is none.
 */
public interface Way {
    /**
     * @param move empty where it stays
     * @param refusal why it should move and there is no way
     */
    record Found(Optional<Move> move, Optional<Refusal> refusal) {
        static Found moves(Move move) {
            return new Found(Optional.of(move), Optional.empty());
        }

        static Found stays() {
            return new Found(Optional.empty(), Optional.empty());
        }

        static Found none(Refusal why) {
            return new Found(Optional.empty(), Optional.of(why));
        }
    }

    Found of(Route route, Document document);

    private static Stage stage(Document document) {
        return document.current().stage();
    }

    /** The move of a code. */
    static Way named(String code) {
        return (route, document) -> route.move(code).map(Found::moves).orElseGet(() -> Found.none(notFrom(document)));
    }

    /** To where its route asks for sign-offs. */
    static Way toReview() {
        return (route, document) -> route.opensRound(stage(document).code())
                .map(Found::moves)
                .orElseGet(() -> Found.none(
                        stage(document).stageClass() == StageClass.DECIDING
                                ? Refusal.of(
                                        "round.open",
                                        document.number() + " is in review already.",
                                        "Look at its round.")
                                : Refusal.of(
                                        "route.no_review",
                                        document.number() + " is "
                                                + stage(document).name() + "; from there nothing goes to review.",
                                        "Start its next revision, or leave it out.")));
    }

    /** As {@link #toReview}; what has no review of its own is decided on where it is. */
    static Way toBoard() {
        return (route, document) ->
                route.opensRound(stage(document).code()).map(Found::moves).orElseGet(Found::stays);
    }

    /** Along the move that its round decides. */
    static Way decided() {
        return (route, document) ->
                route.decided(stage(document).code()).map(Found::moves).orElseGet(() -> Found.none(notFrom(document)));
    }

    /** Back to where it is prepared; one that is decided on without leaving its preparation stays there. */
    static Way back() {
        return (route, document) -> stage(document).stageClass() != StageClass.DECIDING
                ? Found.stays()
                : route.back(stage(document).code()).map(Found::moves).orElseGet(() -> Found.none(notFrom(document)));
    }

    /** Into force. */
    static Way released() {
        return (route, document) ->
                route.releases(stage(document).code()).map(Found::moves).orElseGet(() -> Found.none(notFrom(document)));
    }

    /** Out of force. */
    static Way withdrawn() {
        return to(StageClass.WITHDRAWN);
    }

    /** Along the move that does this. */
    static Way doing(Effect effect) {
        return (route, document) -> route.doing(effect, stage(document).code())
                .map(Found::moves)
                .orElseGet(() -> Found.none(notFrom(document)));
    }

    /** As the order that took it up is decided. */
    static Way withOrder() {
        return (route, document) -> route.from(stage(document).code()).stream()
                .filter(m -> m.gates().contains(Gates.DECIDED_WITH_ORDER))
                .findFirst()
                .map(Found::moves)
                .orElseGet(() -> Found.none(notFrom(document)));
    }

    /** To an end without its purpose. */
    static Way closed() {
        return to(StageClass.CLOSED);
    }

    private static Way to(StageClass end) {
        return (route, document) -> route.from(stage(document).code()).stream()
                .filter(m -> route.stage(m.to()).stageClass() == end)
                .findFirst()
                .map(Found::moves)
                .orElseGet(() -> Found.none(notFrom(document)));
    }

    private static Refusal notFrom(Document document) {
        return Refusal.of(
                "move.stage",
                document.number() + " is " + stage(document).name() + " now.",
                "Look at it again; somebody moved it meanwhile.");
    }
}
