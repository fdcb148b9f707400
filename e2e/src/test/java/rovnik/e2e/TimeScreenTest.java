package rovnik.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.AriaRole;
import org.testng.annotations.Test;

/** Bursts: pulses of the generator are made, sent, found, judged and kept. */
public class TimeScreenTest extends GeneratorScreen {
  private static final int FAST_INPUT = 20;
  private static final int FIRST_PROBE = 22;
  private static final int SECOND_PROBE = 23;
  private static final int PROBE_PLACE = 24;

  @Override
  protected String home() {
    return "/time";
  }

  private void pulses() {
    button("Waveform ...").click();
    Locator dialog = page.getByRole(AriaRole.DIALOG);
    dialog.getByLabel(words("^Part")).click();
    page.getByRole(AriaRole.MENUITEM)
        .filter(new Locator.FilterOptions().setHasText(words("^pulses$")))
        .click();
    for (String[] field :
        new String[][] {{"Width", "300u"}, {"Interval", "3.1m"}, {"Edges", "5u"}}) {
      Locator box = dialog.getByLabel(field[0], inside());
      box.fill(field[1]);
      box.press("Enter");
    }
    assertThat(dialog).containsText("It repeats without a seam");
    sendAndSwitchOn();
    field("level", "-10");
    assertThat(signal()).containsText("peaks 0.2");
  }

  @Test
  public void burstsAreFoundJudgedAndKept() {
    job("Vector generator, its own errors");
    // What is typed before the desk has its source is answered by a sentence and lost.
    assertThat(page.getByLabel("Band", exact())).isVisible();
    assertThat(page.getByLabel("Reference level", exact())).isVisible();
    enter("centre 458.525M");
    enter("band 1M");
    enter("length 50m");
    enter("reference 5");
    assertThat(page.getByLabel("Reference level", exact())).hasValue(words("^5 dBm$"));
    pulses();
    start();
    assertThat(reading("period")).containsText(words("3\\.1\\d* ms"));
    assertThat(reading("length")).containsText(words("(300|299\\.99)\\.?\\d* \u00b5s"));
    assertThat(reading("bursts")).containsText("counted");
    assertThat(page.locator("input[aria-label='What tile 4 shows']"))
        .hasValue("Starts off their places");
    Locator most = page.getByLabel("Most time from burst to burst");
    most.fill("3m");
    most.press("Enter");
    assertThat(reading("period")).containsText("limit at most 3 ms");
    enter("keep burst 99");
    assertThat(page.getByText("There are bursts 1 to").first()).isVisible();
    enter("keep burst 2");
    assertThat(page.getByText(words("Recording .burst 2.* of (300|299)")).first()).isVisible();
    enter("keep too slow");
    assertThat(page.getByText("too slow").first()).isVisible();
    button("no known rates").click();
    page.getByLabel("Known rates", exact()).fill("radio sleep 3.1 ms");
    button("Save").click();
    assertThat(page.getByText(words("is not understood")).first()).isVisible();
    page.getByLabel("Known rates", exact()).fill("radio sleep = 3.1 ms\ncore clock = 26 MHz");
    button("Save").click();
    assertThat(page.getByText(words("That is radio sleep; nothing else")).first()).isVisible();
    assertThat(button("2 known rates")).isVisible();
    control(GENERATOR, "output", "off");
    assertThat(page.getByText(words("No burst: the highest level stays"))).isVisible();
  }

  /**
   * Density and history of the same: what is there, what is sure, and two places read against each
   * other.
   */
  @Test(dependsOnMethods = "burstsAreFoundJudgedAndKept")
  public void densityAndHistory() {
    job("Vector generator, its own errors");
    control(GENERATOR, "output", "on");
    assertThat(page.getByLabel("Threshold over noise", exact())).isVisible();
    enter("density");
    assertThat(page.getByLabel("Span", exact())).isVisible();
    enter("centre 458.525M");
    enter("span 1M");
    enter("rbw 20k");
    enter("length 50m");
    enter("reference 5");
    assertThat(page.getByLabel("Reference level", exact())).hasValue(words("^5 dBm$"));
    start();
    assertThat(reading("highestLevel")).containsText(words("[+-\u2212]?0\\.\\d+ dBm"));
    assertThat(reading("share")).containsText(words("(9|10)\\.\\d+ %"));
    assertThat(reading("sure")).containsText(words("1\\d\\d\\.?\\d* \u00b5s"));
    assertThat(page.getByTestId("table-there")).containsText("458.525 MHz");
    Locator history =
        page.getByRole(AriaRole.GROUP)
            .filter(
                new Locator.FilterOptions()
                    .setHas(page.getByLabel("Level over frequency and time", exact())));
    history.focus();
    history.press("Enter");
    history.press("ArrowDown");
    assertThat(page.getByText(words("off the mark by 0 Hz, .* [mu\u00B5]s"))).isVisible();
    keepsTheRules();
    enter("overlap 99");
    assertThat(page.getByText(words("overlap by 0 to 98 %")).first()).isVisible();
    enter("bursts");
    assertThat(page.getByLabel("Threshold over noise", exact())).isVisible();
    control(GENERATOR, "output", "off");
  }

