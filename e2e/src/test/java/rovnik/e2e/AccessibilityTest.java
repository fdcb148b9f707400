package rovnik.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** No area breaks a rule of axe-core, a library that checks pages against WCAG, in either theme. */
public class AccessibilityTest extends SpectrumScreen {
  @DataProvider
  public Object[][] areas() {
    return new Object[][] {
      {"bench", false},
      {"spectrum", false},
      {"modulation", false},
      {"time", false},
      {"receiver", false},
      {"network", false},
      {"runs", false},
      {"bench", true},
      {"spectrum", true},
      {"modulation", true},
      {"time", true},
      {"receiver", true},
      {"network", true},
      {"runs", true},
    };
  }

  @Test(dataProvider = "areas")
  public void areaKeepsTheRules(String area, boolean dark) {
    if (dark) {
      page.getByLabel("Light or dark").click();
      assertThat(page.locator("html")).hasAttribute("data-mantine-color-scheme", "dark");
    }
    if (area.equals("spectrum")) {
      start();
      assertThat(reading("carrierPower")).containsText("dBm");
      page.keyboard().press("Space");
      assertThat(button("Resume")).isVisible();
    }
    button(area.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + area.substring(1)).click();
    assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setLevel(1)))
        .hasCount(1);
    keepsTheRules();
  }
}
