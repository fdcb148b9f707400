package rovnik.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.testng.annotations.Test;

/** Accounts by the screen: the first one, one that only looks, and the door open again. */
public class AccountScreenTest extends SpectrumScreen {
  private static final String CHIEF = "a password for Ines";
  private static final String GUEST = "a password for guests";

  private Locator field(String name) {
    return page.getByRole(
        AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName(name).setExact(true));
  }

  private void signIn(String name, String password) {
    // The dialog that was open before has a name and a password as well.
    assertThat(button("Sign in")).isVisible();
    field("Name").fill(name);
    field("Password").fill(password);
    page.keyboard().press("Enter");
  }

  @Test
  public void whoMayOnlyLookIsToldSo() {
    try {
      button("Accounts").click();
      field("Name").fill("Ines");
      field("Password").fill("short");
      button("Make the first account").click();
      assertThat(page.getByText("use at least 10")).isVisible();
      field("Password").fill(CHIEF);
      button("Make the first account").click();
      // Everybody must sign in from here on, the maker too.
      assertThat(button("Sign in")).isVisible();
      keepsTheRules();
      signIn("Ines", GUEST);
      assertThat(page.getByText("Name or password is wrong.")).isVisible();
      signIn("Ines", CHIEF);
      button("Ines").click();
      field("Name").fill("Guest");
      field("Password").fill(GUEST);
      page.getByRole(
              AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Rights").setExact(true))
          .click();
      page.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName("looks")).click();
      button("Make the account").click();
      assertThat(page.getByLabel("New password of Guest").first()).isVisible();
      keepsTheRules();
      button("Sign out").click();
      signIn("guest", GUEST);
      assertThat(page.getByText("looks only")).isVisible();
      button("Start").click();
      assertThat(page.getByText("Your account only looks.").first()).isVisible();
      page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Guest")).click();
      button("Sign out").click();
      signIn("ines", CHIEF);
      button("Ines").click();
      Locator rows = page.getByLabel("Accounts", exact()).locator("tbody tr");
      rows.filter(new Locator.FilterOptions().setHasText("Guest")).getByText("Remove").click();
      button("Remove Guest?").click();
      assertThat(rows).hasCount(1);
      rows.getByText("Remove").click();
      button("Remove Ines?").click();
      button("Close").click();
      // The last account is gone: nobody needs to sign in.
      page.reload();
      assertThat(button("Accounts")).isVisible();
    } finally {
      rovnik.removeAccounts("Ines", CHIEF);
    }
  }
}
