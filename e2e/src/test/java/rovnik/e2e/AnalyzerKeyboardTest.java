package rovnik.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.testng.Assert.assertTrue;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** A part measured from hook-up to its run with the keyboard alone. */
public class AnalyzerKeyboardTest extends SpectrumScreen {
  private static final int MOST_TABS = 100;

  @Override
  protected String home() {
    return "/network";
  }

  @BeforeMethod(dependsOnMethods = "open")
  public void network() {
    assertThat(page.getByLabel("Show Network analyzer")).isVisible();
  }

  private void press(String key) {
    page.keyboard().press(key);
  }

  private String focused() {
    return (String)
        page.evaluate(
            "() => { const e = document.activeElement; return e.getAttribute('aria-label')"
                + " || e.labels?.[0]?.textContent || e.textContent || ''; }");
  }

  /** What the list under the focused field would take with the enter key. */
  private String offered() {
    return (String)
        page.evaluate(
            "() => document.getElementById(document.activeElement"
                + ".getAttribute('aria-activedescendant') || '-')?.textContent || ''");
  }

  /** Does something and waits until what is said has changed. */
  private static void changing(Supplier<String> said, Runnable act) {
    String before = said.get();
    act.run();
    Processes.waitFor("another than " + before, () -> !said.get().equals(before));
  }

  /** Goes on with the tab key until something of that name has the focus. */
  private void reach(String name) {
    List<String> seen = new ArrayList<>();
    for (int i = 0; i < MOST_TABS; i++) {
      String here = focused();
      // A word of a sentence is named by what it says, too.
      if (here.equals(name) || here.startsWith(name + ": ")) {
        return;
      }
      if (!seen.contains(here)) {
        seen.add(here);
      }
      press("Tab");
    }
    throw new AssertionError("the tab key never came to \"" + name + "\" but to " + seen);
  }

  private void plug(String part) {
    reach("Part between the ports");
    press("Enter");
    Locator menu = page.locator("[role=menu]");
    menu.waitFor();
    for (int i = 0; i < 30 && !focused().equals(part); i++) {
      changing(this::focused, () -> press("ArrowDown"));
    }
    press("Enter");
    assertThat(menu).isHidden();
    assertThat(page.locator("[data-choice='Part between the ports']").last()).hasText(part);
  }

  private void standard(String step, String part) {
    plug(part);
    reach(step);
    press(" ");
    assertThat(page.locator("[data-testid^=step-]", new Page.LocatorOptions().setHasText(step)))
        .containsText("measured");
  }

  @Test
  public void fromHookUpToTheRun() {
    enter("job parts");
    enter("analyzer network");
    assertThat(page.getByTestId("sweep")).isVisible();
    for (String entry : List.of("start at 430M", "stop at 490M", "points 201", "power -10")) {
      enter(entry);
      assertThat(page.locator("input[aria-label='Quick entry']")).hasValue("");
    }
    assertThat(page.getByLabel("Points", exact())).hasValue("201");

    enter("calibrate");
    assertThat(page.locator("[role=dialog]")).isVisible();
    if (button("Drop it").isVisible()) { // an attempt of this test before
      reach("Drop it");
      press("Enter");
    }
    reach("What is put right");
    for (int i = 0; i < 12 && !offered().startsWith("one port:"); i++) {
      changing(this::offered, () -> press("ArrowDown"));
    }
    press("Enter");
    reach("Begin");
    press("Enter");
    assertThat(page.getByTestId("step-OPEN_1")).isVisible();
    standard("Open at port 1", "Open");
    standard("Short at port 1", "Short");
    standard("Load at port 1", "Load");
    reach("Name of the calibration");
    page.keyboard().type("by keys");
    reach("Keep and use it");
    press("Enter");
    assertThat(page.locator("[role=dialog]")).hasCount(0);
    assertThat(page.getByTestId("trust")).containsText("calibrated");

    plug("Cavity filter");
    press("Escape");
    enter("limits");
    assertThat(page.locator("[role=dialog]")).isVisible();
    // The dialog is there before its text has the focus: keys that come between are lost.
    Locator text = page.locator("[role=dialog] textarea").first();
    assertThat(text).isFocused();
    press("Control+a");
    String limit = "match: S11 return loss at least 12 from 457.5M to 459.5M";
    page.keyboard().type(limit);
    assertThat(text).hasValue(limit);
    reach("Use these");
    press("Enter");
    assertThat(page.locator("[role=dialog]")).hasCount(0);
    enter("single");
    assertThat(page.getByTestId("network-verdict")).containsText("PASS");
    enter("marker 458.5M");
    assertThat(page.getByLabel("Readings", exact())).containsText("458.5 MHz");
    enter("keep done by keys");
    assertThat(page.getByLabel("Run tape")).containsText("done by keys");

    // A sweep that runs on is held by space, also from a button that the keyboard came to.
    enter("tiles 1");
    press(" ");
    reach("Hold");
    press(" ");
    assertThat(button("Sweep")).isVisible();
    assertTrue(page.getByLabel("Tile 2").count() == 0, "one view");
  }
}
