package rovnik.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.KeyboardModifier;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.testng.annotations.Test;

/** The whole yearly check in Chromium, against the running server and stand-ins. */
public class FirstLightTest extends SpectrumScreen {
  @Test
  public void unknownSignalWithTheKeyboardAlone() {
    start();
    enter("span 20M");
    enter("460M");
    assertThat(page.getByLabel("Centre", exact())).hasValue("460 MHz");
    assertThat(page.getByText("RBW 20 kHz").first()).isVisible();
    assertThat(reading("carrierPower")).containsText(words("\\+2[67]\\.\\d"));
    page.keyboard().press("m");
    assertThat(page.getByTestId("markers")).containsText("458.52");
    page.keyboard().press("c");
    assertThat(page.getByLabel("Centre", exact())).hasValue("458.53 MHz");
    for (String span : List.of("10 MHz", "5 MHz", "2 MHz", "1 MHz", "500 kHz", "200 kHz")) {
      page.keyboard().press("-");
      assertThat(page.getByLabel("Span")).hasValue(span);
    }
    assertThat(page.getByLabel("RBW", exact())).hasValue("auto, 200 Hz");
    assertThat(reading("frequencyErrorPpm")).containsText(words("\\+1\\.(89|90)"));
    page.keyboard().press("b");
    assertThat(page.getByLabel("Span")).hasValue("500 kHz");
    page.keyboard().press("f");
    assertThat(page.getByLabel("Span")).hasValue("200 kHz");
    page.keyboard().press("Space");
    assertThat(button("Resume")).isVisible();
    page.keyboard().press("?");
    assertThat(page.getByText("Keys and quick entry")).isVisible();
  }

  @Test
  public void verdictWithMarginsAndUncertainty() {
    frameCarrier();
    assertThat(page.getByTestId("verdict")).containsText("PASS");
    assertThat(reading("carrierPower")).containsText("limit +24.0 to +27.5 dBm, margin +0.");
    assertThat(reading("carrierPower")).containsText(words("\u00B1 0\\.\\d+ dB"));
    assertThat(reading("carrierFrequency")).containsText("458\u2009525\u200987");
    assertThat(page.getByTestId("stats")).containsText("frames/s");
    // the same verdict at the receiver's port, 31.2 dB lower
    page.keyboard().press("]");
    page.keyboard().press("]");
    assertThat(reading("carrierPower")).containsText("at Receiver IN");
    assertThat(reading("carrierPower")).containsText(words("\u22124\\.\\d"));
    assertThat(reading("carrierPower")).containsText("margin +0.");
    page.keyboard().press("[");
    page.keyboard().press("[");
    assertThat(reading("carrierPower")).containsText("at Buoy TX OUT");
  }

  @Test
  public void removingThePadIsRefusedAndOverriddenWithAReason() {
    frameCarrier();
    page.getByTitle("Edit the path").nth(1).click();
    button("Remove").click();
    button("Store the path").click();
    assertThat(page.getByTestId("headroom")).containsText("not safe");
    assertThat(page.getByTestId("level-finding")).containsText("Receiver IN would be damaged");
    assertThat(page.getByTestId("level-finding")).containsText("dB pad");
    assertThat(button("Hold")).isHidden();
    page.keyboard().press("Space");
    assertThat(button("Hold")).isHidden();
    page.getByLabel("Reason for the override").fill("the pad is inside the cable");
    button("Measure all the same").click();
    assertThat(button("Hold")).isVisible();
    assertThat(page.getByText("Overridden: the pad is inside the cable")).isVisible();
    // put it back: adding after the source
    page.getByTitle("Edit the path").nth(0).click();
    button("Add after").click();
    page.getByLabel("Name", exact()).fill("Pad 30 dB");
    page.getByLabel("Gain (dB, a loss is negative)").fill("ten");
    button("Store the path").click();
    assertThat(page.getByText("is not a number").first()).isVisible();
    page.getByLabel("Gain (dB, a loss is negative)").fill("-30");
    button("Store the path").click();
    assertThat(page.getByTestId("headroom")).containsText("headroom");
    assertThat(reading("carrierPower")).containsText(words("\\+2[67]\\.\\d"));
  }

