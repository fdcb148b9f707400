package rovnik.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** Parts from files: views, charts, markers, worst values, distance, corrections. */
public class NetworkScreenTest extends SpectrumScreen {
  @Override
  protected String home() {
    return "/network";
  }

  @BeforeMethod(dependsOnMethods = "open")
  public void network() {
    only("cavity-filter.s2p");
  }

  private void only(String name) {
    page.locator("[data-only='" + name + "']").click();
    assertThat(page.getByLabel("Show " + name)).isChecked();
  }

  private void format(int view, String format) {
    page.locator("input[aria-label='Format of tile " + view + "']").click();
    page.getByRole(
            com.microsoft.playwright.options.AriaRole.OPTION,
            new Page.GetByRoleOptions().setName(format).setExact(true))
        .first()
        .click();
  }

  private Locator markers() {
    return page.getByTestId("network-markers");
  }

  @Test
  public void theFilterIsReadInItsBand() {
    enter("band from 457M");
    enter("band to 460M");
    assertThat(page.getByTestId("figure-gainLowest")).containsText(words("\u22121\\.\\d\\d dB"));
    assertThat(page.getByTestId("figure-returnLoss1")).containsText("dB");
    enter("marker 458.5M");
    assertThat(markers()).containsText("1: 458.5 MHz");
    assertThat(markers()).containsText(words("S21 magnitude, dB \u22121\\.\\d\\d dB"));
    assertThat(markers()).containsText(words("4\\d\\.\\d+ . j\\d+.* \u03A9"));
    page.getByLabel("Take marker 1 away").click();
    enter("marker 457M");
    assertThat(markers()).containsText(words("\u03A9, \\d+(\\.\\d+)? [pn][FH]"));
    format(1, "group delay");
    assertThat(markers()).containsText(words("S21 group delay \\d+(\\.\\d+)? ns"));
    page.getByTestId("chart").click();
    assertThat(markers()).containsText("2: ");
    page.getByLabel("Take marker 1 away").click();
    assertThat(markers()).not().containsText("1: 457 MHz");
    enter("marker high");
    assertThat(page.getByText("is not a frequency").first()).isVisible();
  }

  /** The scenario's crushed spot: 8 cm of 38 ohm from 17.3 m on. */
  @Test
  public void theCrushedSpotIsFoundOnTheFeeder() {
    only("feeder.s2p");
    page.keyboard().press("t");
    Locator faults = page.getByTestId("faults");
    assertThat(faults).containsText(words("17\\.3\\d m"));
    assertThat(faults).containsText("mismatch");
    page.getByLabel("Response").click();
    page.getByText("impulse", new Page.GetByTextOptions().setExact(true)).click();
    assertThat(faults).containsText("lower impedance");
    turn(page.getByLabel("gate", exact()), true);
    page.getByLabel("Gate to").fill("10");
    page.keyboard().press("Enter");
    // What lies before the spot alone reflects nothing.
    page.locator("input[aria-label='Parameter of tile 1']").click();
    page.getByRole(
            com.microsoft.playwright.options.AriaRole.OPTION,
            new Page.GetByRoleOptions().setName("S11"))
        .first()
        .click();
    enter("marker 500M");
    assertThat(markers())
        .containsText(words("S11 magnitude, dB \u2212([4-9]\\d|1\\d\\d)\\.\\d\\d dB"));
    page.keyboard().press("t");
    assertThat(faults).isHidden();
  }

  @Test
  public void filesAreOpenedLaidOverOneAnotherAndRefused() throws IOException {
    only("choke-a.s2p");
    page.getByLabel("Show choke-b.s2p").check();
    assertThat(page.getByTestId("figure-gainHighest")).containsText("choke-b.s2p");
    Path folder = Files.createDirectories(rovnik.scratch("networks"));
    Path broken = folder.resolve("broken.s1p");
    Files.writeString(broken, "# MHz S RI R 50\n1 0.5\n");
    Path load = folder.resolve("load.s1p");
    Files.writeString(load, "# MHz S RI R 50\n1 -0.333333 0\n2 -0.333333 0\n");
    Locator file = page.locator("aside input[type=file]").first();
    file.setInputFiles(broken);
    assertThat(page.getByText("line 2").first()).isVisible();
    file.setInputFiles(load);
    assertThat(page.getByText("There is no S21")).isVisible();
    assertThat(page.getByTestId("figure-vswr1")).containsText("2 at");
    enter("marker 1M");
    assertThat(markers()).containsText("25 + j0 \u03A9");
    page.getByLabel("Reference impedance").fill("25");
    page.keyboard().press("Enter");
    assertThat(markers()).containsText("25 + j0 \u03A9");
  }
}