  /**
   * One record over time; the spectrum is that of the highest level, then of a place clicked on.
   */
  @Test(dependsOnMethods = "densityAndHistory")
  public void amplitudeAndInstant() {
    job("Vector generator, its own errors");
    control(GENERATOR, "output", "on");
    assertThat(page.getByLabel("Threshold over noise", exact())).isVisible();
    enter("amplitude");
    assertThat(page.getByLabel("Instant", exact())).hasValue("the highest");
    enter("centre 458.525M");
    enter("band 1M");
    enter("length 50m");
    enter("reference 5");
    assertThat(page.getByLabel("Reference level", exact())).hasValue(words("^5 dBm$"));
    start();
    assertThat(reading("highestLevel")).containsText(words("[+-\u2212]?[01]\\.\\d+ dBm"));
    assertThat(reading("stretchLevel")).containsText(words("[+-\u2212]?0\\.\\d+ dBm"));
    assertThat(reading("lineFrequency")).containsText("458 525 0");
    enter("stretch 500u");
    assertThat(page.getByLabel("Stretch", exact())).hasValue("500 \u00b5s");
    page.getByTestId("plot").first().click();
    Locator instant = page.getByLabel("Instant", exact());
    assertThat(instant).hasValue(words("^[12]\\d\\.?\\d* ms$"));
    keepsTheRules();
    enter("instant 80m");
    assertThat(page.getByText(words("The instant lies outside of the result")).first()).isVisible();
    assertThat(reading("stretchLevel")).containsText("of an earlier record");
    enter("instant highest");
    assertThat(instant).hasValue("the highest");
    // A look that was refused has nothing to keep; the next one has.
    assertThat(reading("stretchLevel")).not().containsText("of an earlier record");
    enter("keep pulse seven");
    assertThat(page.getByText("pulse seven").first()).isVisible();
    control(GENERATOR, "output", "off");
  }

  /** The crane remote, where the fast receiver is plugged into the aerial: a setup of its job. */
  @Test(dependsOnMethods = "amplitudeAndInstant")
  public void hopsOfTheCraneRemote() {
    control(FAST_INPUT, "part", "aerial on the quay");
    job("Crane remote, hops");
    assertThat(page.getByLabel("Threshold over noise", exact())).isVisible();
    enter("hops");
    assertThat(page.getByLabel("Channels apart", exact())).isVisible();
    enter("centre 2.441G");
    enter("channel 1 2.402G");
    enter("channels 40");
    enter("length 20m");
    enter("reference -30");
    assertThat(page.getByLabel("Reference level", exact())).hasValue(words("^.30 dBm$"));
    assertThat(page.getByLabel("Channels", exact())).hasValue("40 of them");
    start();
    assertThat(reading("hoppers")).containsText("2");
    assertThat(reading("dwellB")).containsText(words("(7\\.6|7\\.59)\\d* ms"));
    assertThat(reading("intervalB")).containsText(words("(8\\.0|7\\.99)\\d* ms"));
    assertThat(page.getByTestId("table-channels")).containsText("2.48 GHz");
    keepsTheRules();
    enter("apart -1");
    assertThat(page.getByText(words("Channels are 100 Hz to 1 GHz apart")).first()).isVisible();
    enter("keep who hops");
    assertThat(page.getByText("who hops").first()).isVisible();
    enter("spectrogram");
    assertThat(page.getByLabel("Rows", exact())).hasValue("400 rows");
    enter("centre 2.441G");
    enter("span 80M");
    enter("length 20m");
    enter("reference -30");
    assertThat(page.getByLabel("Reference level", exact())).hasValue(words("^.30 dBm$"));
    start();
    // Its data spread it over some points.
    assertThat(reading("highestLevel")).containsText(words("\u2212(3[6-9]|4\\d)\\.\\d+ dBm"));
    control(FAST_INPUT, "part", "RF output");
  }

