package rovnik.server.live;

import java.io.IOException;
import java.util.Map;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.socket.CloseStatus;
import org.springframework.web.socket.WebSocketSession;
import org.springframework.web.socket.config.annotation.EnableWebSocket;
import org.springframework.web.socket.config.annotation.WebSocketConfigurer;
import org.springframework.web.socket.config.annotation.WebSocketHandlerRegistry;
import org.springframework.web.socket.handler.AbstractWebSocketHandler;
import org.springframework.web.socket.handler.ConcurrentWebSocketSessionDecorator;
import org.springframework.web.socket.handler.ConcurrentWebSocketSessionDecorator.OverflowStrategy;
import org.springframework.web.util.UriComponentsBuilder;
import rovnik.core.Refusal;
import rovnik.server.config.Conflict;

/** /api/frames?source=i3&client=...: state as text, frames as binary; only from our own pages. */
@Configuration
@EnableWebSocket
class LiveSocket implements WebSocketConfigurer {
  private static final int SEND_LIMIT_MILLIS = 5_000;
  private static final int BUFFER_BYTES = 1 << 20;
  private final LiveHub hub;

  LiveSocket(LiveHub hub) {
    this.hub = hub;
  }

  @Override
  public void registerWebSocketHandlers(WebSocketHandlerRegistry registry) {
    registry.addHandler(new Handler(), "/api/frames"); // the default allows the same origin only
  }

  private final class Handler extends AbstractWebSocketHandler {
    @Override
    public void afterConnectionEstablished(WebSocketSession raw) throws IOException {
      Map<String, String> query =
          UriComponentsBuilder.fromUri(raw.getUri()).build().getQueryParams().toSingleValueMap();
      // A window that cannot keep up loses old frames, never the newest.
      WebSocketSession socket =
          new ConcurrentWebSocketSessionDecorator(
              raw, SEND_LIMIT_MILLIS, BUFFER_BYTES, OverflowStrategy.DROP);
      socket.getAttributes().put("client", query.getOrDefault("client", ""));
      try {
        LiveSession session = hub.session(query.get("source"));
        raw.getAttributes().put("session", session);
        raw.getAttributes().put("socket", socket);
        session.watch(socket);
      } catch (Refusal | Conflict e) {
        raw.close(CloseStatus.POLICY_VIOLATION.withReason("no such source"));
      }
    }

    @Override
    public void afterConnectionClosed(WebSocketSession raw, CloseStatus status) {
      if (raw.getAttributes().get("session") instanceof LiveSession session) {
        session.leave(
            (WebSocketSession) raw.getAttributes().get("socket"),
            (String) raw.getAttributes().get("client"));
      }
    }
  }
}
