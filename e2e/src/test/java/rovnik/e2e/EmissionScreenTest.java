package rovnik.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.testng.Assert.assertTrue;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.testng.annotations.Test;

/** Emissions and spectral purity in Chromium: traces, readings, lines, guided work, wide scans. */
public class EmissionScreenTest extends SpectrumScreen {
  private void addTrace(String name) {
    page.getByLabel("Add a trace").click();
    item(name).click();
  }

  private void addReading(String name) {
    page.getByLabel("Add a reading").click();
    item(name).click();
  }

  private Locator item(String name) {
    return page.locator("[role=menuitem]", new Page.LocatorOptions().setHasText(name)).first();
  }

  private void guided(String name) {
    button("Guided").click();
    item(name).click();
  }

  private Locator finding() {
    return page.getByTestId("finding");
  }

  @Test
  public void autoFrameFindsTheCarrierFromAnywhere() {
    start();
    enter("span 1M");
    enter("2G");
    page.keyboard().press("a");
    assertThat(page.getByRole(com.microsoft.playwright.options.AriaRole.STATUS).first())
        .containsText("Framed what stands at 458.52");
    assertThat(page.getByLabel("Span")).hasValue("200 kHz");
    assertThat(reading("carrierPower")).containsText(words("\\+26\\.\\d"));
    page.keyboard().press("b");
    page.keyboard().press("f");
    assertThat(button("Hold")).isVisible();
  }

  @Test
  public void severalTracesOverOneAnother() throws IOException {
    frameCarrier();
    addTrace("highest hold");
    addTrace("power average of 32");
    addTrace("trace 1 \u2212 trace 2 in dB");
    assertThat(page.getByText("3: 1 \u2212 2 in dB")).isVisible();
    page.getByLabel("Save Spectrum").click();
    Path csv = page.waitForDownload(() -> page.getByText("What is drawn (CSV)").click()).path();
    assertTrue(Files.readAllLines(csv).get(1).contains("highest hold"));
    page.getByLabel("Take 1: highest hold away").click();
    assertThat(page.getByText("1: power average 32")).isVisible();
    assertThat(page.getByText("1 \u2212 2 in dB")).isHidden();
    page.getByLabel("Take 1: power average 32 away").click();
    assertThat(page.getByText("power average 32")).isHidden();
    addTrace("history of the last 16");
    assertThat(page.getByTestId("plot")).hasAttribute("data-past", "16");
    assertThat(button("Hold")).isVisible();
  }

  @Test
  public void dataIsJudgedByBandwidthChannelsAndMask() {
    control(2, "output", "on");
    control(2, "signal", "data");
    frameCarrier();
    enter("span 400k");
    addReading("Occupied bandwidth ...");
    page.getByLabel("Widest allowed (Hz)").fill("sixty");
    button("Read it").click();
    assertThat(page.getByText("\"sixty\" is not a number in Hz")).isVisible();
    page.getByLabel("Widest allowed (Hz)").fill("65k");
    button("Read it").click();
    assertThat(reading("occupiedBandwidth")).containsText(words("5[56]\\.\\d+ kHz"));
    assertThat(reading("occupiedBandwidth")).containsText("limit at most 65 kHz");
    addReading("Adjacent channels ...");
    button("Read them").click();
    assertThat(page.getByTestId("table-adjacent")).containsText("75 kHz");
    addReading("Emission mask ...");
    page.getByLabel("Segments").fill("30k, 60k, trace, -30, x");
    button("Judge by it").click();
    assertThat(page.getByText("Line 1: \"x\" is not a limit in dB.")).isVisible();
    page.getByLabel("Segments").fill("40k, 150k, trace, -20, -90");
    button("Judge by it").click();
    assertThat(reading("maskMargin")).containsText("\u2717");
    page.getByLabel("Table").getByText("Mask").click();
    assertThat(page.getByTestId("table-mask")).containsText("FAIL");
    enter("keep with mask");
    page.getByLabel("Run tape").getByText("with mask").first().dblclick();
    assertThat(page.getByTestId("table-mask")).containsText("FAIL");
    page.goBack();
    start();
    page.getByLabel("Take Mask, worst", startsWith()).click();
    assertThat(reading("maskMargin")).isHidden();
    control(2, "output", "on");
    control(2, "signal", "carrier");
  }

  private static Page.GetByLabelOptions startsWith() {
    return new Page.GetByLabelOptions().setExact(false);
  }