  /** The feeder's gain from its own S21; a broken file is refused beside the field. */
  @Test
  public void aPathElementTakesItsGainFromATouchstoneFile() throws IOException {
    Path folder = Files.createDirectories(rovnik.scratch("touchstone"));
    Path broken = folder.resolve("broken.s2p");
    Path whole = folder.resolve("feeder.s2p");
    Files.writeString(broken, "# MHz S DB R 50\n400 -20 0 -2 0 -2 0\n");
    Files.writeString(
        whole, "# MHz S DB R 50\n400 -20 0 -2 0 -2 0 -20 0\n500 -20 0 -3 0 -3 0 -20 0\n");
    frameCarrier();
    page.getByTitle("Edit the path").nth(2).click();
    page.getByText("Touchstone file", new Page.GetByTextOptions().setExact(true)).click();
    page.locator("[role=dialog] input[type=file]").setInputFiles(broken);
    assertThat(page.getByText("line 2: the file ends inside the point")).isVisible();
    page.locator("[role=dialog] input[type=file]").setInputFiles(whole);
    assertThat(page.getByText("2 ports, 2 points, 400 MHz to 500 MHz")).isVisible();
    button("Store the path").click();
    // 2.585 dB instead of 1.2 dB between the same plane and the receiver
    assertThat(reading("carrierPower")).containsText(words("\\+28\\.[23]"));
    page.getByTitle("Edit the path").nth(2).click();
    page.getByText("one gain").click();
    button("Store the path").click();
    assertThat(reading("carrierPower")).containsText(words("\\+2[67]\\.\\d"));
  }

  @Test
  public void overloadIsOnTheNumbers() {
    frameCarrier();
    enter("reference 10");
    assertThat(reading("carrierPower")).containsText("overload");
    assertThat(page.getByTestId("verdict")).containsText("NOT JUDGED");
    assertThat(page.getByText("Raise the reference level")).isVisible();
    enter("reference 30");
    assertThat(page.getByTestId("verdict")).containsText("PASS");
  }

  @Test
  public void absurdEntriesAreRefusedAtTheField() {
    frameCarrier();
    enter("span 0");
    assertThat(page.getByText("The span must be more than 0 Hz").first()).isVisible();
    page.keyboard().press("Escape");
    enter("20G");
    assertThat(page.getByText("The receiver tunes from").first()).isVisible();
    page.keyboard().press("Escape");
    enter("rbw 1M");
    assertThat(page.getByText("is wider than the span").first()).isVisible();
    page.keyboard().press("Escape");
    enter("wibble");
    assertThat(page.getByText("is not known here")).isVisible();
    page.keyboard().press("Escape");
    assertThat(page.getByLabel("Span")).hasValue("200 kHz");
    assertThat(button("Hold")).isVisible();
  }

  @Test
  public void markersFollowAndMeasureDifferences() {
    frameCarrier();
    enter("span 4M");
    enter("459M");
    assertThat(page.getByText("RBW 4 kHz")).isVisible();
    page.keyboard().press("m");
    assertThat(page.getByTestId("markers")).containsText("458.52");
    page.keyboard().press("d");
    assertThat(page.getByTestId("markers")).containsText("1.25");
    assertThat(page.getByTestId("markers")).containsText(words("\u22126[1-5]\\.\\d\\d dB"));
  }

  @Test
  public void onAgainstOffTellsWhoseLineItIs() {
    frameCarrier();
    enter("span 4M");
    enter("459M");
    enter("average 60");
    assertThat(page.getByText("average 60 of 60")).isVisible();
    enter("keep TX on");
    page.getByLabel("Run tape").getByText("TX on").waitFor();
    button("Bench").click();
    turn(page.getByLabel("output of Buoy TX"), false);
    assertThat(page.getByLabel("Buoy TX", exact()).getByText("output off")).isVisible();
    button("Spectrum").click();
    start();
    // What is drawn first is the last average, with the transmitter on.
    assertThat(reading("carrierPower")).not().containsText("+26");
    assertThat(page.getByText("average 60 of 60")).isVisible();
    enter("keep TX off");
    Locator tape = page.getByLabel("Run tape");
    tape.getByText("TX off").first().waitFor();
    tape.getByText("TX on").first().click(shift());
    tape.getByText("TX off").first().click(shift());
    Locator lines = page.getByTestId("lines");
    assertThat(lines.locator("tr", hasText("458.52"))).containsText("comes and goes with Buoy TX");
    assertThat(lines.locator("tr", hasText("459.77"))).containsText("comes and goes with Buoy TX");
    assertThat(lines.locator("tr", new Locator.LocatorOptions().setHasText(words("459\\.(39|4)"))))
        .containsText("not from Buoy TX");
    assertThat(page.getByTestId("changes")).containsText("on, carrier");
    button("Swap A and B").click();
    assertThat(lines).containsText("comes and goes");
  }

