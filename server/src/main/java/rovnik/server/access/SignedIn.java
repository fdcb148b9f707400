package rovnik.server.access;

import java.io.Serializable;
import java.util.List;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.GrantedAuthority;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.core.userdetails.UserDetails;

/**
 * Who has signed in. It holds the hash that the password was checked against: with another password
 * the account is another one, and whoever signed in before must do so again.
 */
public record SignedIn(String name, Role role, String hash) implements UserDetails, Serializable {
  private static final long serialVersionUID = 1L;

  /** Name of who asks now; empty if nobody had to sign in. */
  public static String nameNow() {
    Authentication who = SecurityContextHolder.getContext().getAuthentication();
    return who != null && who.getPrincipal() instanceof SignedIn s ? s.name() : "";
  }

  @Override
  public List<GrantedAuthority> getAuthorities() {
    return List.of(new SimpleGrantedAuthority(role.authority()));
  }

  @Override
  public String getPassword() {
    return hash;
  }

  @Override
  public String getUsername() {
    return name;
  }

  @Override
  public String toString() {
    return name + " (" + role + ")";
  }
}
