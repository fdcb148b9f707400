package rovnik.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.regex.Pattern;
import org.testng.annotations.AfterClass;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.BeforeMethod;

/** The demo with its Spectrum screen in a window, for tests that drive it. */
abstract class SpectrumScreen {
  protected Processes rovnik;
  protected Browser browser;
  protected Page page;

  @BeforeClass
  public void setUp() {
    // A busy machine may be slow; nothing here is judged by time.
    com.microsoft.playwright.assertions.PlaywrightAssertions.setDefaultAssertionTimeout(15_000);
    rovnik = new Processes();
    browser = new Browser();
  }

  @AfterClass(alwaysRun = true)
  public void tearDown() {
    browser.close();
    rovnik.close();
  }

  @BeforeMethod
  public void open() {
    page = browser.window(rovnik.url() + "/spectrum");
  }

  @AfterMethod(alwaysRun = true)
  public void close() {
    page.context().close();
    rovnik.send("PUT", "/api/instruments/2/source", "{\"on\":true,\"modulated\":false}");
    rovnik.send("PUT", "/api/instruments/3/attenuation", "{\"attenuationDb\":30}");
  }

  protected Locator button(String name) {
    return page.getByRole(
        AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
  }

  protected void enter(String text) {
    page.keyboard().press("/");
    page.locator("input[aria-label='Quick entry']").fill(text);
    page.keyboard().press("Enter");
  }

  protected Locator reading(String id) {
    return page.getByTestId("reading-" + id);
  }

  /** Starts; the window of the test before may still hold the receiver for a moment. */
  protected void start() {
    Locator go = button("Start").or(button("Resume")).first();
    go.or(button("Hold")).first().waitFor();
    for (int i = 0; i < 20 && !button("Hold").isVisible(); i++) {
      if (button("Take it over").isVisible()) {
        button("Take it over").click();
      }
      if (go.isVisible()) {
        go.click();
      }
      page.waitForTimeout(400);
    }
    assertThat(button("Hold")).isVisible();
  }

  /** Back to a known framing whatever the test before left. */
  protected void frameCarrier() {
    start();
    enter("average 20");
    enter("reference 30");
    enter("window hann");
    enter("span 200k");
    enter("458.525M");
    assertThat(page.getByText("average 20 of 20")).isVisible();
  }

  protected static Pattern words(String regex) {
    return Pattern.compile(regex, Pattern.DOTALL);
  }

  protected static Page.GetByLabelOptions exact() {
    return new Page.GetByLabelOptions().setExact(true);
  }
}
