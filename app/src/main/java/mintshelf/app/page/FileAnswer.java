package mintshelf.app.page;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import mintshelf.app.sight.Contents;
import mintshelf.app.store.content.StoredContent;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpRange;
import org.springframework.stereotype.Component;

/** Answers with the bytes of a content: ranges, tags, names; nothing that people bring runs in a page of ours. */
@Component
public class FileAnswer {
    public static final String SANDBOX = "default-src 'none'; style-src 'unsafe-inline'; sandbox";

    private final Contents contents;

    public FileAnswer(Contents contents) {
        this.contents = contents;
    }

    /** Sends bytes that were made for who asks now: kept by nobody between, without ranges. */
    public void send(byte[] made, String name, HttpServletResponse response) throws IOException {
        response.setHeader(HttpHeaders.CACHE_CONTROL, "private, no-store");
        response.setHeader("X-Content-Type-Options", "nosniff");
        response.setHeader("Content-Security-Policy", SANDBOX);
        response.setHeader(
                HttpHeaders.CONTENT_DISPOSITION,
                ContentDisposition.attachment()
                        .filename(name, StandardCharsets.UTF_8)
                        .build()
                        .toString());
        response.setContentType("application/octet-stream");
        response.setContentLength(made.length);
        response.getOutputStream().write(made);
    }

    /**
     * Sends a content, or the range of it that is asked for.
     *
     * @param attach as a file to be kept; else as a picture in a sandbox
     */
    public void send(
            StoredContent content,
            String name,
            boolean attach,
            HttpServletRequest request,
            HttpServletResponse response)
            throws IOException {
        String tag = "\"" + content.hash().hex() + "\"";
        response.setHeader(HttpHeaders.ETAG, tag);
        response.setHeader(HttpHeaders.CACHE_CONTROL, "private, no-cache");
        response.setHeader(HttpHeaders.ACCEPT_RANGES, "bytes");
        response.setHeader("X-Content-Type-Options", "nosniff");
        response.setHeader("Content-Security-Policy", SANDBOX);
        response.setHeader(
                HttpHeaders.CONTENT_DISPOSITION,
                (attach ? ContentDisposition.attachment() : ContentDisposition.inline())
                        .filename(name, StandardCharsets.UTF_8)
                        .build()
                        .toString());
        response.setContentType(
                attach ? "application/octet-stream" : content.kind().mediaType());
        if (tag.equals(request.getHeader(HttpHeaders.IF_NONE_MATCH))) {
            response.setStatus(304);
            return;
        }
        long from = 0;
        long to = content.size();
        String range = request.getHeader(HttpHeaders.RANGE);
        if (range != null) {
            try {
                List<HttpRange> ranges = HttpRange.parseRanges(range);
                if (ranges.size() == 1) {
                    from = ranges.get(0).getRangeStart(content.size());
                    to = ranges.get(0).getRangeEnd(content.size()) + 1;
                    if (from >= to) throw new IllegalArgumentException("behind the end");
                    response.setStatus(206);
                    response.setHeader(
                            HttpHeaders.CONTENT_RANGE, "bytes " + from + "-" + (to - 1) + "/" + content.size());
                }
            } catch (IllegalArgumentException e) {
                response.setStatus(416);
                response.setHeader(HttpHeaders.CONTENT_RANGE, "bytes */" + content.size());
                return;
            }
        }
        response.setContentLengthLong(to - from);
        contents.send(content, from, to, response.getOutputStream());
    }
}