  /** The pilot boat and who is on the air beside it, on a scale of channels. */
  @Test
  public void stationsBesideThePilotBoat() {
    control(FAST_INPUT, "part", "aerial on the quay");
    job("Pilot boat, listening");
    assertThat(page.getByLabel("Threshold over noise", exact())).isVisible();
    enter("channels");
    assertThat(page.getByLabel("Channels apart", exact())).isVisible();
    enter("centre 164.2M");
    enter("span 300k");
    enter("apart 25k");
    enter("power in 16k");
    enter("reference -50");
    start();
    assertThat(reading("ownLevel")).containsText(words("\u221262\\.\\d+ dBm"));
    assertThat(reading("upper2")).containsText(words("\u22122[56]\\.\\d+ dBc"));
    assertThat(page.getByTestId("table-channels")).containsText("164.25 MHz");
    assertThat(page.getByText(words("2 of 10 others are used: [-\u2212]1, 2")).first()).isVisible();
    enter("channel 1 164M");
    assertThat(page.getByText(words("Channel 9 \\(164.2 MHz\\)")).first()).isVisible();
    enter("neighbours -30");
    assertThat(page.getByLabel("Neighbours at most", exact())).hasValue(words("^.30(\\.0)? dB$"));
    assertThat(page.getByTestId("verdict")).containsText("PASS");
    keepsTheRules();
    enter("power in 1M");
    assertThat(page.getByText(words("The power of a channel is taken in")).first()).isVisible();
    control(FAST_INPUT, "part", "RF output");
  }

  /**
   * The pilot boat's channel: its tone opens the squelch, and what reaches the browser's sound is
   * what was sent.
   */
  @Test(dependsOnMethods = "hopsOfTheCraneRemote")
  public void thePilotBoatIsHeard() {
    control(FAST_INPUT, "part", "aerial on the quay");
    job("Pilot boat, listening");
    assertThat(page.getByLabel("Threshold over noise", exact())).isVisible();
    enter("listen");
    assertThat(page.getByLabel("Channel", exact())).isVisible();
    enter("centre 164.2M");
    enter("channel 25k");
    enter("length 2.5");
    enter("reference -50");
    enter("squelch tone 124");
    assertThat(page.getByText(words("124(\\.0)? Hz is no tone of the list")).first()).isVisible();
    enter("squelch tone 123");
    assertThat(page.getByLabel("Squelch opens at", exact())).hasValue("123 Hz");
    start();
    assertThat(reading("toneSquelch")).containsText("123.00");
    assertThat(reading("toneAmount")).containsText(words("2.(499|500)\\.\\d+ Hz"));
    assertThat(reading("sinad")).containsText(words("33\\.\\d+ dB"));
    assertThat(page.getByTestId("table-passages")).containsText(words("\u2212(61|62)\\.\\d"));
    assertThat(reading("seen")).containsText("100 %");
    theSoundThatIsReceivedGoesOn();
    // The record is as long as is wanted: what is heard of it as well.
    assertThat(page.getByText(words("FM, open for .* of 2.5 s")).first()).isVisible();
    button("Hold").click();
    page.evaluate(
        "() => { window.heard = []; const start = AudioBufferSourceNode.prototype.start;"
            + " AudioBufferSourceNode.prototype.start = function (...when) {"
            + " window.heard = [this.buffer.sampleRate, ...this.buffer.getChannelData(0)];"
            + " start.apply(this, when); }; }");
    button("Hear it").click();
    page.waitForFunction("() => window.heard.length > 0");
    // It ends by itself as well.
    press("Silence");
    assertThat(button("Hear it")).isVisible();
    // Half of it is louder than this, seconds, and how often a second of it crosses 0 upwards where
    // it is heard.
    Object[] sound =
        ((java.util.List<?>)
                page.evaluate(
                    "() => { const [rate, ...y] = window.heard; let up = 0, on = 0;"
                        + " for (let i = 1; i < y.length; i++) {"
                        + " if (y[i - 1] < 0 && y[i] >= 0) up++;"
                        + " if (Math.abs(y[i]) > 0.01) on++; }"
                        + " const size = y.filter(v => v !== 0).map(Math.abs).sort((a, b) => a - b);"
                        + " return [size[size.length >> 1], y.length / rate,"
                        + " up / (on / rate)]; }"))
            .toArray();
    assertEquals(((Number) sound[0]).doubleValue(), 0.7 * Math.sqrt(0.5), 0.03);
    assertEquals(((Number) sound[1]).doubleValue(), 2.5, 0.02);
    assertEquals(((Number) sound[2]).doubleValue(), 1000, 60);
    keepsTheRules();
    enter("keep pilot boat");
    assertThat(page.getByText("pilot boat").first()).isVisible();
    control(FAST_INPUT, "part", "RF output");
  }

