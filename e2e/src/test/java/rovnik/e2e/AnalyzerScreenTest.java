package rovnik.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.testng.Assert.assertTrue;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.testng.annotations.Test;

/** The live network analyzer, from hook-up to verdict, in the real interface. */
public class AnalyzerScreenTest extends SpectrumScreen {
  private static final String LIVE = "/api/live/i8/network";
  private static final String PART = "Part between the ports";

  @Override
  protected String home() {
    return "/network";
  }

  /** One sweep, from the key press to the end. */
  private void one() {
    long before = sweeps();
    button("One").click();
    Processes.waitFor(
        "one more sweep",
        () -> sweeps() > before && rovnik.get(LIVE).contains("\"phase\":\"HELD\""));
  }

  private long sweeps() {
    Matcher m = Pattern.compile("\"sweeps\":(\\d+)").matcher(rovnik.get(LIVE));
    assertTrue(m.find());
    return Long.parseLong(m.group(1));
  }

  private void remember() {
    int before = rovnik.get("/api/networks").length();
    button("Remember").click();
    Processes.waitFor("a memory", () -> rovnik.get("/api/networks").length() > before);
  }

  private void live() {
    page.locator("[data-only='Network analyzer']").click();
    Locator sweep = page.getByTestId("sweep");
    assertThat(sweep).isVisible();
    // The window of the test before may still hold the analyzer for a moment.
    Processes.waitFor(
        "an analyzer that rests",
        () -> {
          press("Hold");
          return button("Sweep").isVisible();
        });
    field("Port power", "-10");
    plug(PART, "Through");
    plug("Pad at port 1", "None");
    plug("Pad at port 2", "None");
  }

