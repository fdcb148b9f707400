package rovnik.server.config;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.util.Set;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.security.config.Customizer;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.userdetails.User;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.crypto.factory.PasswordEncoderFactories;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.provisioning.InMemoryUserDetailsManager;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.access.intercept.AuthorizationFilter;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * On loopback Rovnik asks for no password; on the network it does. In both cases a page of another
 * site can neither change anything nor listen: requests that a browser sends from elsewhere are
 * refused by their Origin, and on loopback the Host must be a loopback name.
 */
@Configuration
class SecurityConfig {
  private static final String CONTENT_SECURITY_POLICY =
      "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:;"
          + " font-src 'self'; connect-src 'self'; object-src 'none'; base-uri 'self';"
          + " frame-ancestors 'none'; form-action 'self'";

  private static final Set<String> LOOPBACK = Set.of("127.0.0.1", "localhost", "[::1]");

  private final boolean loopback;
  private final boolean guarded;

  SecurityConfig(@Value("${server.address}") String address, ServerSettings settings)
      throws UnknownHostException {
    loopback = InetAddress.getByName(address).isLoopbackAddress();
    guarded = settings.password() != null && !settings.password().isEmpty();
    if (!loopback && !guarded) {
      throw new StartRefused(
          "Listening on "
              + address
              + " needs a password. Set ROVNIK_PASSWORD, or listen on 127.0.0.1.");
    }
  }

  @Bean
  PasswordEncoder passwordEncoder() {
    return PasswordEncoderFactories.createDelegatingPasswordEncoder();
  }

  @Bean
  UserDetailsService users(ServerSettings settings, PasswordEncoder encoder) {
    InMemoryUserDetailsManager users = new InMemoryUserDetailsManager();
    if (guarded) {
      users.createUser(
          User.withUsername("rovnik").password(encoder.encode(settings.password())).build());
    }
    return users;
  }

  @Bean
  SecurityFilterChain chain(HttpSecurity http) throws Exception {
    http.headers(
        h ->
            h.contentSecurityPolicy(c -> c.policyDirectives(CONTENT_SECURITY_POLICY))
                .referrerPolicy(Customizer.withDefaults()));
    http.addFilterBefore(new SameOriginFilter(), AuthorizationFilter.class);
    if (guarded) {
      http.authorizeHttpRequests(
          a -> a.requestMatchers("/api/health").permitAll().anyRequest().authenticated());
      http.formLogin(Customizer.withDefaults());
      http.httpBasic(Customizer.withDefaults());
      // Scripts with basic credentials carry no cookie and need no token.
      http.csrf(
          c -> {
            c.spa();
            c.ignoringRequestMatchers(r -> r.getCookies() == null);
          });
    } else {
      http.authorizeHttpRequests(a -> a.anyRequest().permitAll());
      http.csrf(c -> c.disable());
    }
    return http.build();
  }

  private final class SameOriginFilter extends OncePerRequestFilter {
    @Override
    protected void doFilterInternal(
        HttpServletRequest request, HttpServletResponse response, FilterChain chain)
        throws ServletException, IOException {
      String host = request.getHeader("Host");
      String origin = request.getHeader("Origin");
      boolean strangeHost =
          loopback && (host == null || !LOOPBACK.contains(host.replaceFirst(":\\d+$", "")));
      boolean strangeOrigin =
          origin != null && (host == null || !host.equalsIgnoreCase(authority(origin)));
      if (strangeHost || strangeOrigin) {
        response.sendError(HttpServletResponse.SC_FORBIDDEN);
        return;
      }
      chain.doFilter(request, response);
    }

    private static String authority(String origin) {
      try {
        return URI.create(origin).getAuthority();
      } catch (IllegalArgumentException e) {
        return null;
      }
    }
  }
}
