package rovnik.server.live;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import java.util.Collections;
import java.util.Enumeration;
import java.util.Map;
import org.springframework.http.server.ServerHttpRequest;
import org.springframework.http.server.ServerHttpResponse;
import org.springframework.http.server.ServletServerHttpRequest;
import org.springframework.web.socket.WebSocketHandler;
import org.springframework.web.socket.WebSocketHttpHeaders;
import org.springframework.web.socket.server.HandshakeHandler;
import org.springframework.web.socket.server.support.DefaultHandshakeHandler;

/**
 * Takes windows without what they offer to pack messages with: frames are noise for the most part,
 * which hardly gets smaller, and packing takes longer than measuring.
 */
final class PlainFrames implements HandshakeHandler {
  private final HandshakeHandler usual = new DefaultHandshakeHandler();

  @Override
  public boolean doHandshake(
      ServerHttpRequest request,
      ServerHttpResponse response,
      WebSocketHandler handler,
      Map<String, Object> attributes) {
    HttpServletRequest of = ((ServletServerHttpRequest) request).getServletRequest();
    return usual.doHandshake(
        new ServletServerHttpRequest(new WithoutOffers(of)), response, handler, attributes);
  }

  /** The servlet container takes what it can of this header, whatever else it is told. */
  private static final class WithoutOffers extends HttpServletRequestWrapper {
    WithoutOffers(HttpServletRequest of) {
      super(of);
    }

    @Override
    public Enumeration<String> getHeaders(String name) {
      return WebSocketHttpHeaders.SEC_WEBSOCKET_EXTENSIONS.equalsIgnoreCase(name)
          ? Collections.emptyEnumeration()
          : super.getHeaders(name);
    }
  }
}
