package rovnik.server.access;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.authentication.AnonymousAuthenticationToken;
import org.springframework.security.authorization.AuthorizationDecision;
import org.springframework.security.config.Customizer;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.HeadersConfigurer;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.core.authority.AuthorityUtils;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.crypto.factory.PasswordEncoderFactories;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.access.intercept.AuthorizationFilter;
import org.springframework.security.web.authentication.UsernamePasswordAuthenticationFilter;
import org.springframework.security.web.csrf.CsrfException;
import org.springframework.web.filter.OncePerRequestFilter;
import rovnik.server.config.Refusals;
import rovnik.server.config.ServerSettings;

/**
 * On loopback Rovnik asks nobody to sign in until there is an account; on the network it does. In
 * both cases a page of another site can neither change anything nor listen: requests that a browser
 * sends from elsewhere are refused by their Origin, and the Host must be a name that Rovnik was
 * started with.
 */
@Configuration
class SecurityConfig {
  private static final String CONTENT_SECURITY_POLICY =
      "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:;"
          + " font-src 'self'; connect-src 'self'; object-src 'none'; base-uri 'self';"
          + " frame-ancestors 'none'; form-action 'self'";

  private final Set<String> hosts;
  private final boolean anyAddress;

  SecurityConfig(@Value("${server.address}") String address, ServerSettings settings)
      throws UnknownHostException {
    InetAddress listen = InetAddress.getByName(address);
    anyAddress = listen.isAnyLocalAddress();
    hosts = hosts(address, listen, settings.hosts());
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
  static PasswordEncoder passwordEncoder() {
    return PasswordEncoderFactories.createDelegatingPasswordEncoder();
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
  SecurityFilterChain chain(HttpSecurity http, Slowdown slowdown, Accounts accounts)
      throws Exception {
    http.headers(
        h ->
            h.contentSecurityPolicy(c -> c.policyDirectives(CONTENT_SECURITY_POLICY))
                .referrerPolicy(Customizer.withDefaults())
                // A certificate of our own could not be accepted by hand otherwise.
                .httpStrictTransportSecurity(HeadersConfigurer.HstsConfig::disable));
    http.addFilterBefore(new SameOriginFilter(), AuthorizationFilter.class);
    http.addFilterBefore(new StillTheSame(accounts), AuthorizationFilter.class);
    http.addFilterBefore(slowdown, UsernamePasswordAuthenticationFilter.class);
    http.authorizeHttpRequests(
        a ->
            a.requestMatchers("/api/health")
                .permitAll()
                .requestMatchers("/api/**")
                .access((who, request) -> may(accounts, who.get(), request.getRequest()))
                // The pages are the same for everybody; what they show comes from /api.
                .anyRequest()
                .permitAll());
    http.formLogin(
        f ->
            f.loginPage("/")
                .loginProcessingUrl("/login")
                .successHandler((request, response, who) -> response.setStatus(204))
                .failureHandler(
                    (request, response, why) ->
                        Refusals.send(response, 401, "password", "Name or password is wrong.")));
    http.logout(l -> l.logoutSuccessHandler((request, response, who) -> response.setStatus(204)));
    http.httpBasic(b -> b.authenticationEntryPoint(SecurityConfig::signInFirst));
    http.exceptionHandling(
        e ->
            e.authenticationEntryPoint(SecurityConfig::signInFirst)
                .accessDeniedHandler(SecurityConfig::mayNot));
    // Scripts with basic credentials carry no cookie and need no token; signing in does.
    http.csrf(
        c -> {
          c.spa();
          c.ignoringRequestMatchers(
              r ->
                  !accounts.needed()
                      || r.getCookies() == null && r.getHeader("Authorization") != null);
        });
    return http.build();
  }

  private static AuthorizationDecision may(
      Accounts accounts, @Nullable Authentication who, HttpServletRequest request) {
    if (!accounts.needed()) {
      return new AuthorizationDecision(true);
    }
    Role needed = Role.neededFor(request.getMethod(), request.getServletPath());
    return new AuthorizationDecision(
        who != null
            && who.getPrincipal() instanceof SignedIn s
            && accounts.roleNow(s).filter(r -> r.may(needed)).isPresent());
  }

  /** The pages ask for it themselves; whoever else asks is told how. */
  private static void signInFirst(
      HttpServletRequest request, HttpServletResponse response, AuthenticationException why)
      throws IOException {
    if (request.getHeader("Sec-Fetch-Mode") == null) {
      response.setHeader("WWW-Authenticate", "Basic realm=\"Rovnik\", charset=\"UTF-8\"");
    }
    boolean tried = request.getHeader("Authorization") != null;
    Refusals.send(
        response, 401, "account", tried ? "Name or password is wrong." : "Sign in first.");
  }

  private static void mayNot(
      HttpServletRequest request, HttpServletResponse response, AccessDeniedException why)
      throws IOException {
    if (why instanceof CsrfException) {
      Refusals.send(
          response, 403, "origin", "The request lacks the token of our own pages. Load them anew.");
      return;
    }
    Role needed = Role.neededFor(request.getMethod(), request.getServletPath());
    Refusals.send(
        response,
        403,
        "account",
        needed == Role.ADMINISTER
            ? "Only an account that administers may do this."
            : "Your account only looks. Ask one that administers to let it measure.");
  }

  /** Whose account was removed or has another password by now is nobody. */
  private static final class StillTheSame extends OncePerRequestFilter {
    private static final Authentication NOBODY =
        new AnonymousAuthenticationToken(
            "nobody", "nobody", AuthorityUtils.createAuthorityList("ROLE_ANONYMOUS"));

    private final Accounts accounts;

    StillTheSame(Accounts accounts) {
      this.accounts = accounts;
    }

    @Override
    protected void doFilterInternal(
        HttpServletRequest request, HttpServletResponse response, FilterChain chain)
        throws ServletException, IOException {
      Authentication who = SecurityContextHolder.getContext().getAuthentication();
      if (who != null
          && who.getPrincipal() instanceof SignedIn s
          && accounts.roleNow(s).isEmpty()) {
        SecurityContextHolder.getContext().setAuthentication(NOBODY);
        HttpSession session = request.getSession(false);
        if (session != null) {
          session.invalidate();
        }
      }
      chain.doFilter(request, response);
    }
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
