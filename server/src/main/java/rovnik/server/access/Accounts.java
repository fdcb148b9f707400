package rovnik.server.access;

import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.core.env.Environment;
import org.springframework.security.core.userdetails.UserDetails;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import rovnik.core.Refusal;
import rovnik.server.access.AccountMapper.AccountRow;
import rovnik.server.config.Conflict;
import rovnik.server.config.StartRefused;

/**
 * The accounts, and the one of the start: who started Rovnik with a password administers under the
 * name "rovnik". As long as there is neither, nobody needs to sign in; that is for loopback alone.
 */
@Service
class Accounts implements UserDetailsService {
  static final String OF_THE_START = "rovnik";
  private static final Pattern NAME = Pattern.compile("[\\p{L}\\p{N}][\\p{L}\\p{N} ._@-]{0,59}");

  private final AccountMapper mapper;
  private final PasswordEncoder encoder;
  private final ApplicationEventPublisher events;
  private final boolean loopback;
  private final Optional<SignedIn> ofTheStart;
  private volatile List<AccountRow> rows;

  Accounts(
      AccountMapper mapper,
      PasswordEncoder encoder,
      ApplicationEventPublisher events,
      Environment settings) {
    this.mapper = mapper;
    this.encoder = encoder;
    this.events = events;
    loopback = AddressGuard.loopback(settings);
    ofTheStart =
        Password.of(settings)
            .map(p -> new SignedIn(OF_THE_START, Role.ADMINISTER, encoder.encode(p)));
    rows = mapper.all();
    if (!loopback && !needed()) {
      throw new StartRefused(AddressGuard.needsPassword(settings));
    }
  }

  /** Whether one must sign in. */
  boolean needed() {
    return ofTheStart.isPresent() || !rows.isEmpty();
  }

  List<AccountRow> all() {
    return rows;
  }

  private Optional<SignedIn> find(String name) {
    return ofTheStart
        .filter(s -> s.name().equalsIgnoreCase(name))
        .or(
            () ->
                rows.stream()
                    .filter(r -> r.name().equalsIgnoreCase(name))
                    .findFirst()
                    .map(r -> new SignedIn(r.name(), r.role(), r.hash())));
  }

  @Override
  public UserDetails loadUserByUsername(String name) {
    return find(name).orElseThrow(() -> new UsernameNotFoundException(name));
  }

  /** What somebody who has signed in may do now; empty if the account is another one by now. */
  Optional<Role> roleNow(SignedIn who) {
    return find(who.name()).filter(s -> s.hash().equals(who.hash())).map(SignedIn::role);
  }

  synchronized AccountRow add(String name, Role role, String password) {
    if (name == null || !NAME.matcher(name.strip()).matches()) {
      throw new Refusal(
          "name", "Give the account a name of 1 to 60 letters, digits, spaces or . _ @ -.");
    }
    String own = name.strip();
    if (own.equalsIgnoreCase(OF_THE_START) || find(own).isPresent()) {
      throw Conflict.named("name", "There is an account \"" + own + "\". Choose another name.");
    }
    if (!needed() && role != Role.ADMINISTER) {
      throw new Refusal(
          "role", "The first account must administer: nobody else could make further ones.");
    }
    boolean first = !needed();
    mapper.insert(own, role, encoder.encode(checked(password)), OffsetDateTime.now(ZoneOffset.UTC));
    rows = mapper.all();
    if (first) {
      events.publishEvent(new AccountChanged(""));
    }
    return rows.stream().filter(r -> r.name().equals(own)).findFirst().orElseThrow();
  }

  private static String checked(@Nullable String password) {
    try {
      return Password.checked(password == null ? "" : password);
    } catch (StartRefused e) {
      throw new Refusal("password", e.getMessage(), e);
    }
  }

  private AccountRow row(long id) {
    return rows.stream()
        .filter(r -> r.id() == id)
        .findFirst()
        .orElseThrow(() -> Conflict.notFound("account", id));
  }

  synchronized AccountRow change(long id, @Nullable Role role, @Nullable String password) {
    AccountRow before = row(id);
    Role after = role == null ? before.role() : role;
    if (after != Role.ADMINISTER) {
      keepOneThatAdministers(before, true);
    }
    mapper.change(id, after, password == null ? before.hash() : encoder.encode(checked(password)));
    changed(before);
    return row(id);
  }

  /** Another password for who has signed in. */
  synchronized void ownPassword(String name, String present, String wanted) {
    SignedIn who = find(name).orElseThrow(() -> new UsernameNotFoundException(name));
    if (ofTheStart.filter(s -> s.equals(who)).isPresent()) {
      throw Conflict.state(
          "This account's password is that of the start. Change it where Rovnik is started.");
    }
    if (present == null || !encoder.matches(present, who.hash())) {
      throw new Refusal("present", "The present password is not this one.");
    }
    AccountRow row =
        rows.stream().filter(r -> r.name().equals(who.name())).findFirst().orElseThrow();
    mapper.change(row.id(), row.role(), encoder.encode(checked(wanted)));
    changed(row);
  }

  synchronized void remove(long id) {
    AccountRow row = row(id);
    boolean last = rows.size() == 1 && ofTheStart.isEmpty();
    if (!last || !loopback) {
      // The last one may go where nobody needs to sign in then.
      keepOneThatAdministers(row, false);
    }
    mapper.delete(id);
    changed(row);
  }

  private void keepOneThatAdministers(AccountRow but, boolean changes) {
    boolean another =
        ofTheStart.isPresent()
            || rows.stream().anyMatch(r -> r.id() != but.id() && r.role() == Role.ADMINISTER);
    if (but.role() == Role.ADMINISTER && !another) {
      throw Conflict.state(
          "\""
              + but.name()
              + "\" is the only account that administers. "
              + (changes ? "Let another one administer first." : "Make another one first."));
    }
  }

  private void changed(AccountRow row) {
    rows = mapper.all();
    events.publishEvent(new AccountChanged(row.name()));
  }
}
