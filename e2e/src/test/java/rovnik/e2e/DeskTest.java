package rovnik.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.testng.Assert.assertTrue;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.BoundingBox;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Tiles of the areas: what they show, the cursor that they share, arrangements and setups. */
public class DeskTest extends SpectrumScreen {
  private Locator tile(int number) {
    return page.getByLabel("Tile " + number, exact());
  }

  private void choose(String select, String option) {
    page.locator("input[aria-label='" + select + "']").click();
    page.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions())
        .getByText(option, new Locator.GetByTextOptions().setExact(true))
        .click();
  }

  /** Moves the pointer to a share of the width and to the middle of the height. */
  private void point(Locator at, double share) {
    BoundingBox box = at.boundingBox();
    page.mouse().move(box.x + share * box.width, box.y + 0.5 * box.height);
  }

  private void menu(String sentence, String item) {
    page.getByLabel(sentence, exact()).click();
    page.getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName(item).setExact(true))
        .click();
  }

  @Test
  public void tilesOfASpectrumShareTheCursorAndAreKeptByName() {
    frameCarrier();
    enter("tiles 4");
    assertThat(tile(2).locator("canvas[role=img]")).isVisible();
    assertThat(tile(2)).containsText(words("bottom: .* s ago"));
    assertThat(tile(3).getByTestId("lines-table")).containsText("458.52");
    assertThat(tile(4).getByTestId("verdict")).containsText("PASS");
    point(tile(2).locator("canvas[role=img]"), 0.5);
    // Half the width of a span of 200 kHz is its centre, on the plot beside as well.
    assertThat(tile(1).getByTestId("crosshair")).containsText(words("458\\.52[45]\\d* MHz"));
    page.mouse().move(0, 0);
    assertThat(tile(1).getByTestId("crosshair")).isEmpty();

    choose("What tile 3 shows", "Level");
    choose("View of tile 3", "numbers");
    assertThat(tile(3).getByRole(AriaRole.TABLE)).containsText("Frequency");
    menu("arrangement of tiles", "Keep these tiles as ...");
    page.getByLabel("Name of the arrangement").fill("Hunting");
    button("Keep it").click();
    menu("arrangement of tiles", "The first ones");
    assertThat(tile(2)).isHidden();
    page.reload();
    assertThat(tile(1)).isVisible();
    enter("arrange hunt");
    assertThat(tile(3).getByRole(AriaRole.TABLE)).containsText("Frequency");
    page.keyboard().press("1");
    assertThat(tile(2)).isHidden();
    page.keyboard().press("2");
    assertThat(tile(3).getByRole(AriaRole.TABLE)).containsText("Frequency");
    menu("arrangement of tiles", "Forget Hunting");
    enter("arrange hunt");
    assertThat(page.getByText("Which arrangement? The first ones.")).isVisible();
    page.keyboard().press("Escape");
    enter("tiles 1");
  }

  /** One record, many looks: what a spectrum was made of, over time and in a band that is drawn. */
  @Test
  public void theSamplesOfASpectrumAreSeenOverTime() {
    frameCarrier();
    enter("tiles 4");
    choose("What tile 2 shows", "Spectrogram");
    choose("What tile 3 shows", "Level over time");
    choose("What tile 4 shows", "Density");
    assertThat(tile(2).locator("canvas[role=img]")).isVisible();
    assertThat(tile(4)).containsText("100 %");
    point(tile(3).getByTestId("plot"), 0.6);
    // The carrier is there all the time, as high as the spectrum has it.
    assertThat(tile(3).getByTestId("crosshair")).containsText(words("s\\s+2[67]\\.\\d dBm"));
    // Beside it there is next to nothing.
    page.keyboard().down("Shift");
    point(tile(1).getByTestId("plot"), 0.75);
    page.mouse().down();
    point(tile(1).getByTestId("plot"), 0.9);
    page.mouse().up();
    page.keyboard().up("Shift");
    Locator away = tile(3).getByLabel(words("Take the band from 458\\.5\\d+ MHz .* away"));
    assertThat(away).isVisible();
    point(tile(3).getByTestId("plot"), 0.6);
    assertThat(tile(3).getByTestId("crosshair"))
        .containsText(words("s\\s+[-\u2212]\\d\\d\\.\\d dBm"));
    away.click();
    point(tile(3).getByTestId("plot"), 0.6);
    assertThat(tile(3).getByTestId("crosshair")).containsText(words("s\\s+2[67]\\.\\d dBm"));
    enter("draw band 458.5M");
    assertThat(page.getByText("\"458.5M\" is no band.")).isVisible();
    page.keyboard().press("Escape");
    enter("draw band 458.56M 458.58M");
    assertThat(away).isVisible();
    enter("draw band whole");
    keepsTheRules();
    menu("arrangement of tiles", "The first ones");
  }

  @Test
  public void aPlaceOnAPlotIsAPlaceOnTheChart() {
    button("Network").click();
    page.locator("[data-only='choke-a.s2p']").click();
    enter("tiles 2");
    choose("Parameter of tile 1", "S11");
    assertThat(tile(2).getByTestId("chart")).isVisible();
    Locator rings = tile(2).locator("svg[data-testid='chart'] > circle");
    assertThat(rings).hasCount(0);
    point(tile(1).getByTestId("plot"), 0.5);
    assertThat(rings).hasCount(1);
    String there = rings.getAttribute("cx");
    point(tile(1).getByTestId("plot"), 0.7);
    Processes.waitFor("the ring to move", () -> !there.equals(rings.getAttribute("cx")));
    // And back: the chart leads the plot.
    point(tile(2).getByTestId("chart"), 0.5);
    assertThat(tile(1).getByTestId("crosshair")).containsText("Hz");
    choose("Parameter of tile 1", "S21");
  }

  /** The server knows of this start; a number is written in one way or the other. */
  private void sweepBegins(String... ways) {
    Processes.waitFor(
        "a sweep from " + ways[0] + " Hz",
        () -> {
          String state = rovnik.get("/api/live/i8/network");
          return Stream.of(ways).anyMatch(w -> state.contains("\"startHz\":" + w));
        });
  }

  @Test
  public void aNetworkSetupBringsSweepViewsAndTilesBack() {
    button("Network").click();
    page.locator("[data-only='Network analyzer']").click();
    assertThat(page.getByTestId("sweep")).isVisible();
    Processes.waitFor(
        "an analyzer that is ours",
        () -> {
          press("Take it over", "Sweep");
          return button("Hold").isVisible();
        });
    press("Hold");
    enter("start at 430M");
    enter("stop at 480M");
    enter("tiles 4");
    enter("distance");
    assertThat(page.getByLabel("Distance", exact()).first()).isVisible();
    page.getByText("Setups", new Page.GetByTextOptions().setExact(true)).click();
    page.getByText("Keep these settings as ...").click();
    page.getByLabel("Name of the setup").fill("Feeder look");
    button("Keep them").click();
    assertThat(page.getByLabel("Name of the setup")).isHidden();
    enter("distance");
    enter("start at 1M");
    enter("tiles 1");
    sweepBegins("1000000.0", "1.0E6");
    assertThat(tile(2)).isHidden();
    page.getByText("Setups", new Page.GetByTextOptions().setExact(true)).click();
    page.getByText("Feeder look").click();
    sweepBegins("430000000", "4.3E8");
    assertThat(tile(2)).isVisible();
    assertThat(page.locator("section[aria-label='Distance']").first()).isVisible();
    enter("distance");
    enter("tiles 2");
  }

  @Test
  public void aKeptRunIsSeenInTiles() {
    frameCarrier();
    enter("keep seen in tiles");
    page.getByLabel("Run tape").getByText("seen in tiles").first().dblclick();
    assertThat(page.getByLabel("Name", exact())).isVisible();
    menu("Number of tiles: 1 tile", "2 tiles");
    choose("What tile 2 shows", "Readings");
    assertThat(tile(2)).containsText("Carrier power");
    assertThat(tile(1).getByTestId("plot")).isVisible();
  }

  @DataProvider
  public Object[][] areas() {
    return new Object[][] {{"bench"}, {"spectrum"}, {"network"}, {"runs"}};
  }

  /** What a window that never saw Rovnik must fetch before an area can be used. */
  @Test(dataProvider = "areas")
  public void theFirstLoadOfAnAreaIsSmall(String area) {
    Page fresh = browser.window(rovnik.url() + "/" + area);
    fresh.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setLevel(1)).waitFor();
    Number bytes =
        (Number)
            fresh.evaluate(
                "() => performance.getEntriesByType('resource')"
                    + ".filter(e => e.name.endsWith('.js'))"
                    + ".reduce((sum, e) => sum + e.encodedBodySize, 0)");
    // What is fetched once need not be fetched again: its name changes with its content.
    Object kept =
        fresh.evaluate(
            "async () => (await fetch(performance.getEntriesByType('resource')"
                + ".find(e => e.name.endsWith('.js')).name)).headers.get('cache-control')");
    fresh.context().close();
    assertTrue(String.valueOf(kept).contains("immutable"), "kept as " + kept);
    assertTrue(bytes.intValue() > 100_000, "scripts are counted: " + bytes);
    assertTrue(bytes.intValue() < 200_000, area + " fetches " + bytes + " bytes of script");
  }
}