  private static Locator.ClickOptions shift() {
    return new Locator.ClickOptions().setModifiers(List.of(KeyboardModifier.SHIFT));
  }

  private static Locator.LocatorOptions hasText(String text) {
    return new Locator.LocatorOptions().setHasText(text);
  }

  @Test
  public void aKeptRunSurvivesKillAndLiesOverTheLiveTrace() {
    frameCarrier();
    enter("keep to be killed");
    page.getByLabel("Run tape").getByText("to be killed").waitFor();
    String before = rovnik.get("/api/jobs/1/runs");
    rovnik.killServer();
    assertThat(page.getByText("The connection to Rovnik's server broke")).isVisible();
    rovnik.startServer();
    assertEquals(rovnik.get("/api/jobs/1/runs"), before);
    page.reload();
    page.getByLabel("Run tape").getByText("to be killed").first().click();
    assertThat(page.getByText("to be killed at Buoy TX OUT")).isVisible();
    page.getByLabel("Run tape").getByText("to be killed").first().dblclick();
    page.getByLabel("Note").fill("after the storm");
    page.getByLabel("Name", exact()).fill("survivor");
    page.getByLabel("Note").focus();
    assertThat(page.getByText("survivor").first()).isVisible();
    page.getByLabel("Note").blur();
    Processes.waitFor(
        "the note to be stored", () -> rovnik.get("/api/jobs/1/runs").contains("after the storm"));
    page.reload();
    assertThat(page.getByLabel("Note")).hasValue("after the storm");
  }

  @Test
  public void aLostReceiverIsSaidAndComesBackByItself() {
    frameCarrier();
    rovnik.stopStandins();
    assertThat(page.getByText("is lost").first()).isVisible();
    button("Bench").click();
    assertThat(page.getByLabel("Receiver", exact())).containsText("lost, trying again");
    button("Spectrum").click();
    rovnik.startStandins();
    assertThat(page.getByText("is lost")).isHidden();
    button("Start").or(button("Resume")).or(button("Hold")).first().waitFor();
    if (!button("Hold").isVisible()) {
      start();
    }
    assertThat(page.getByTestId("stats")).containsText("frames/s");
  }

  @Test
  public void aSecondWindowWatchesAndTakesOver() {
    frameCarrier();
    Page second = browser.window(rovnik.url() + "/spectrum");
    assertThat(second.getByText("is held by the window")).isVisible();
    assertThat(second.getByTestId("reading-carrierPower")).containsText(words("\\+2[67]\\.\\d"));
    second.getByText("Take it over").click();
    assertThat(page.getByText("is held by the window")).isVisible();
    assertThat(second.getByText("is held by the window")).isHidden();
    second.context().close();
  }

