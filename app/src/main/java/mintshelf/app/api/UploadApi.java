package mintshelf.app.api;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.Map;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.content.Upload;
import mintshelf.app.use.content.ReceiveContent;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Bytes on their way in: open, send from where the server stands, ask where it stands. Problems after RFC 9457. */
@RestController
public class UploadApi {
    private final ReceiveContent receive;

    public UploadApi(ReceiveContent receive) {
        this.receive = receive;
    }

    /** How far an upload is. */
    public record Progress(String token, long size, long received, boolean complete) {
        static Progress of(Upload upload) {
            return new Progress(
                    upload.token(), upload.size(), upload.received(), upload.state() == Upload.State.COMPLETE);
        }
    }

    @PostMapping("/uploads")
    Progress open(Actor actor, @RequestParam String name, @RequestParam long size) {
        return Progress.of(receive.upload(actor, receive.open(actor, name, size)));
    }

    @GetMapping("/uploads/{token}")
    Progress progress(Actor actor, @PathVariable String token) {
        return Progress.of(receive.upload(actor, token));
    }

    /** Takes bytes from {@code from} on; the answer says where to go on, which may be before the end of what was sent. */
    @PutMapping("/uploads/{token}")
    Progress send(Actor actor, @PathVariable String token, @RequestParam long from, HttpServletRequest request)
            throws IOException {
        return Progress.of(receive.receive(actor, token, from, request.getInputStream()));
    }

    @DeleteMapping("/uploads/{token}")
    ResponseEntity<Map<String, String>> drop(Actor actor, @PathVariable String token) {
        receive.drop(actor, token);
        return ResponseEntity.ok(Map.of("token", token));
    }
}