  private void plug(String place, String what) {
    Locator inDialog = page.locator("[role=dialog]").locator("[data-choice='" + place + "']");
    Locator at = inDialog.count() > 0 ? inDialog : page.locator("[data-choice='" + place + "']");
    if (at.first().innerText().equals(what)) {
      return;
    }
    at.first().click();
    page.getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName(what).setExact(true))
        .first()
        .click();
    assertThat(at.first()).hasText(what);
  }

  private void field(String label, String value) {
    Locator field = page.getByLabel(label, exact()).first();
    field.fill(value);
    field.press("Enter");
  }

  private void sweep(String start, String stop, String points) {
    field("Start", start);
    field("Stop", stop);
    field("Points", points);
  }

  private Locator step(String name) {
    return page.getByTestId("step-" + name);
  }

  private void measure(String step, String what) {
    plug(PART, what);
    step(step).locator("button").click();
    assertThat(step(step)).containsText("measured");
  }

  private void calibrate() {
    page.locator("section[aria-label=Calibrate] button").first().click();
    button("Begin").click();
    assertThat(step("OPEN_1")).isVisible();
    for (String port : List.of("1", "2")) {
      for (String what : List.of("Open", "Short", "Load")) {
        measure(what.toUpperCase(java.util.Locale.ROOT) + "_" + port, what);
      }
    }
    measure("THROUGH", "Through");
    button("Keep and use it").click();
    assertThat(page.locator("[role=dialog]")).hasCount(0);
    assertThat(page.getByTestId("trust")).containsText("calibrated");
  }

  /**
   * -7 dB through pads of 10 and 20 dB is 23 dB (common practice); here it is the harbour's own.
   */
  @Test
  public void theAmplifierFromLevelsToItsRun() {
    job("Shore preamplifier, gain");
    live();
    sweep("440M", "480M", "81");
    page.locator("section[aria-label=Calibrate] button").first().click();
    button("Begin").click();
    assertThat(step("OPEN_1")).isVisible();
    step("OPEN_1").locator("button").click();
    assertThat(page.getByText("Then tick \"the part is off\"").first()).isVisible();
    page.getByText("the part is off, only standards").click();
    measure("OPEN_1", "Open");
    assertThat(page.getByText("the part is off, only standards")).isHidden();
    step("SHORT_1").locator("button").click();
    assertThat(step("SHORT_1")).containsText("just like the open");
    measure("SHORT_1", "Short");
    measure("LOAD_1", "Load");
    measure("OPEN_1", "Open");
    measure("OPEN_2", "Open");
    assertThat(button("Keep and use it")).isDisabled();
    measure("LOAD_2", "Load");
    measure("SHORT_2", "Short");
    measure("THROUGH", "Through");
    button("Keep and use it").click();
    assertThat(page.locator("[role=dialog]")).hasCount(0);
    plug(PART, "Shore preamplifier");
    plug("Pad at port 1", "Pad 10 dB");
    plug("Pad at port 2", "Pad 20 dB with dc block");
    assertThat(page.getByLabel("Levels", exact()))
        .containsText(words("[-\u2212]30\\.0 dBm into the output"));
    button("Sweep").click();
    assertThat(page.getByText("may put dc on its connectors").first()).isVisible();
    page.getByText("checked: no dc at the ports").click();
    field("Port power", "5");
    button("Sweep").click();
    assertThat(page.getByText("would be overloaded").first()).isVisible();
    field("Port power", "-10");
    button("Sweep").click();
    enter("band from 457M");
    enter("band to 459M");
    // 19.5 dB, and what the pads' own values and tolerances leave open.
    assertThat(page.getByTestId("figure-gainLowest"))
        .containsText(words("19\\.[2-7]\\d dB . 0\\.\\d+"));
    assertThat(page.getByTestId("network-trust")).containsText("the connectors of Preamplifier");
    assertThat(page.getByTestId("network-verdict")).containsText("PASS");
    enter("marker 458M");
    assertThat(page.getByTestId("stability")).containsText("mu 1.");
    page.getByLabel("Read at").click();
    page.getByText("the calibrated ports", new Page.GetByTextOptions().setExact(true))
        .last()
        .click();
    assertThat(page.getByTestId("figure-gainLowest")).containsText(words("\u221210\\.\\d\\d dB"));
    enter("keep gain as found");
    Locator tape = page.getByLabel("Run tape");
    assertThat(tape).containsText("gain as found");
    tape.getByText("gain as found").dblclick();
    assertThat(page.getByText("port 2 sends yes").first()).isVisible();
    assertThat(page.getByText("Touchstone", new Page.GetByTextOptions().setExact(true)))
        .isVisible();
  }

  @Test
  public void theFilterIsHeldToLimitsAndItsMemory() {
    job("Parts in store");
    live();
    sweep("448M", "469M", "211");
    assertThat(page.getByTestId("trust")).containsText(words("calibrated"));
    calibrate();
    plug(PART, "Cavity filter");
    page.keyboard().press("Space");
    Locator verdict = page.getByTestId("network-verdict");
    button("Limits and bands").click();
    page.getByLabel("Limits, one a line")
        .fill(
            "pass band: S21 dB at least -1.9 from 457M to 460M\n"
                + "stop band: S21 dB at most -30..-40 from 464M to 468M");
    button("Use these").click();
    assertThat(verdict).containsText("PASS");
    assertThat(verdict).containsText("stop band");
    button("Limits and bands").click();
    page.getByLabel("Limits, one a line").fill("pass band: S21 dB at least -0.5 from 457M to high");
    button("Use these").click();
    assertThat(page.getByText("a number cannot be read")).isVisible();
    page.getByLabel("Limits, one a line").fill("pass band: S21 dB at least -0.5 from 457M to 460M");
    page.getByLabel("Bands where readings are wanted, one a line").fill("middle: 458M to 459M");
    button("Use these").click();
    assertThat(verdict).containsText("FAIL");
    assertThat(page.getByTestId("figure-gainLowest-1")).containsText("dB");
    page.keyboard().press("r");
    assertThat(page.getByText("Remembered as")).isVisible();
    page.locator("input[aria-label=Memory]").click();
    page.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName(words("Memory \\d")))
        .first()
        .click();
    enter("band from 458M");
    enter("band to 459M");
    assertThat(page.getByTestId("figure-gainHighest")).containsText(words("[+\u2212]?0\\.0\\d dB"));
    page.keyboard().press("Space");
    assertThat(button("Sweep")).isVisible();
    // Other points: the trust says so.
    sweep("450M", "465M", "101");
    assertThat(page.getByTestId("trust")).containsText("interpolated");
    sweep("450M", "600M", "101");
    assertThat(page.getByTestId("trust")).containsText("not over the whole sweep");
  }

  @Test
  public void feederFixtureAndCandidates() {
    job("Parts in store");
    live();
    sweep("1M", "1G", "1000");
    calibrate();
    plug(PART, "Feeder");
    button("Sweep").click();
    enter("distance");
    assertThat(page.getByTestId("faults")).containsText(words("17\\.3\\d m"));
    enter("distance");
    field("Length of the cable", "24");
    assertThat(page.getByTestId("cable")).containsText(words("0\\.8[45]"));
    field("Length of the cable", "none");
    button("Hold").click();

    sweep("1.6M", "30M", "101");
    field("Port power", "0");
    calibrate();
    turn(page.getByLabel("home-made fixture"), true);
    plug(PART, "Fixture shorted");
    one();
    button("\u25CB empty now").click();
    assertThat(page.getByText("still passes").first()).isVisible();
    button("\u25CB shorted now").click();
    assertThat(button("\u2713 shorted now")).isVisible();
    plug(PART, "Fixture empty");
    one();
    button("\u25CB empty now").click();
    assertThat(button("\u2713 empty now")).isVisible();
    assertThat(page.getByText("too near to what the fixture itself does").first()).isVisible();
    enter("marker 10M");
    assertThat(page.getByTestId("network-markers")).containsText("too near to the fixture");
    enter("clear");
    button("Limits and bands").click();
    page.getByLabel("Limits, one a line")
        .fill("choke good enough: S21 dB at most -25 from 1.8M to 29M");
    page.getByLabel("Bands where readings are wanted, one a line").fill("");
    button("Use these").click();
    for (String choke : List.of("Choke A", "Choke B")) {
      plug(PART, choke);
      one();
      remember();
    }
    turn(page.getByLabel("candidates: parts"), true);
    Locator table = page.getByTestId("candidates");
    assertThat(table.locator("tbody tr").first()).containsText("PASS");
    assertThat(table.locator("tbody tr").last()).containsText("FAIL");
    turn(page.getByLabel("candidates: parts"), false);
    turn(page.getByLabel("home-made fixture"), false);
  }

  private void choose(String label, String choice) {
    page.locator("[data-choice='" + label + "']").first().click();
    page.getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName(choice).setExact(true))
        .click();
  }

  /** Any adapter as the through, then the calibration judged by an open that is known. */
  @Test
  public void anAdapterServesAndTheCalibrationIsVerified() {
    job("Parts in store");
    live();
    sweep("50M", "2G", "201");
    page.locator("section[aria-label=Calibrate] button").first().click();
    page.getByLabel("What is put right").first().click();
    page.getByRole(
            AriaRole.OPTION,
            new Page.GetByRoleOptions().setName("both ports and any adapter as through"))
        .click();
    page.getByLabel("Rough delay of the adapter").fill("far");
    assertThat(button("Begin")).isDisabled();
    page.getByLabel("Rough delay of the adapter").fill("185p");
    button("Begin").click();
    assertThat(step("OPEN_1")).isVisible();
    for (String port : List.of("1", "2")) {
      for (String what : List.of("Load", "Open", "Short")) {
        measure(what.toUpperCase(java.util.Locale.ROOT) + "_" + port, what);
      }
    }
    measure("THROUGH", "Adapter");
    page.getByLabel("Name of the calibration").fill("with an adapter");
    button("Keep and use it").click();
    assertThat(page.locator("[role=dialog]")).hasCount(0);
    plug(PART, "Open");
    one();
    page.locator("section[aria-label=Calibrate] button").first().click();
    button("Verify").click();
    assertThat(page.getByTestId("verified")).containsText("The calibration holds");
    page.keyboard().press("Escape");
    assertThat(page.locator("[role=dialog]")).hasCount(0);
    // The open's own delay, found as a line before the plane.
    button("find it").first().click();
    assertThat(page.getByLabel("Extension of port 1", exact())).not().hasValue("0 s");
    choose("Steps of the sweep", "segments");
    page.getByLabel("One segment a line: start to stop, points").fill("100M to 200M");
    button("Sweep these").click();
    assertThat(page.getByText("Line 1: write it as")).isVisible();
    page.getByLabel("One segment a line: start to stop, points")
        .fill("100M to 200M, 51\n900M to 1G, 51");
    button("Sweep these").click();
    assertThat(page.getByTestId("sweep")).containsText("2 segments, 102 points");
    assertThat(page.getByTestId("trust")).containsText("interpolated");
    choose("Steps of the sweep", "even steps");
  }

  /** 27 nF with its coil, Q 35: the scenario's tuned circuit. */
  @Test
  public void theCoilTellsItsResonance() {
    job("Parts in store");
    live();
    sweep("140k", "210k", "401");
    calibrate();
    plug(PART, "Front-end coil");
    one();
    choose("Resonance", "parallel circuit across the line");
    assertThat(page.getByTestId("resonance")).containsText(words("17[12]\\.\\d+ kHz.*Q 3[3-7]"));
    assertThat(page.getByTestId("resonance")).containsText(words("2[67](\\.\\d+)? nF"));
    choose("Resonance", "no resonance");
  }

  /** Two lines side by side: the balanced pair passes, and nothing is converted. */
  @Test
  public void fourPortsAreShownBalanced() throws java.io.IOException {
    StringBuilder text = new StringBuilder("# MHz S RI R 50\n");
    for (int f = 1; f <= 3; f++) {
      text.append(f)
          .append(" 0 0 0 0 0.9 0 0 0\n 0 0 0 0 0 0 0.9 0\n")
          .append(" 0.9 0 0 0 0 0 0 0\n 0 0 0.9 0 0 0 0 0\n");
    }
    java.nio.file.Path file = rovnik.scratch("pair.s4p");
    java.nio.file.Files.writeString(file, text);
    assertThat(page.locator("[data-only='feeder.s2p']")).isVisible();
    page.locator("aside input[type=file]").first().setInputFiles(file);
    assertThat(page.locator("[data-choice='Balanced ports']")).isVisible();
    assertThat(page.locator("section[aria-label='Tile 1']")).containsText("pair");
    choose("Balanced ports", "1+2 and 3+4");
    assertThat(page.locator("input[aria-label='Parameter of tile 1']")).hasValue("Sdd21");
    enter("marker 2M");
    assertThat(page.getByTestId("network-markers")).containsText("\u22120.92 dB");
    choose("Balanced ports", "none");
  }

  /** A load of 25 ohm brought to 50 ohm by a thought-of L section: j25 in series, -j50 across. */
  @Test
  public void aMatchIsThoughtOf() throws java.io.IOException {
    java.nio.file.Path file = rovnik.scratch("load.s1p");
    java.nio.file.Files.writeString(
        file, "# MHz S RI R 50\n99 -0.333333 0\n100 -0.333333 0\n101 -0.333333 0\n");
    assertThat(page.locator("[data-only='feeder.s2p']")).isVisible();
    page.locator("aside input[type=file]").first().setInputFiles(file);
    assertThat(page.getByTestId("figure-vswr1")).containsText("2 at");
    enter("band from 100M");
    enter("band to 100M");
    page.getByLabel("Match elements").fill("series L 39.79n, shunt Q 3");
    assertThat(page.getByText("Write elements as")).isVisible();
    page.getByLabel("Match elements").fill("series L 39.789n, shunt C 31.831p");
    assertThat(page.getByTestId("figure-returnLoss1"))
        .containsText(words("\\d{2,3}\\.\\d\\d dB at 100 MHz"));
    page.getByLabel("Match elements").fill("");
  }
}
