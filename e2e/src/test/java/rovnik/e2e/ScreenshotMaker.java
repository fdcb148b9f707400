package rovnik.e2e;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.nio.file.Path;
import org.testng.annotations.Test;

/** Makes the pictures of docs/screenshots from the demo data; run by ./rovnik shots only. */
public class ScreenshotMaker {
  private final Path folder = Path.of(System.getProperty("rovnik.shots", "target/shots"));

  private void shoot(Page page, String name) {
    page.mouse().move(2, 2);
    page.waitForTimeout(300);
    page.screenshot(new Page.ScreenshotOptions().setPath(folder.resolve(name + ".png")));
  }

  private static void type(Page page, String entry) {
    page.keyboard().press("/");
    page.locator("input[aria-label='Quick entry']").fill(entry);
    page.keyboard().press("Enter");
    page.waitForTimeout(400);
  }

  private static void wait(Page page, int millis) {
    page.waitForTimeout(millis);
  }

  @Test
  public void makePictures() {
    try (Processes rovnik = new Processes();
        Browser browser = new Browser()) {
      Page page = browser.window(rovnik.url() + "/spectrum");
      page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Start")).click();
      page.getByTestId("reading-carrierPower").waitFor();
      wait(page, 1500);
      type(page, "458.525M");
      type(page, "span 4M");
      type(page, "average 50");
      wait(page, 2000);
      type(page, "keep TX on");
      rovnik.send("PUT", "/api/instruments/2/source", "{\"on\":false}");
      wait(page, 2500);
      type(page, "keep TX off");
      rovnik.send("PUT", "/api/instruments/2/source", "{\"on\":true}");
      type(page, "span 200k");
      type(page, "average 20");
      wait(page, 1500);
      page.keyboard().press("m");
      page.keyboard().press("k");
      wait(page, 1200);
      shoot(page, "spectrum-live");
      page.getByLabel("Light or dark").click();
      wait(page, 600);
      shoot(page, "spectrum-live-dark");
      page.getByLabel("Light or dark").click();
      page.getByTitle("Edit the path").nth(1).click();
      wait(page, 500);
      shoot(page, "path-editor");
      page.keyboard().press("Escape");
      Locator tape = page.getByLabel("Run tape");
      tape.getByText("TX on").click(new Locator.ClickOptions().setModifiers(shift()));
      tape.getByText("TX off").click(new Locator.ClickOptions().setModifiers(shift()));
      page.getByTestId("changes").waitFor();
      wait(page, 500);
      shoot(page, "spectrum-compare");
      emissions(rovnik, page);
      noiseFigure(rovnik, page);
      networks(rovnik, page);
      page.navigate(rovnik.url() + "/bench");
      page.getByText("Pad switch").first().waitFor();
      wait(page, 1500);
      shoot(page, "bench");
    }
  }

  private static void menu(Page page, String button, String item) {
    page.getByLabel(button).or(page.getByText(button, exactly())).first().click();
    page.locator("[role=menuitem]", new Page.LocatorOptions().setHasText(item)).first().click();
    wait(page, 500);
  }

  private static Page.GetByTextOptions exactly() {
    return new Page.GetByTextOptions().setExact(true);
  }

  private static void press(Page page, String name) {
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name)).last().click();
    wait(page, 400);
  }

  private static void finding(Page page) {
    page.getByTestId("finding").waitFor(new Locator.WaitForOptions().setTimeout(60_000));
    wait(page, 800);
  }

  private void emissions(Processes rovnik, Page page) {
    page.navigate(rovnik.url() + "/spectrum");
    press(page, "Start");
    type(page, "span 4M");
    type(page, "459M");
    type(page, "average 64");
    menu(page, "Add a trace", "highest hold");
    page.keyboard().press("l");
    wait(page, 2500);
    page.keyboard().press("m");
    page.keyboard().press("d");
    shoot(page, "spectrum-lines");
    page.keyboard().press("w");
    finding(page);
    shoot(page, "spectrum-whose-line");
    press(page, "Keep as a run");
    press(page, "Back to the live trace");
    page.keyboard().press("l");
    page.getByLabel("Take 1: highest hold away").click();
    type(page, "span 200k");
    type(page, "458.525M");
    menu(page, "Guided", "Phase noise ...");
    press(page, "Start");
    finding(page);
    shoot(page, "spectrum-phase-noise");
    press(page, "Keep as a run");
    press(page, "Back to the live trace");
    menu(page, "Guided", "Spurious survey ...");
    press(page, "Start");
    finding(page);
    shoot(page, "spectrum-survey");
    press(page, "Keep as a run");
    press(page, "Back to the live trace");
    rovnik.send("PUT", "/api/instruments/2/source", "{\"on\":true,\"modulated\":true}");
    type(page, "span 400k");
    menu(page, "Add a reading", "Occupied bandwidth ...");
    page.getByLabel("Widest allowed (Hz)").fill("65k");
    press(page, "Read it");
    menu(page, "Add a reading", "Emission mask ...");
    press(page, "Judge by it");
    type(page, "average 100");
    wait(page, 2500);
    shoot(page, "spectrum-mask");
    type(page, "keep data with mask");
    wait(page, 1000);
    page.navigate(rovnik.url() + "/runs?all=1");
    page.getByTestId("run-grid").waitFor();
    wait(page, 800);
    shoot(page, "run-grid");
    page.getByTestId("run-grid").getByText("data with mask").click();
    Page report = page.context().waitForPage(() -> page.getByText("Report", exactly()).click());
    report.waitForLoadState();
    shoot(report, "report");
    report.close();
    rovnik.send("PUT", "/api/instruments/2/source", "{\"on\":true,\"modulated\":false}");
  }

  private void noiseFigure(Processes rovnik, Page page) {
    rovnik.send("PUT", "/api/instruments/7/part", "{\"part\":\"Through\"}");
    page.navigate(rovnik.url() + "/spectrum");
    page.locator("input[aria-label=Job]").click();
    page.getByText("Shore preamplifier, noise figure").click();
    press(page, "Start");
    type(page, "span 4M");
    type(page, "458M");
    type(page, "reference -10");
    press(page, "+ input 2");
    wait(page, 2500);
    shoot(page, "spectrum-two-inputs");
    for (String part : new String[] {"receiver alone", "device and receiver"}) {
      menu(page, "Guided", "Noise figure ...");
      page.getByText(part, exactly()).click();
      press(page, "Start");
      finding(page);
      if (part.startsWith("receiver")) {
        press(page, "Back to the live trace");
        rovnik.send("PUT", "/api/instruments/7/part", "{\"part\":\"Shore preamplifier\"}");
      }
    }
    shoot(page, "spectrum-noise-figure");
    page.locator("input[aria-label=Job]").click();
    page.getByText("Outer buoy, yearly check").first().click();
  }

  private void networks(Processes rovnik, Page page) {
    page.navigate(rovnik.url() + "/network");
    page.getByLabel("Only cavity-filter.s2p").click();
    wait(page, 1500);
    type(page, "band from 457M");
    type(page, "band to 460M");
    type(page, "marker 458.5M");
    type(page, "marker 456.6M");
    wait(page, 800);
    shoot(page, "network-filter");
    page.getByLabel("Only feeder.s2p").click();
    page.keyboard().press("t");
    page.getByTestId("faults").waitFor();
    type(page, "clear");
    wait(page, 1000);
    shoot(page, "network-distance");
  }

  private static java.util.List<com.microsoft.playwright.options.KeyboardModifier> shift() {
    return java.util.List.of(com.microsoft.playwright.options.KeyboardModifier.SHIFT);
  }
}
