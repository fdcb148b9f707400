package rovnik.server.access;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rovnik.core.Refusal;
import rovnik.server.access.AccountMapper.AccountRow;
import rovnik.server.config.Conflict;

/** Accounts; who has signed in. */
@RestController
@RequestMapping("/api/accounts")
class AccountController {
  /** An account; its password is never told. */
  @Schema(name = "Account")
  record Account(long id, String name, Role role, String madeAt) {
    static Account of(AccountRow r) {
      return new Account(r.id(), r.name(), r.role(), r.madeAt().toInstant().toString());
    }
  }

  /**
   * A new account.
   *
   * @param role what it may do; the first one must administer
   * @param password at least 10 characters
   */
  @Schema(name = "NewAccount")
  record NewAccount(@Nullable String name, @Nullable Role role, @Nullable String password) {}

  /** What changes; null stays. */
  @Schema(name = "AccountChange")
  record Change(@Nullable Role role, @Nullable String password) {}

  /** Another password of one's own. */
  @Schema(name = "OwnPassword")
  record OwnPassword(@Nullable String present, @Nullable String wanted) {}

  /**
   * Who asks.
   *
   * @param name empty if nobody needs to sign in
   * @param role what may be done
   * @param rights the role in words
   * @param ownPassword the password can be changed here
   */
  @Schema(name = "Me")
  record Me(String name, Role role, String rights, boolean ownPassword) {}

  private final Accounts accounts;

  AccountController(Accounts accounts) {
    this.accounts = accounts;
  }

  @GetMapping
  List<Account> all() {
    return accounts.all().stream().map(Account::of).toList();
  }

  @GetMapping("/me")
  Me me(@AuthenticationPrincipal @Nullable SignedIn who) {
    if (who == null) {
      return new Me("", Role.ADMINISTER, Role.ADMINISTER.label(), false);
    }
    Role role = accounts.roleNow(who).orElse(who.role());
    return new Me(who.name(), role, role.label(), !who.name().equals(Accounts.OF_THE_START));
  }

  @PutMapping("/me/password")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void ownPassword(
      @AuthenticationPrincipal @Nullable SignedIn who, @RequestBody OwnPassword password) {
    if (who == null) {
      throw Conflict.state("Nobody has signed in.");
    }
    accounts.ownPassword(who.name(), password.present(), password.wanted());
  }

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  Account add(@RequestBody NewAccount wanted) {
    if (wanted.role() == null) {
      throw new Refusal("role", "Say what the account may do: VIEW, MEASURE or ADMINISTER.");
    }
    return Account.of(accounts.add(wanted.name(), wanted.role(), wanted.password()));
  }

  @PatchMapping("/{id}")
  Account change(@PathVariable long id, @RequestBody Change change) {
    return Account.of(accounts.change(id, change.role(), change.password()));
  }

  @DeleteMapping("/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable long id) {
    accounts.remove(id);
  }
}