  /** What reaches the sound device follows without gaps, and is the tone of 1 kHz. */
  private void theSoundThatIsReceivedGoesOn() {
    page.evaluate(
        "() => { window.pieces = []; window.loud = 0; const start = AudioBufferSourceNode.prototype.start;"
            + " window.startAsItIs = start;"
            + " AudioBufferSourceNode.prototype.start = function (when) {"
            + " window.pieces.push({ when, lead: when - this.context.currentTime,"
            + " lasts: this.buffer.duration / this.playbackRate.value,"
            + " y: [...this.buffer.getChannelData(0)] });"
            + " for (const v of this.buffer.getChannelData(0)) window.loud += Math.abs(v) > 0.4;"
            + " start.call(this, when); }; }");
    button("Hear it now").click();
    assertThat(page.getByText(words("^\\d+ ms buffered"))).isVisible();
    page.waitForFunction("() => window.loud > 24000");
    String told = page.getByText(words("^\\d+ ms buffered")).textContent();
    int dropouts = told.contains(",") ? Integer.parseInt(told.split("[, ]+")[3]) : 0;
    button("Silence").click();
    assertThat(button("Hear it now")).isVisible();
    Object[] heard =
        ((java.util.List<?>)
                page.evaluate(
                    "() => { const p = window.pieces; let seams = 0;"
                        + " AudioBufferSourceNode.prototype.start = window.startAsItIs;"
                        + " for (let i = 1; i < p.length; i++)"
                        + " seams += Math.abs(p[i].when - p[i - 1].when - p[i - 1].lasts) > 1e-6;"
                        + " const y = p.flatMap(v => v.y); let up = 0, on = 0;"
                        + " for (let i = 1; i < y.length; i++) {"
                        + " if (y[i - 1] < 0 && y[i] >= 0) up++;"
                        + " if (y[i] !== 0) on++; }"
                        + " return [seams, p[0].lead, y.reduce((m, v) => Math.max(m, Math.abs(v)), 0),"
                        + " 48000 * up / on]; }"))
            .toArray();
    // Where the machine is too slow for what goes on, each seam is said; one may be newer.
    assertTrue(((Number) heard[0]).intValue() <= dropouts + 1, heard[0] + " seams, " + told);
    assertEquals(((Number) heard[1]).doubleValue(), 0.12, 0.03);
    assertEquals(((Number) heard[2]).doubleValue(), 0.7, 0.1);
    assertEquals(((Number) heard[3]).doubleValue(), 1000, 15);
  }

