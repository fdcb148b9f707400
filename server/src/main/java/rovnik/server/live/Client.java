package rovnik.server.live;

import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;

/**
 * Who asks.
 *
 * @param id of a window; "script" for all that send none
 * @param name as others see it
 */
public record Client(String id, String name) {
  /** Header that carries the client: "id|name", percent-encoded. */
  static final String HEADER = "X-Rovnik-Client";

  static final Client NOBODY = new Client("", "");

  static Client of(String header) {
    if (header == null || header.isBlank()) {
      return new Client("script", "a script");
    }
    String[] parts = URLDecoder.decode(header, StandardCharsets.UTF_8).split("\\|", 2);
    return new Client(parts[0], parts.length > 1 ? parts[1] : "another window");
  }

  boolean nobody() {
    return id.isEmpty();
  }
}
