package rovnik.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.testng.Assert.assertEquals;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;
import org.testng.ITestResult;
import org.testng.annotations.AfterClass;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.BeforeMethod;

/** The demo with its Spectrum screen in a window, for tests that drive it. */
abstract class SpectrumScreen {
  /** What the tests measure with. */
  private static final List<String> SOURCES =
      List.of(
          "i1/spectrum",
          "i1/single-carrier",
          "i4/spectrum",
          "i5/spectrum",
          "i8/network",
          "i13/single-carrier",
          "i15/receiver",
          "i16/receiver");

  /**
   * One server and one set of stand-ins for all classes of this process; tests put back what they
   * change. It ends with the process, for nobody else knows which class is the last.
   */
  private static Processes shared;

  private static final Path AXE = Path.of("..", "web", "node_modules", "axe-core", "axe.min.js");

  protected Processes rovnik;
  protected Browser browser;
  protected Page page;

  @BeforeClass
  public void setUp() {
    // A busy machine may be slow; nothing here is judged by time.
    com.microsoft.playwright.assertions.PlaywrightAssertions.setDefaultAssertionTimeout(180_000);
    if (shared == null) {
      shared = new Processes();
      Runtime.getRuntime().addShutdownHook(new Thread(shared::close));
    }
    rovnik = shared;
    browser = new Browser();
  }

  @AfterClass(alwaysRun = true)
  public void tearDown() {
    browser.close();
  }

  /** The page that each test begins on. */
  /** Letters of a window that are told of a test that failed. */
  private static final int MOST = 1500;

  protected String home() {
    return "/spectrum";
  }

  @BeforeMethod
  public void open() {
    // Levels are expected at the source: where another test has read is not for this one to know.
    rovnik.send("PUT", "/api/jobs/1/reading-plane", "{\"plane\":0}");
    page = browser.window(rovnik.url() + home());
  }

  @AfterMethod(alwaysRun = true)
  public void close(ITestResult result) {
    if (!result.isSuccess()) {
      page.screenshot(
          new Page.ScreenshotOptions()
              .setPath(Path.of("target", "failed", result.getName() + ".png")));
      // Where only the output is kept, the words must say what the picture would.
      String words = page.innerText("body").replaceAll("\\s+", " ");
      System.out.println(
          "[ERROR] "
              + result.getName()
              + " saw: "
              + words.substring(0, Math.min(MOST, words.length())));
    }
    control(2, "output", "on");
    control(2, "signal", "carrier");
    control(3, "attenuation", "30");
    page.context().close();
    Processes.waitFor(
        "windows that were closed to let go",
        () -> SOURCES.stream().map(s -> rovnik.get("/api/live/" + s)).allMatch(this::rests));
  }

  private boolean rests(String state) {
    return state.contains("\"holder\":\"\"") && !state.contains("\"phase\":\"RUNNING\"");
  }

  protected void control(long instrument, String control, String value) {
    rovnik.control(page, instrument, control, value);
  }

  protected Locator button(String name) {
    return page.getByRole(
        AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
  }

  /** Chooses a job by its name. */
  protected void job(String name) {
    page.locator("input[aria-label=Job]").click();
    page.getByText(name, new Page.GetByTextOptions().setExact(true)).click();
    assertThat(page.locator("input[aria-label=Job]")).hasValue(name);
  }

  protected void enter(String text) {
    page.keyboard().press("/");
    page.locator("input[aria-label='Quick entry']").fill(text);
    page.keyboard().press("Enter");
  }

  protected Locator reading(String id) {
    return page.getByTestId("reading-" + id);
  }

  /**
   * Presses the first of these buttons that is there now, if any is: looked for and pressed in one,
   * for the next state may take it away.
   */
  protected void press(String... names) {
    page.evaluate(
        "names => [...document.querySelectorAll('button')]"
            + ".find(b => names.includes(b.textContent.trim()))?.click()",
        List.of(names));
  }

  /** Holds, and waits until it is held: what is pressed next may be where this button was. */
  protected void hold() {
    press("Hold");
    assertThat(button("Resume")).isVisible();
  }

  /** Turns a switch by its key: what it stands beside may move while it is looked for. */
  protected void turn(Locator control, boolean on) {
    control.press("Space");
    assertThat(control).isChecked(new LocatorAssertions.IsCheckedOptions().setChecked(on));
  }

  /** Starts; the window of the test before may still hold the receiver for a moment. */
  protected void start() {
    button("Start").or(button("Resume")).or(button("Hold")).first().waitFor();
    Processes.waitFor(
        "a running measurement",
        () -> {
          if (button("Hold").isVisible()) {
            return true;
          }
          press("Take it over", "Start", "Resume");
          return false;
        });
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

  /** What is shown breaks no rule of axe-core, which checks pages against WCAG. */
  protected void keepsTheRules() {
    try {
      page.evaluate(Files.readString(AXE));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    Object broken =
        page.evaluate(
            "() => axe.run().then(r => r.violations.map(v => v.id + ': ' + v.nodes[0].html))");
    assertEquals(broken, List.of());
  }

  protected static Pattern words(String regex) {
    return Pattern.compile(regex, Pattern.DOTALL);
  }

  protected static Page.GetByLabelOptions exact() {
    return new Page.GetByLabelOptions().setExact(true);
  }
}