  /** The pilot boat's key: what is below the level is told, what is over it becomes a recording. */
  @Test
  public void aKeyThatIsPressedTriggers() {
    control(FAST_INPUT, "part", "aerial on the quay");
    job("Pilot boat, listening");
    assertThat(page.getByLabel("Threshold over noise", exact())).isVisible();
    enter("trigger");
    assertThat(page.getByLabel("Trigger level", exact())).isVisible();
    enter("centre 164.2M");
    enter("band 25k");
    enter("reference -50");
    enter("level -10");
    enter("after 20");
    assertThat(page.getByText(words("no longer than what is watched")).first()).isVisible();
    enter("after 300m");
    assertThat(page.getByLabel("After", exact())).hasValue("300 ms");
    start();
    assertThat(
            page.getByText(words("Nothing came in .* below the level of [-\u2212]10.0 dBm"))
                .first())
        .isVisible();
    enter("level -80");
    enter("at least 50m");
    enter("keep triggers 1");
    assertThat(reading("triggers")).containsText(words("^\\D*[1-9]"));
    assertThat(reading("seen")).containsText("counted");
    assertThat(page.getByTestId("table-triggers")).containsText(words("\u2212(61|62)\\.\\d"));
    assertThat(page.getByTestId("table-recordings")).containsText("trigger 1 of Fast receiver");
    enter("record 500m");
    button("Keep the newest").click();
    assertThat(page.getByText(words("Recording .* of (\\d+ ms|\\d\\.?\\d* s)")).first())
        .isVisible();
    // Its spectrum is over a mask; laid over what was there, nothing is.
    enter("rbw 500");
    enter("wait for a spectrum");
    assertThat(page.getByTestId("table-triggers")).containsText(words("164\\.(1995|2|2005) MHz"));
    assertThat(reading("highest")).containsText(words("\\+1\\d\\.\\d+ dB"));
    // Not before the whole of what the radio sends was there some times.
    assertThat(reading("triggers")).containsText(words("^\\D*([3-9]|\\d\\d)\\b"));
    button("6 dB over what was there").click();
    assertThat(page.getByText(words("stayed [456]\\.\\d dB below the mask"))).isVisible();
    Locator mask = page.getByLabel("Mask", exact());
    assertThat(mask).hasValue(words("^\\d+ points"));
    mask.fill("164.19M -80, there");
    mask.press("Enter");
    assertThat(page.getByText("\"there\" is no point of a mask.")).isVisible();
    mask.fill("164.19M -80, 164.21M -80");
    mask.press("Enter");
    assertThat(page.getByLabel("Band", exact())).hasValue("20 kHz");
    // Every 2.2 s, which is not every second.
    enter("wait for a rise");
    enter("intervals 1");
    assertThat(page.getByLabel("Intervals within", exact())).hasValue("20 ms");
    assertThat(page.getByText(words("but never 1 s after the one before.*was 2\\.[12]\\d* s")))
        .isVisible();
    enter("intervals any");
    assertThat(reading("triggers")).containsText(words("^\\D*[1-9]"));
    button("Hold").click();
    keepsTheRules();
    // The recording of the trigger shows the same trigger.
    page.locator("input[aria-label=Source]").click();
    page.getByRole(AriaRole.OPTION)
        .filter(new Locator.FilterOptions().setHasText("trigger 1 of Fast receiver"))
        .first()
        .click();
    assertThat(page.getByLabel("Begin at", exact())).isVisible();
    enter("centre 164.2M");
    enter("band 25k");
    enter("level -80");
    enter("before 10m");
    enter("after 10m");
    assertThat(reading("triggers")).containsText(words("^\\D*1"));
    control(FAST_INPUT, "part", "RF output");
  }

  /** Two nets of the logger board, then two others; the likeliest of all is first. */
  @Test
  public void theNetBehindTheBurstsIsFound() {
    control(FAST_INPUT, "part", "probe over the logger board");
    job("Logger board, bursts");
    assertThat(page.getByLabel("Threshold over noise", exact())).isVisible();
    enter("nets");
    assertThat(page.getByLabel("Net at channel 1", exact())).isVisible();
    button("Setups").click();
    page.getByRole(AriaRole.MENUITEM)
        .filter(new Locator.FilterOptions().setHasText("Which net is it?"))
        .click();
    assertThat(page.getByLabel("Net at channel 2", exact())).hasValue("radio sleep");
    control(FIRST_PROBE, "part", "core clock enable");
    control(SECOND_PROBE, "part", "radio sleep");
    start();
    Locator ranking = page.getByTestId("table-ranking");
    assertThat(ranking).containsText("in step, but late");
    assertThat(ranking).containsText("not related");
    hold();
    control(FIRST_PROBE, "part", "flash write strobe");
    control(SECOND_PROBE, "part", "nothing");
    Locator net = page.getByLabel("Net at channel 1", exact());
    net.fill("flash write strobe");
    net.press("Enter");
    enter("channel 2 flash write strobe");
    assertThat(page.getByText("Both channels touch the same net").first()).isVisible();
    enter("channel 2 watchdog");
    button("Resume").click();
    assertThat(ranking.locator("tbody tr").first()).containsText("flash write strobe");
    assertThat(ranking.locator("tbody tr").first()).containsText("coincident");
    assertThat(ranking).containsText("without edges");
    assertThat(reading("lag1")).containsText(words("(2[89]|3[01])\\d\\.?\\d* ns"));
    assertThat(reading("score1")).containsText("counted");
    assertThat(page.getByText(words("watchdog stands still at")).first()).isVisible();
    keepsTheRules();
    hold();
    enter("keep which net");
    assertThat(page.getByText("Kept as \"which net\".")).isVisible();
    enter("new ranking");
    button("Resume").click();
    assertThat(ranking.locator("tbody tr")).hasCount(2);
    hold();
    control(FAST_INPUT, "part", "RF output");
  }