  @Test
  public void linesMarkersAndTheCounter() {
    frameCarrier();
    enter("span 4M");
    enter("459M");
    page.keyboard().press("l");
    Locator table = page.getByTestId("lines-table");
    assertThat(table).containsText("459.775");
    page.getByText("by frequency").click();
    table.getByText("459.775").first().click();
    assertThat(page.getByTestId("markers")).containsText("459.775");
    page.keyboard().press("p");
    page.keyboard().press("m");
    assertThat(page.getByTestId("markers")).containsText("2: 459.775");
    assertThat(page.getByTestId("markers")).containsText("from 1: 1.25");
    enter("level pair");
    assertThat(page.getByTestId("markers")).containsText("20.00 dB apart");
    addReading("Counted frequency");
    assertThat(reading("read0")).containsText(words("458.525.871"));
    addReading("Noise density");
    assertThat(reading("read1")).containsText("dBm/Hz");
    page.getByLabel("Take Counted frequency away").click();
    assertThat(reading("read1")).isHidden();
    enter("resolution");
    page.getByLabel("Distance, or modulation rate").fill("6k");
    button("Ask").click();
    assertThat(page.getByTestId("advice")).containsText("just visible");
    page.getByText("Take RBW 3 kHz").click();
    assertThat(page.getByLabel("RBW", exact())).hasValue("3 kHz");
    enter("points 4096");
    assertThat(page.getByLabel("Points of one transform")).containsText("4 Ki points");
    enter("points 1000");
    assertThat(page.getByText("a power of two").first()).isVisible();
  }

  @Test
  public void whoseLineLabelsTransmitterAndRoom() {
    frameCarrier();
    enter("average 64");
    enter("span 4M");
    enter("459M");
    assertThat(page.getByText("average 64 of 64")).isVisible();
    page.keyboard().press("w");
    Locator table = finding().getByTestId("table-whose-line");
    assertThat(table.locator("tr", row("458\\.52"))).containsText("device under test");
    assertThat(table.locator("tr", row("459\\.77"))).containsText("device under test");
    assertThat(table.locator("tr", row("459\\.(39|4)"))).containsText("room");
    assertThat(finding()).containsText("0 made in the receiver");
    button("Keep as a run").click();
    assertThat(page.getByText("Kept as")).isVisible();
    button("Back to the live view").click();
    assertThat(reading("carrierPower")).containsText(words("\\+26\\.\\d"));
  }

  private static Locator.LocatorOptions row(String regex) {
    return new Locator.LocatorOptions().setHasText(words(regex));
  }

  @Test
  public void harmonicsPhaseNoiseAndDrive() {
    frameCarrier();
    guided("Harmonics ...");
    page.getByLabel("Up to order (2 to 10)").fill("3");
    button("Start").last().click();
    assertThat(finding()).containsText("Total harmonic distortion");
    assertThat(finding().getByTestId("table-harmonics")).containsText("FAIL");
    button("Back to the live view").click();
    guided("Phase noise ...");
    page.getByLabel("Farthest offset").fill("100k");
    button("Start").last().click();
    // Near the carrier a spectrum lasts long, and many are averaged.
    assertThat(finding().getByTestId("table-decades")).containsText(words("10 kHz.*8[6-9]\\."));
    assertThat(reading("jitter")).containsText("ps");
    button("Back to the live view").click();
    guided("Drive against harmonics ...");
    page.getByLabel("To (dBm)").fill("40");
    button("Start").last().click();
    assertThat(page.getByText("The source can be set from 15.0 to 29.0 dBm").first()).isVisible();
  }

  @Test
  public void aWideScanIsStitchedAndSurveyed() {
    frameCarrier();
    enter("start at 100M");
    enter("stop at 2G");
    // What is done must be done of this span, not of the one between the two entries.
    assertThat(page.getByLabel("Stop", exact())).hasValue("2 GHz");
    assertThat(page.getByText("averages a step")).isVisible();
    assertThat(page.getByLabel("Measure", exact())).hasAttribute("data-step", "done");
    page.keyboard().press("m");
    assertThat(page.getByTestId("markers")).containsText("458.");
    page.keyboard().press("n");
    assertThat(page.getByTestId("markers")).containsText("917.");
    page.keyboard().press("b");
    guided("Spurious survey ...");
    page.getByLabel("Ranges, a line each", startsWith()).fill("800M, 1G, 100k");
    button("Start").last().click();
    assertThat(page.getByText("Range 1: \"\" cannot be read")).isVisible();
    page.getByLabel("Ranges, a line each", startsWith()).fill("800M, 1G, 100k, -36");
    button("Start").last().click();
    assertThat(finding()).containsText("1 lines over the limit");
    assertThat(finding().getByTestId("table-survey")).containsText("917.05");
  }

  @Test
  public void guidedWorkCanBeStopped() {
    frameCarrier();
    guided("Spurious survey ...");
    page.getByLabel("Ranges, a line each", startsWith())
        .fill("1G, 3G, 3k, -90\n3G, 5G, 3k, -90\n5G, 7G, 3k, -90");
    button("Start").last().click();
    assertThat(page.getByTestId("progress")).containsText("Spurious survey");
    enter("span 1M");
    assertThat(page.getByText("Guided work is under way").first()).isVisible();
    page.keyboard().press("Escape");
    button("Stop, keep what there is").click();
    assertThat(page.getByTestId("progress")).isHidden();
    assertThat(button("Hold")).isVisible();
  }