  @Test
  public void recordingsOpenOnTheSameScreen() throws IOException {
    Path folder = Files.createDirectories(rovnik.scratch("sigmf"));
    Path meta = folder.resolve("quay.sigmf-meta");
    Path data = folder.resolve("quay.sigmf-data");
    Files.writeString(
        meta,
        "{\"global\":{\"core:datatype\":\"ci16_le\",\"core:sample_rate\":1000000,"
            + "\"core:version\":\"1.0.0\"},\"captures\":[{\"core:sample_start\":0,"
            + "\"core:frequency\":458500000}],\"annotations\":[]}");
    ByteBuffer b = ByteBuffer.allocate(4 * 50_000).order(ByteOrder.LITTLE_ENDIAN);
    for (int i = 0; i < 50_000; i++) {
      b.putShort((short) (16000 * Math.cos(2 * Math.PI * 0.05 * i)));
      b.putShort((short) (16000 * Math.sin(2 * Math.PI * 0.05 * i)));
    }
    Files.write(data, java.util.Arrays.copyOf(b.array(), b.capacity() - 3));
    button("Open a recording").click();
    page.locator("[role=dialog] input[type=file]").setInputFiles(new Path[] {meta, data});
    button("Open").click();
    assertThat(page.getByText("cut off")).isVisible();
    data = folder.resolve("quay-whole.sigmf-data");
    Files.write(data, b.array());
    page.locator("[role=dialog] input[type=file]").setInputFiles(new Path[] {meta, data});
    button("Open").click();
    assertThat(reading("carrierPower")).containsText("dBFS");
    assertThat(reading("carrierPower")).containsText(words("\u22126\\.2"));
    assertThat(reading("carrierFrequency")).containsText("458\u2009550\u2009000");
    assertThat(page.getByText("No calibration: levels in dBFS")).isVisible();
    page.keyboard().press("k");
    assertThat(page.getByText("Kept as")).isVisible();
    page.getByLabel("Full-scale level in dBm").fill("-10");
    page.keyboard().press("Enter");
    assertThat(page.getByText("Calibrated: levels in dBm")).isVisible();
    assertThat(reading("carrierPower")).containsText(words("\\+14\\.9[67]"));
  }

  @Test
  public void savesPictureTraceAndSamples() throws IOException {
    frameCarrier();
    String csv = Files.readString(save("What is drawn (CSV)").path());
    assertTrue(csv.contains("frequency (Hz)") && csv.lines().count() > 1000, csv.substring(0, 80));
    assertTrue(Files.readString(save("Picture (SVG)").path()).contains("<polyline"));
    byte[] png = Files.readAllBytes(save("Picture (PNG)").path());
    assertTrue(png.length > 5000 && png[1] == 'P' && png[2] == 'N');
    Download meta = page.waitForDownload(() -> button("Save IQ").click());
    assertTrue(Files.readString(meta.path()).contains("rovnik:full_scale_dbm"));
  }

  private Download save(String what) {
    page.getByLabel("Save Spectrum").click();
    return page.waitForDownload(() -> page.getByText(what).click());
  }

  @Test
  public void theBenchAddsIdentifiesAndReadsErrors() {
    button("Bench").click();
    Locator receiver = page.getByLabel("Receiver", exact());
    receiver.locator("button[aria-expanded]").click();
    receiver.getByText("Identify").click();
    assertThat(receiver.getByRole(AriaRole.STATUS)).containsText("IQ receiver stand-in");
    receiver.getByText("Errors").click();
    assertThat(page.getByText("Errors of Receiver")).isVisible();
    page.keyboard().press("Escape");
    button("Add an instrument").click();
    page.getByLabel("Host").fill("127.0.0.1");
    page.getByLabel("Port", exact()).fill("70000");
    button("Ask what it is").click();
    assertThat(page.getByText("The port must be 1 to 65535")).isVisible();
    // What answers says what it is: kind and dialect are proposed.
    page.getByLabel("Port", exact()).fill("" + (rovnik.standinPort() + 2));
    button("Ask what it is").click();
    assertThat(page.locator("[role=dialog] input[aria-label=Kind], [role=dialog] input").nth(3))
        .not()
        .hasValue("");
    page.getByLabel("Port", exact()).fill("1");
    button("Ask what it is").click();
    assertThat(page.locator("[role=dialog]")).containsText("Nothing answers at 127.0.0.1:1");
    page.getByLabel("Name", exact()).fill("Far receiver");
    page.getByLabel("Kind").first().click();
    page.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName("IQ receiver")).click();
    button("Add and connect").click();
    Locator far = page.getByLabel("Far receiver", exact());
    assertThat(far).containsText("Nothing answers at 127.0.0.1:1");
    receiver.getByText("Disconnect").click();
    assertThat(receiver).containsText("not connected");
    receiver.getByText("Connect", new Locator.GetByTextOptions().setExact(true)).click();
    assertThat(receiver).containsText("\u2713 connected");
    far.locator("button[aria-expanded]").click();
    far.getByText("Remove").click();
    assertThat(far).isVisible();
    far.getByText("Forget Far receiver").click();
    assertThat(far).isHidden();
  }
}