  /** Two places of the logger board, and one of them again with a shield. */
  @Test
  public void placesOfABoardAreMapped() {
    control(FAST_INPUT, "part", "probe over the logger board");
    control(PROBE_PLACE, "part", "flash");
    job("Logger board, bursts");
    assertThat(page.getByLabel("Threshold over noise", exact())).isVisible();
    enter("places");
    assertThat(page.getByLabel("State of the board", exact())).isVisible();
    enter("centre 212M");
    enter("band 2M");
    enter("length 50m");
    enter("reference -40");
    enter("board before");
    enter("place flash, 20");
    assertThat(page.getByText(words("Type a name, or a name and where it is")).first()).isVisible();
    enter("place flash, 20, 15");
    assertThat(page.getByLabel("Across", exact())).hasValue("20 mm");
    start();
    assertThat(reading("placeLevel")).containsText(words("\u2212(52|53)\\.\\d"));
    hold();
    control(PROBE_PLACE, "part", "regulator");
    enter("place regulator, 60, 35");
    button("Resume").click();
    assertThat(reading("placeLevel")).containsText(words("\u2212(46|47)\\.\\d"));
    Locator table = page.getByTestId("table-places");
    assertThat(table.locator("tbody tr").first()).containsText("regulator");
    assertThat(
            page.locator("svg title")
                .filter(
                    new Locator.FilterOptions().setHasText(words("flash \u2212(52|53)\\.\\d dBm"))))
        .hasCount(1);
    assertThat(
            page.getByText(words("the strongest of 2 places, (5|6)\\.\\d dB over flash")).first())
        .isVisible();
    hold();
    // A click on the photograph says where the probe is: at a place that is there, or at a new one.
    page.locator("svg[data-photo] circle").nth(1).click();
    assertThat(page.getByLabel("Place", exact())).hasValue("flash");
    page.locator("svg[data-photo] image")
        .click(new Locator.ClickOptions().setPosition(90, 12).setForce(true));
    assertThat(page.getByLabel("Place", exact())).hasValue("place 3");
    enter("place regulator, 60, 35");
    assertThat(page.getByLabel("Across", exact())).hasValue("60 mm");
    enter("board with shield");
    control(PROBE_PLACE, "part", "processor");
    button("Resume").click();
    assertThat(reading("change")).containsText(words("\u2212(9|10)\\.\\d+ dB"));
    assertThat(table).containsText("with shield less before");
    keepsTheRules();
    hold();
    enter("keep board at 212 MHz");
    assertThat(page.getByText("board at 212 MHz").first()).isVisible();
    enter("new map");
    button("Resume").click();
    assertThat(table.locator("tbody tr")).hasCount(1);
    hold();
    Locator wide = page.getByLabel("Width of the photograph", exact());
    wide.fill("0 mm");
    wide.press("Enter");
    assertThat(page.getByRole(AriaRole.ALERT).first())
        .containsText("widthMetres must be more than 0");
    wide.fill("95 mm");
    wide.press("Enter");
    assertThat(wide).hasValue("95 mm");
    assertThat(page.getByRole(AriaRole.ALERT)).hasCount(0);
    wide.fill("90");
    wide.press("Enter");
    assertThat(wide).hasValue("90 mm");
    keepsTheRules();
    // What was kept lies on the photograph, too, and a click on it moves nothing.
    button("Runs").click();
    page.getByText("board at 212 MHz").first().click();
    Locator kept = page.locator("svg[data-photo]").first();
    assertThat(kept.locator("circle")).hasCount(2);
    assertThat(kept.locator("image")).hasAttribute("width", "90");
    assertThat(page.locator("svg[data-points]")).hasCount(0);
    keepsTheRules();
    control(PROBE_PLACE, "part", "regulator");
    control(FAST_INPUT, "part", "RF output");
  }
}
