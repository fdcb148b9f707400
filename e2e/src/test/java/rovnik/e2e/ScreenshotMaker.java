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
      wait(page, 1500);
      page.keyboard().press("c");
      wait(page, 500);
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
      page.navigate(rovnik.url() + "/bench");
      page.getByText("Pad switch").first().waitFor();
      wait(page, 1500);
      shoot(page, "bench");
    }
  }

  private static java.util.List<com.microsoft.playwright.options.KeyboardModifier> shift() {
    return java.util.List.of(com.microsoft.playwright.options.KeyboardModifier.SHIFT);
  }
}