  /** The job of the preamplifier: another receiver, with two inputs and a noise source. */
  private void preamplifierJob() {
    job("Shore preamplifier, noise figure");
    start();
    enter("span 4M");
    enter("458.525M");
    enter("reference -10");
    assertThat(page.getByLabel("Centre", exact())).hasValue("458.525 MHz");
  }

  /** What reaches the second input through its probe, in the units of the trade. */
  @Test
  public void theSecondInputHasItsOwnLevelWindowAndProbe() {
    preamplifierJob();
    button("+ input 2").click();
    assertThat(reading("secondLevel")).containsText(words("\\+1[12]\\.\\d+"));
    assertThat(reading("secondLevel")).containsText("tip of probe 2, 10:1");
    page.getByLabel("Unit of levels").click();
    page.getByText("dB\u00b5V", new Page.GetByTextOptions().setExact(true)).click();
    assertThat(reading("secondLevel")).containsText(words("\\+11[89]\\.\\d+ dB\u00b5V"));
    page.getByLabel("Unit of levels").click();
    page.getByText("V", new Page.GetByTextOptions().setExact(true)).click();
    assertThat(reading("secondLevel"))
        .containsText(words("8[5-9]\\d(\\.\\d)? mV|9[0-4]\\d(\\.\\d)? mV"));
    page.getByLabel("Window of input 2").click();
    page.getByText("Flat-top").click();
    assertThat(page.getByText("tip of probe 2, 10:1, Flat-top").first()).isVisible();
    page.getByLabel("Probe of input 2").click();
    page.getByText("1:1", new Page.GetByTextOptions().setExact(true)).click();
    // The probe itself stays at 10:1: what is told wrong reads wrong, by 20 dB.
    assertThat(reading("secondLevel"))
        .containsText(words("8[5-9](\\.\\d+)? mV|9[0-4](\\.\\d+)? mV"));
    page.getByLabel("Take input 2 at tip of probe 2, 1:1, Flat-top away").click();
    assertThat(reading("secondLevel")).isHidden();
    page.getByLabel("Unit of levels").click();
    page.getByText("dBm", new Page.GetByTextOptions().setExact(true)).click();
    assertThat(reading("channelPower")).containsText("dBm");
  }

  /** The receiver alone, then the preamplifier before it; the part is plugged at the Bench. */
  @Test
  public void theNoiseFigureOfThePreamplifier() {
    control(7, "part", "Through");
    preamplifierJob();
    // With 200 averages U is 0.9 dB, and one run in forty reads 19 dB.
    enter("average 2000");
    guided("Noise figure ...");
    page.getByText("receiver alone").click();
    button("Start").last().click();
    assertThat(finding()).containsText(words("the receiver has a noise figure of 1[78]\\.\\d"));
    page.navigate(rovnik.url() + "/bench");
    Locator plugged =
        page.locator("input[aria-label='plugged in of Part behind the noise source']");
    plugged.click();
    page.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName("Shore preamplifier"))
        .click();
    assertThat(plugged).hasValue("Shore preamplifier");
    page.navigate(rovnik.url() + "/spectrum");
    start();
    guided("Noise figure ...");
    page.getByLabel("At most (dB)").fill("2.5");
    button("Start").last().click();
    assertThat(reading("availableGain")).containsText(words("\\+(19|20\\.[0-2])\\.?\\d*"));
    assertThat(reading("noiseFigure").last()).containsText(words("\\+1\\.\\d+"));
    button("Keep as a run").click();
    assertThat(page.getByText("Kept as")).isVisible();
  }

  /** Weighted traces, a history of all, and a reading asked for while the trace stands still. */
  @Test
  public void weightedTracesAndReadingsOfATraceThatStandsStill() {
    frameCarrier();
    addTrace("quasi-peak (CISPR)");
    addTrace("average (CISPR)");
    assertThat(page.getByText("1: quasi-peak")).isVisible();
    assertThat(page.getByText("2: CISPR average")).isVisible();
    addTrace("history of all");
    page.keyboard().press("Space");
    assertThat(button("Resume")).isVisible();
    addReading("Occupied bandwidth ...");
    button("Read it").click();
    assertThat(reading("occupiedBandwidth")).isVisible();
    button("Take Occupied bandwidth, 99 % away").click();
    assertThat(reading("occupiedBandwidth")).isHidden();
    page.getByLabel("Take 1: quasi-peak away").click();
    page.getByLabel("Take 1: CISPR average away").click();
  }
}
