package rovnik.server.access;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.LongSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.EventListener;
import org.springframework.security.authentication.event.AbstractAuthenticationFailureEvent;
import org.springframework.security.authentication.event.AuthenticationSuccessEvent;
import org.springframework.security.core.Authentication;
import org.springframework.security.web.authentication.WebAuthenticationDetails;
import org.springframework.web.filter.OncePerRequestFilter;
import rovnik.server.config.Refusals;

/**
 * Whoever guesses passwords waits: after a few wrong ones an address is not listened to for a time
 * that doubles with each further one, up to a minute.
 */
final class Slowdown extends OncePerRequestFilter {
  private static final Logger LOG = LoggerFactory.getLogger(Slowdown.class);
  private static final int FREE = 3;
  private static final int MOST_DOUBLINGS = 6;
  private static final long SECOND_NANOS = 1_000_000_000L;
  private static final int MOST_ADDRESSES = 10_000;

  private record Guesses(int wrong, long listenAgainNanos) {}

  private final LongSupplier nanos;
  private final Map<String, Guesses> byAddress =
      new LinkedHashMap<>() {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Guesses> eldest) {
          return size() > MOST_ADDRESSES;
        }
      };

  Slowdown() {
    this(System::nanoTime);
  }

  Slowdown(LongSupplier nanos) {
    this.nanos = nanos;
  }

  @EventListener
  void wrong(AbstractAuthenticationFailureEvent event) {
    String address = address(event.getAuthentication());
    LOG.warn("wrong password from {} ({} in a row)", address, wrong(address));
  }

  @EventListener
  void right(AuthenticationSuccessEvent event) {
    right(address(event.getAuthentication()));
  }

  private static String address(Authentication who) {
    return who.getDetails() instanceof WebAuthenticationDetails d ? d.getRemoteAddress() : "?";
  }

  /** Notes a wrong password; returns how many there were in a row. */
  synchronized int wrong(String address) {
    Guesses before = byAddress.remove(address);
    int wrong = before == null ? 1 : before.wrong() + 1;
    int doublings = Math.min(MOST_DOUBLINGS, wrong - FREE);
    long wait = doublings < 0 ? 0 : Math.min(60, 1L << doublings) * SECOND_NANOS;
    byAddress.put(address, new Guesses(wrong, nanos.getAsLong() + wait));
    return wrong;
  }

  synchronized void right(String address) {
    byAddress.remove(address);
  }

  /** Seconds for which an address is not listened to. */
  synchronized long waitSeconds(String address) {
    Guesses g = byAddress.get(address);
    long left = g == null ? 0 : g.listenAgainNanos() - nanos.getAsLong();
    return left <= 0 ? 0 : (left + SECOND_NANOS - 1) / SECOND_NANOS;
  }

  @Override
  protected void doFilterInternal(
      HttpServletRequest request, HttpServletResponse response, FilterChain chain)
      throws ServletException, IOException {
    boolean tries =
        request.getHeader("Authorization") != null
            || request.getMethod().equals("POST") && request.getRequestURI().equals("/login");
    long wait = tries ? waitSeconds(request.getRemoteAddr()) : 0;
    if (wait > 0) {
      response.setHeader("Retry-After", Long.toString(wait));
      Refusals.send(
          response, 429, "password", "Too many wrong passwords. Try again in " + wait + " s.");
      return;
    }
    chain.doFilter(request, response);
  }
}
