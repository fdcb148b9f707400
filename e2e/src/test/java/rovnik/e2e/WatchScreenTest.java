package rovnik.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.testng.Assert.assertTrue;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.BoundingBox;
import org.testng.annotations.Test;

/** A long watch: a day that is over, and one that is begun, sees a carrier go, and is kept. */
public class WatchScreenTest extends SpectrumScreen {
  private static final int BUOY = 2;

  private Locator tile(int place) {
    return page.getByRole(
        AriaRole.REGION, new Page.GetByRoleOptions().setName("Tile " + place).setExact(true));
  }

  private void show(int place, String what) {
    page.getByRole(
            AriaRole.COMBOBOX,
            new Page.GetByRoleOptions().setName("What tile " + place + " shows").setExact(true))
        .click();
    page.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName(what).setExact(true))
        .click();
  }

  @Test
  public void aDayIsReadAndZoomedInto() {
    enter("watch");
    assertThat(reading("carrierPower.lowest")).containsText("+22.8");
    assertThat(page.getByTestId("verdict")).containsText("FAIL");
    assertThat(reading("seen")).containsText(words("98\\.\\d* %"));
    assertThat(page.getByText(words("Last outside: Carrier power, 22\\.8"))).isVisible();
    keepsTheRules();

    // The hour before noon is not outside: readings are of what is shown.
    BoundingBox box = tile(1).getByTestId("plot").locator(".u-over").boundingBox();
    double y = box.y + box.height / 2;
    page.mouse().move(box.x + 0.7 * box.width, y);
    page.mouse().down();
    page.mouse().move(box.x + 0.9 * box.width, y);
    page.mouse().up();
    assertThat(page.getByText(words("from 2026-09-21 1\\d:.* to 2026-09-21 2\\d:"))).isVisible();
    assertThat(reading("events")).containsText(words("0\\s+counted"));
    assertThat(page.getByTestId("verdict")).containsText("PASS");
    button("Out of the zoom").click();
    assertThat(reading("events")).containsText(words("1\\s+counted"));

    show(2, "Not watched");
    assertThat(page.getByTestId("table-gaps")).containsText("Receiver did not answer");
    enter("bursts");
    assertThat(page.getByLabel("Threshold over noise", exact())).isVisible();
  }

  @Test
  public void oneIsBegunSeesACarrierGoAndIsKept() {
    frameCarrier();
    enter("watch");
    assertThat(button("New watch ...")).isVisible();
    enter("new watch");
    Locator form = page.getByRole(AriaRole.DIALOG);
    form.getByLabel("Name of the watch").fill("Tonight");
    form.getByText("Begin").click();
    assertThat(form).containsText("Choose 1 to 100 readings that shall be watched.");
    form.getByPlaceholder("choose one or more").click();
    page.getByRole(
            AriaRole.OPTION, new Page.GetByRoleOptions().setName("Carrier power").setExact(true))
        .click();
    form.getByLabel("Carrier power, lower").fill("loud");
    form.getByText("Begin").click();
    assertThat(form).containsText("\"loud\" is not a number in dBm");
    form.getByLabel("Carrier power, lower").fill("24");
    form.getByLabel("Carrier power, hysteresis").fill("0.5");
    form.getByLabel("A point stands for").fill("0.5 s");
    keepsTheRules();
    form.getByText("Begin").click();
    assertThat(page.getByText(words("a point for 500 ms; it goes on"))).isVisible();
    assertThat(reading("carrierPower.newest")).containsText(words("\\+2[67]\\.\\d+ dBm"));

    control(BUOY, "output", "off");
    assertThat(page.getByTestId("table-events")).containsText(words("not there.*goes on.*run"));
    assertThat(page.getByLabel("Run tape", exact())).containsText("Tonight");
    control(BUOY, "output", "on");
    assertThat(page.getByText(words("Last outside: Carrier power, not there.* UTC for")))
        .isVisible();
    assertThat(page.getByTestId("verdict")).containsText("FAIL");

    // Its settings stay while it goes on, on their own desk too.
    button("Spectrum").click();
    assertThat(reading("carrierPower")).containsText("dBm");
    enter("span 100k");
    assertThat(page.getByText(words("The long watch .Tonight. goes on")).first()).isVisible();
    hold();
    button("Time").click();
    assertThat(page.getByText(words("Nothing is seen now: held"))).isVisible();

    page.keyboard().press("k");
    assertThat(page.getByText(words("Kept as .Tonight, all of it"))).isVisible();
    assertTrue(
        page.request()
            .get(page.getByText("All points (CSV)").evaluate("e => e.closest('a').href").toString())
            .text()
            .startsWith("time_utc,"),
        "points as a file");
    button("End the watch").click();
    button("End it for good").click();
    assertThat(page.getByText(words("; ended 20"))).isVisible();
    button("Remove").click();
    button("Remove all it saw").click();
    assertThat(reading("carrierPower.lowest")).containsText("+22.8");
    enter("bursts");
    assertThat(page.getByLabel("Threshold over noise", exact())).isVisible();
  }
}
