package rovnik.server.live;

import java.io.IOException;
import java.security.Principal;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.event.EventListener;
import org.springframework.web.socket.CloseStatus;
import org.springframework.web.socket.TextMessage;
import org.springframework.web.socket.WebSocketSession;
import org.springframework.web.socket.config.annotation.EnableWebSocket;
import org.springframework.web.socket.config.annotation.WebSocketConfigurer;
import org.springframework.web.socket.config.annotation.WebSocketHandlerRegistry;
import org.springframework.web.socket.handler.AbstractWebSocketHandler;
import org.springframework.web.util.UriComponentsBuilder;
import rovnik.core.Refusal;
import rovnik.server.access.AccountChanged;
import rovnik.server.config.Conflict;

/**
 * /api/frames?source=i3&measurement=spectrum&client=...: state as text, frames and sound as binary;
 * only from our own pages.
 */
@Configuration
@EnableWebSocket
class LiveSocket implements WebSocketConfigurer {
  private final Sessions sessions;
  private final Set<WebSocketSession> open = ConcurrentHashMap.newKeySet();

  LiveSocket(Sessions sessions) {
    this.sessions = sessions;
  }

  @Override
  public void registerWebSocketHandlers(WebSocketHandlerRegistry registry) {
    registry
        .addHandler(new Handler(), "/api/frames") // the default allows the same origin only
        .setHandshakeHandler(new PlainFrames());
  }

  /** Whoever has signed in with it watches no longer, and must sign in again. */
  @EventListener
  void changed(AccountChanged account) throws IOException {
    for (WebSocketSession raw : open) {
      Principal who = raw.getPrincipal();
      if (account.name().equals(who == null ? "" : who.getName())) {
        raw.close(CloseStatus.POLICY_VIOLATION.withReason("sign in again"));
      }
    }
  }

  private final class Handler extends AbstractWebSocketHandler {
    @Override
    public void afterConnectionEstablished(WebSocketSession raw) throws IOException {
      Map<String, String> query =
          UriComponentsBuilder.fromUri(raw.getUri()).build().getQueryParams().toSingleValueMap();
      try {
        MeasuringSession<?> session =
            sessions.session(
                query.getOrDefault("source", ""), query.getOrDefault("measurement", "spectrum"));
        raw.getAttributes().put("session", session);
        Watcher watcher = new Watcher(raw, query.getOrDefault("client", ""));
        raw.getAttributes().put("watcher", watcher);
        open.add(raw);
        session.watch(watcher);
      } catch (Refusal | Conflict e) {
        raw.close(CloseStatus.POLICY_VIOLATION.withReason("no such source"));
      }
    }

    /** "listen" and "silence" say whether the window wants the sound. */
    @Override
    protected void handleTextMessage(WebSocketSession raw, TextMessage message) throws IOException {
      if (!(raw.getAttributes().get("watcher") instanceof Watcher watcher)) {
        return;
      }
      switch (message.getPayload()) {
        case "listen" -> watcher.listens(true);
        case "silence" -> watcher.listens(false);
        default -> raw.close(CloseStatus.BAD_DATA.withReason("listen or silence"));
      }
    }

    @Override
    public void afterConnectionClosed(WebSocketSession raw, CloseStatus status) {
      open.remove(raw);
      if (raw.getAttributes().get("session") instanceof MeasuringSession<?> session) {
        session.leave((Watcher) raw.getAttributes().get("watcher"));
      }
    }
  }
}
