package mintshelf.app.page;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import mintshelf.app.ground.ReadingRoom;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** What a request reads of drawings it holds until it ends. */
@Component
class RoomFilter extends OncePerRequestFilter {
    private final ReadingRoom room;

    RoomFilter(ReadingRoom room) {
        this.room = room;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        room.open();
        try {
            chain.doFilter(request, response);
        } finally {
            room.close();
        }
    }
}
