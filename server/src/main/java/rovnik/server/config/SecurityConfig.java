package rovnik.server.config;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.env.Environment;
import org.springframework.security.config.Customizer;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.userdetails.User;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.crypto.factory.PasswordEncoderFactories;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.provisioning.InMemoryUserDetailsManager;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.access.intercept.AuthorizationFilter;
import org.springframework.security.web.authentication.UsernamePasswordAuthenticationFilter;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * On loopback Rovnik asks for no password; on the network it does. In both cases a page of another
 * site can neither change anything nor listen: requests that a browser sends from elsewhere are
 * refused by their Origin, and the Host must be a name that Rovnik was started with.
 */
@Configuration
class SecurityConfig {
  private static final String CONTENT_SECURITY_POLICY =
      "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:;"
          + " font-src 'self'; connect-src 'self'; object-src 'none'; base-uri 'self';"
          + " frame-ancestors 'none'; form-action 'self'";

  private final Set<String> hosts;
  private final boolean anyAddress;
  private final Optional<String> password;

  SecurityConfig(
      @Value("${server.address}") String address, ServerSettings settings, Environment environment)
      throws UnknownHostException {
    InetAddress listen = InetAddress.getByName(address);
    anyAddress = listen.isAnyLocalAddress();
    hosts = hosts(address, listen, settings.hosts());
    password = Password.of(environment);
  }

  /**
   * Names that the page may be asked for by: a page of another name is of somebody else's making.
   */
  private static Set<String> hosts(String address, InetAddress listen, List<String> named) {
    Set<String> names = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
    names.add(literal(address));
    names.add(literal(listen.getHostAddress()));
    names.addAll(named);
    if (listen.isLoopbackAddress() || listen.isAnyLocalAddress()) {
      names.addAll(List.of("127.0.0.1", "localhost", "[::1]"));
    }
    if (listen.isAnyLocalAddress()) {
      try {
        names.add(InetAddress.getLocalHost().getHostName());
      } catch (UnknownHostException ignored) {
        // a machine without a name is asked for by its address
      }
    }
    return names;
  }

  private static String literal(String address) {
    return address.contains(":") && !address.startsWith("[") ? "[" + address + "]" : address;
  }

  private boolean known(String host) {
    if (host == null) {
      return false;
    }
    String name = host.replaceFirst(":\\d+$", "");
    // An address is no name that somebody else's server could have been given.
    return hosts.contains(name) || anyAddress && name.matches("[\\d.]+|\\[[\\da-fA-F:.]+]");
  }

  @Bean
  PasswordEncoder passwordEncoder() {
    return PasswordEncoderFactories.createDelegatingPasswordEncoder();
  }

  @Bean
  UserDetailsService users(PasswordEncoder encoder) {
    InMemoryUserDetailsManager users = new InMemoryUserDetailsManager();
    password.ifPresent(
        p -> users.createUser(User.withUsername("rovnik").password(encoder.encode(p)).build()));
    return users;
  }

  @Bean
  Slowdown slowdown() {
    return new Slowdown();
  }

  /** It stands in the chain of security, and nowhere else. */
  @Bean
  FilterRegistrationBean<Slowdown> slowdownOnce(Slowdown slowdown) {
    FilterRegistrationBean<Slowdown> once = new FilterRegistrationBean<>(slowdown);
    once.setEnabled(false);
    return once;
  }

  @Bean
  SecurityFilterChain chain(HttpSecurity http, Slowdown slowdown) throws Exception {
    http.headers(
        h ->
            h.contentSecurityPolicy(c -> c.policyDirectives(CONTENT_SECURITY_POLICY))
                .referrerPolicy(Customizer.withDefaults()));
    http.addFilterBefore(new SameOriginFilter(), AuthorizationFilter.class);
    if (password.isPresent()) {
      http.addFilterBefore(slowdown, UsernamePasswordAuthenticationFilter.class);
      http.authorizeHttpRequests(
          a -> a.requestMatchers("/api/health").permitAll().anyRequest().authenticated());
      http.formLogin(Customizer.withDefaults());
      http.httpBasic(Customizer.withDefaults());
      // Scripts with basic credentials carry no cookie and need no token; logging in does.
      http.csrf(
          c -> {
            c.spa();
            c.ignoringRequestMatchers(
                r -> r.getCookies() == null && r.getHeader("Authorization") != null);
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
      boolean strangeOrigin =
          origin != null && (host == null || !host.equalsIgnoreCase(authority(origin)));
      if (!known(host)) {
        Refusals.send(
            response,
            HttpServletResponse.SC_FORBIDDEN,
            "host",
            "Rovnik does not answer to this name. Start it with --hosts and the name.");
        return;
      }
      if (strangeOrigin) {
        Refusals.send(
            response,
            HttpServletResponse.SC_FORBIDDEN,
            "origin",
            "Another site's page asked for this.");
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
