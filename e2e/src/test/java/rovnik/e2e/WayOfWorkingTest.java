package rovnik.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.testng.Assert.assertTrue;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.testng.annotations.Test;

/** Setups, files of settings, traces from elsewhere, the report, and many runs at once. */
public class WayOfWorkingTest extends SpectrumScreen {
  private void setups(String item) {
    button("Setups").click();
    page.locator("[role=menuitem]", new Page.LocatorOptions().setHasText(item)).first().click();
  }

  @Test
  public void setupsAndFilesBringSettingsBack() throws IOException {
    frameCarrier();
    enter("span 300k");
    setups("Keep these settings as");
    button("Keep them").click();
    assertThat(page.getByText("Give the setup a name")).isVisible();
    page.getByLabel("Name of the setup").fill("mask check");
    button("Keep them").click();
    Path file = page.waitForDownload(() -> setups("Save to a file")).path();
    assertTrue(Files.readString(file).contains("rovnik-settings"));
    setups("Back to the first settings");
    assertThat(page.getByLabel("Span")).hasValue("20 MHz");
    setups("mask check");
    assertThat(page.getByLabel("Span")).hasValue("300 kHz");
    enter("span 1M");
    page.getByLabel("Settings file").setInputFiles(file);
    assertThat(page.getByLabel("Span")).hasValue("300 kHz");
    Path bad = rovnik.scratch("settings.json");
    Files.writeString(bad, Files.readString(file).replace("\"version\": 2", "\"version\": 7"));
    page.getByLabel("Settings file").setInputFiles(bad);
    assertThat(page.getByText("The file has version 7").first()).isVisible();
    assertThat(page.getByLabel("Span")).hasValue("300 kHz");
  }

  @Test
  public void aTraceFromElsewhereLiesOverOurs() throws IOException {
    frameCarrier();
    Path csv = rovnik.scratch("elsewhere.csv");
    Files.writeString(csv, "frequency (MHz);level (dBm)\n458.45;-20\n458.6;oops\n");
    page.getByLabel("CSV from elsewhere").setInputFiles(csv);
    assertThat(page.getByText("line 3: needs a frequency and a level").first()).isVisible();
    Files.writeString(csv, "frequency (MHz);level (dBm)\n458.45;-20\n458.6;-25\n");
    page.getByLabel("CSV from elsewhere").setInputFiles(csv);
    Locator away = page.getByLabel("Take " + csv.getFileName() + " away");
    assertThat(away).isVisible();
    away.click();
    assertThat(away).isHidden();
  }

  @Test
  public void manyRunsOnOneSheetOverlaidAndReported() {
    Matcher id = Pattern.compile("\"id\":(\\d+)").matcher(rovnik.get("/api/jobs/1/runs"));
    while (id.find()) {
      rovnik.send("DELETE", "/api/runs/" + id.group(1), "");
    }
    frameCarrier();
    for (String name : new String[] {"first", "second", "third"}) {
      enter("keep " + name);
      page.getByLabel("Run tape").getByText(name).first().waitFor();
    }
    button("Runs").click();
    button("All on one sheet").click();
    assertThat(page.getByTestId("run-grid")).containsText("third");
    assertThat(page.getByText("3 runs: 3 passed, 0 failed")).isVisible();
    button("All on one sheet").click();
    for (String name : new String[] {"first", "second", "third"}) {
      page.getByLabel("Compare " + name).check();
    }
    assertThat(page.getByText("3 runs over one another")).isVisible();
    assertThat(page.getByTestId("overlay-readings")).containsText("Carrier power");
    page.getByLabel("Compare third").uncheck();
    assertThat(page.getByTestId("changes")).isVisible();
    page.locator("button", new Page.LocatorOptions().setHasText("first")).first().click();
    Page report = page.context().waitForPage(() -> page.getByText("Report").click());
    assertThat(report.getByText("Readings", new Page.GetByTextOptions().setExact(true)))
        .isVisible();
    assertThat(report.locator("svg polyline").first()).isVisible();
    assertThat(report.locator("h1")).hasText("first");
    report.close();
    page.getByText("Remove", new Page.GetByTextOptions().setExact(true)).click();
    page.getByText("Remove it for good").click();
    assertThat(page.getByLabel("Compare first")).isHidden();
  }

  /**
   * The path's last element becomes the swept analyzer; screens, readings and runs stay the same.
   */
  @Test
  public void theSweptAnalyzerFeedsTheSameScreen() {
    frameCarrier();
    page.locator("input[aria-label=Source]").click();
    page.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName("Swept analyzer")).click();
    button("Start").click();
    assertThat(page.getByText("The path of this job ends at").first()).isVisible();
    page.getByTitle("Edit the path").nth(3).click();
    page.locator("[role=dialog] input:not([type=hidden])").nth(1).click();
    page.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName("Swept analyzer")).click();
    button("Store the path").click();
    start();
    enter("rbw 1k");
    enter("average 4");
    enter("span 200k");
    enter("458.525M");
    assertThat(reading("carrierPower")).containsText(words("\\+2[67]\\.\\d"));
    assertThat(page.getByText("a sweep of")).isVisible();
    button("Guided").click();
    page.locator("[role=menuitem]", new Page.LocatorOptions().setHasText("Auto frame")).click();
    assertThat(page.getByText("Guided work needs an IQ receiver").first()).isVisible();
    enter("keep swept");
    page.getByLabel("Run tape").getByText("swept").first().waitFor();
    page.getByTitle("Edit the path").nth(3).click();
    page.locator("[role=dialog] input:not([type=hidden])").nth(1).click();
    page.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName("Receiver").setExact(true))
        .click();
    button("Store the path").click();
    page.locator("input[aria-label=Source]").click();
    page.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName("Receiver").setExact(true))
        .click();
    frameCarrier();
  }
}
