package rovnik.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static java.nio.charset.StandardCharsets.UTF_8;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.FilePayload;
import org.testng.annotations.Test;

/** A waveform is described, sent, measured, and the generator trimmed until it is best. */
public class GeneratorScreenTest extends GeneratorScreen {
  @Test
  public void generateSendMeasureTrimKeepCompare() {
    job("Vector generator, its own errors");
    button("Setups").click();
    page.getByText("16-QAM, as the buoy receiver takes it").click();
    button("Waveform ...").click();
    Locator dialog = page.getByRole(com.microsoft.playwright.options.AriaRole.DIALOG);
    assertThat(dialog).containsText("It repeats without a seam");
    assertThat(dialog).containsText("Second receiver IN");
    keepsTheRules();
    sendAndSwitchOn();
    assertThat(signal()).containsText("Its modulator has not been adjusted.");
    start();
    assertThat(reading("iqOffset")).containsText(words("38\\.0\\d dBc"));
    assertThat(page.getByTestId("table-causes")).containsText("Gain imbalance");

    button("Guided").click();
    page.getByText("Trim the generator until it is best").click();
    Locator found = page.getByTestId("finding");
    assertThat(found).containsText("Both are kept as runs");
    assertThat(found).containsText("Leakage I");
    button("Back to the live view").click();
    assertThat(page.getByText("before trimming").first()).isVisible();
    page.keyboard().press("Space");
    assertThat(button("Resume")).isVisible();
    button("Compare the newest two").click();
    assertThat(page.getByText(words("EVM rms")).first()).isVisible();
    assertThat(page.getByText(words("not adjusted, trimmed")).first()).isVisible();
  }

  /** At the Bench: a signal of two parts, its rate changed, and the change said and mended. */
  @Test
  public void aRateThatDoesNotFitIsSaidAndMended() {
    page.navigate(rovnik.url() + "/bench");
    Locator line = page.getByLabel("Vector generator", exact());
    line.getByRole(com.microsoft.playwright.options.AriaRole.BUTTON).first().click();
    button("Waveform ...").click();
    Locator dialog = page.getByRole(com.microsoft.playwright.options.AriaRole.DIALOG);
    dialog.getByLabel(words("Part: carrier with data")).click();
    page.getByRole(com.microsoft.playwright.options.AriaRole.MENUITEM)
        .filter(new Locator.FilterOptions().setHasText("tones in even steps"))
        .click();
    button("Add another signal").click();
    Locator moved = dialog.getByLabel("Moved by", inside()).last();
    moved.fill("200k");
    moved.press("Enter");
    assertThat(dialog).containsText("8 tones every 10 kHz + carrier");
    assertThat(dialog).containsText("It repeats without a seam");
    button("Send it and play").click();
    assertThat(dialog).isHidden();
    Locator rate = line.getByLabel("played at of Vector generator", inside());
    rate.fill("2M");
    rate.press("Enter");
    assertThat(line).containsText(words("Made for .* played at 2 MHz"));
    line.getByText(words("Play it at")).click();
    assertThat(line).not().containsText("Made for");
  }

  /** AM on the desk of the same area, by the keyboard alone once the waveform is there. */
  @Test
  public void amIsMeasuredOnTheSameDesk() {
    job("Vector generator, its own errors");
    assertThat(page.getByLabel("Settings", exact())).isVisible();
    enter("analog");
    assertThat(page.getByLabel(words("Modulation: "))).isVisible();
    enter("modulation am");
    enter("reference 10");
    enter("channel 20k");
    button("Waveform ...").click();
    Locator dialog = page.getByRole(com.microsoft.playwright.options.AriaRole.DIALOG);
    dialog.getByLabel(words("Part: carrier with data")).click();
    page.getByRole(com.microsoft.playwright.options.AriaRole.MENUITEM)
        .filter(new Locator.FilterOptions().setHasText(words("^AM$")))
        .click();
    assertThat(dialog).containsText("AM 50.00 % at 1 kHz");
    sendAndSwitchOn();
    start();
    assertThat(reading("amount")).containsText(words("50\\.\\d+ %"));
    assertThat(reading("sinad")).containsText("dB");
    assertThat(page.getByTestId("table-harmonics")).containsText("2 kHz");
    keepsTheRules();
    enter("keep am");
    assertThat(page.getByText("Kept as \"am\".")).isVisible();
    page.keyboard().press("Space");
    enter("carrier with data");
    assertThat(page.getByLabel(words("Format: "))).isVisible();
  }

  /** The desk of packets, and a waveform whose part is about to be chosen. */
  private Locator partOfPackets(String length) {
    job("Vector generator, seen by the fast receiver");
    assertThat(page.getByLabel("Settings", exact())).isVisible();
    enter("packets");
    assertThat(page.getByLabel(words("Frames: "))).isVisible();
    enter("length " + length);
    enter("reference 0");
    button("Waveform ...").click();
    Locator dialog = page.getByRole(com.microsoft.playwright.options.AriaRole.DIALOG);
    dialog.getByLabel(words("Part: carrier with data")).click();
    return dialog;
  }

  private void playAndMeasure(Locator dialog) {
    button("Send it and play").click();
    assertThat(dialog).isHidden();
    field("at", "458.525M");
    field("level", "-20");
    turn(signal().getByLabel("output of Vector generator", inside()), true);
    start();
  }

  /** OFDM packets: made, played, found; what they say of themselves and how good they are. */
  @Test
  public void packetsAreFoundAndMeasured() {
    Locator dialog = partOfPackets("1m");
    page.getByRole(com.microsoft.playwright.options.AriaRole.MENUITEM)
        .filter(new Locator.FilterOptions().setHasText("OFDM packets"))
        .click();
    assertThat(dialog).containsText("OFDM packets of 1000 bytes, 64-QAM 3/4");
    keepsTheRules();
    playAndMeasure(dialog);
    assertThat(reading("evmDb")).containsText("limit at most");
    assertThat(reading("whole")).containsText(words("[12]"));
    assertThat(page.getByTestId("table-signal")).containsText("64-QAM 3/4, 54 Mbit/s");
    assertThat(page.getByTestId("table-signal")).containsText("1000 bytes");
    keepsTheRules();
    enter("keep packets");
    assertThat(page.getByText("Kept as \"packets\".")).isVisible();
    page.keyboard().press("Space");
    assertThat(button("Resume")).isVisible();
    enter("track phase");
    assertThat(reading("evmDb")).containsText("not as the standard measures it");
    enter("channel 7M");
    assertThat(page.getByText("The channel is 5, 10, 20, 40, 80, 160 or 320 MHz wide.").first())
        .isVisible();
  }

  /** A VHT packet: made, played, told from others by what it says, judged by its own limit. */
  @Test
  public void newerPacketsAreMeasured() {
    Locator dialog = partOfPackets("1m");
    choose("OFDM packets");
    dialog.getByLabel("Kind of the packets: OFDM", inside()).click();
    choose("VHT");
    // A channel has its own MCS: one that another does not have is the next below.
    dialog.getByLabel(words("Channel of the packets: 20 MHz")).click();
    choose("80 MHz");
    dialog.getByLabel(words("MCS of the packets: MCS 7")).click();
    choose("MCS 9, 256-QAM 5/6");
    assertThat(dialog).containsText("VHT MCS 9, 256-QAM 5/6, every");
    dialog.getByLabel(words("Channel of the packets: 80 MHz")).click();
    choose("20 MHz");
    dialog.getByLabel(words("MCS of the packets: MCS 8")).click();
    choose("MCS 4, 16-QAM 3/4");
    assertThat(dialog).containsText("OFDM packets of 1000 bytes, VHT MCS 4, 16-QAM 3/4");
    keepsTheRules();
    playAndMeasure(dialog);
    assertThat(reading("evmDb")).containsText("limit at most \u221219.0 dB");
    assertThat(page.getByTestId("table-signal")).containsText("VHT-SIG-A");
    assertThat(page.getByTestId("table-signal")).containsText("MCS 4, 16-QAM 3/4");
    keepsTheRules();
    // One key for what it is on the air: the mask, as far as this record reaches.
    page.keyboard().press("4");
    assertThat(page.getByTestId("table-mask")).containsText("PASS");
    assertThat(reading("maskMargin")).containsText("Mask to");
    keepsTheRules();
    page.keyboard().press("5");
    // The generator's modulator is not adjusted.
    assertThat(page.getByTestId("table-causes")).containsText("Mirror images");
    keepsTheRules();
  }

  /** An EHT packet: its training is learned, whatever its signs. */
  @Test
  public void packetsThatFillTheirChannelAreMeasured() {
    Locator dialog = partOfPackets("1m");
    choose("OFDM packets");
    dialog.getByLabel("Kind of the packets: OFDM", inside()).click();
    choose("EHT");
    dialog.getByLabel(words("MCS of the packets: MCS 7")).click();
    choose("MCS 5, 64-QAM 2/3");
    dialog.getByLabel(words("Training and guard of the packets: 4x, 3.2 us")).click();
    choose("2x, 0.8 us");
    assertThat(dialog).containsText("EHT MCS 5, 64-QAM 2/3");
    keepsTheRules();
    playAndMeasure(dialog);
    assertThat(reading("evmDb")).containsText("limit at most \u221222.0 dB");
    assertThat(page.getByTestId("table-signal")).containsText("EHT-SIG");
    keepsTheRules();
  }

  /** An HE packet for three users: made in the dialog, each found on its unit and judged. */
  @Test
  public void packetsForSeveralUsersAreMeasured() {
    Locator dialog = partOfPackets("3m");
    choose("OFDM packets");
    dialog.getByLabel("Kind of the packets: OFDM", inside()).click();
    choose("HE");
    dialog.getByLabel(words("Users of the packets: one user")).click();
    choose("several users");
    dialog.getByLabel(words("Unit of user 1: 106 tones")).click();
    choose("52 tones");
    dialog.getByLabel(words("MCS of user 1: MCS 7")).click();
    choose("MCS 4, 16-QAM 3/4");
    dialog.getByText("one more user").click();
    // The third has what the second has, one place on, where there is none.
    assertThat(dialog).containsText("20 MHz have 2 units of 106 tones");
    dialog.getByLabel(words("Unit of user 3: 106 tones")).click();
    choose("26 tones");
    Locator place = dialog.getByLabel("Place of the unit of user 3", inside());
    place.fill("5");
    place.press("Enter");
    Locator bytes = dialog.getByLabel("Bytes", inside());
    bytes.fill("100");
    bytes.press("Enter");
    assertThat(dialog).containsText("HE, 3 users");
    keepsTheRules();
    playAndMeasure(dialog);
    page.keyboard().press("6");
    assertThat(page.getByTestId("table-users")).containsText("station 3");
    assertThat(page.getByTestId("table-users")).containsText("16-QAM");
    assertThat(reading("evmUser1")).containsText("limit at most \u221219.0 dB");
    assertThat(reading("evmUser2")).containsText("limit at most \u221227.0 dB");
    keepsTheRules();
  }

  /** What answers a trigger: read as that asked, its image on tones that nobody was given. */
  @Test
  public void answersToATriggerAreMeasured() {
    Locator dialog = partOfPackets("1m");
    choose("OFDM packets");
    dialog.getByLabel("Kind of the packets: OFDM", inside()).click();
    choose("HE");
    dialog.getByLabel(words("Users of the packets: one user")).click();
    choose("a trigger");
    Locator bytes = dialog.getByLabel("Bytes", inside());
    bytes.fill("100");
    bytes.press("Enter");
    assertThat(dialog).containsText("HE, answer to a trigger, a user");
    keepsTheRules();
    playAndMeasure(dialog);
    assertThat(page.getByText("say what that asked for").first()).isVisible();
    enter("trigger");
    assertThat(page.getByLabel(words("Unit of user 1: 106 tones"))).isVisible();
    page.keyboard().press("7");
    // Its modulator is not adjusted: the image of the lower half stands in the upper one.
    assertThat(page.getByTestId("table-unused")).containsText("96 to 121");
    assertThat(reading("unusedMargin")).containsText("limit at least 0.0 dB");
    keepsTheRules();
  }

  /** The quay link: 320 MHz of 4096-QAM, made by a script outside. */
  @Test
  public void theQuayLinkIsMeasured() {
    job("Quay link, packets");
    assertThat(page.getByLabel("Settings", exact())).isVisible();
    enter("packets");
    button("Setups").click();
    page.getByText("Packets in 320 MHz").click();
    assertThat(page.getByLabel(words("Channel width: 320 MHz"))).isVisible();
    start();
    assertThat(reading("evmDb")).containsText("4096-QAM 5/6");
    assertThat(reading("evmDb")).containsText("limit at most \u221238.0 dB");
    assertThat(page.getByTestId("table-signal")).containsText("learned from the signal");
    keepsTheRules();
    page.keyboard().press("Space");
  }

  /** Frames of a description: made, played, found; and a description of a file. */
  @Test
  public void framesAsDescribedAreMeasured() {
    Locator dialog = partOfPackets("3m");
    choose("OFDM frames as described");
    assertThat(dialog).containsText("OFDM frames, 802.11 clause 17, 20 MHz, every 1.25 ms");
    dialog.getByLabel(words("Frames: 802.11 clause 17, 20 MHz")).click();
    choose("TS 36.211, 20 MHz");
    assertThat(dialog).containsText("OFDM frames, TS 36.211, 20 MHz, every 1.25 ms");
    button("Send it and play").click();
    assertThat(dialog).isHidden();
    field("at", "458.525M");
    field("level", "-20");
    turn(signal().getByLabel("output of Vector generator", inside()), true);
    page.getByLabel(words("Frames: that say what they are")).click();
    choose("TS 36.211, 20 MHz");
    start();
    assertThat(reading("evmDb")).containsText("limit at most");
    assertThat(page.getByTestId("table-signal")).containsText("1200 from \u2212600 to 600");
    keepsTheRules();
    // A file that is no description, then one with a mistake, then one that is not on the air.
    byFile("no.json", "this is no JSON");
    assertThat(page.getByText("no.json is no JSON")).isVisible();
    String own =
        "{\"name\":\"Own\",\"spacingHz\":312500,\"transform\":64,\"symbols\":[{\"name\":\"T\","
            + "\"guard\":16,\"carries\":[{\"what\":\"known\",\"tones\":\"1..20\",\"re\":["
            + "1,1,-1,1,1,-1,-1,1,1,1,-1,1,-1,1,1,-1,1,1,1,%s]}]},{\"name\":\"D\",\"guard\":16,"
            + "\"carries\":[{\"what\":\"data\",\"tones\":\"1..20\",\"constellation\":\"QPSK\"}]}]}";
    byFile("short.json", own.formatted("1,1"));
    assertThat(page.getByText("20 tones are known, but 21 values are given").first()).isVisible();
    byFile("own.json", own.formatted("-1"));
    assertThat(page.getByLabel(words("Frames: Own"))).isVisible();
    enter("frames themselves");
    assertThat(page.getByLabel(words("Frames: that say what they are"))).isVisible();
  }

  private void choose(String item) {
    page.getByRole(com.microsoft.playwright.options.AriaRole.MENUITEM)
        .filter(new Locator.FilterOptions().setHasText(item))
        .click();
  }

  private void byFile(String name, String text) {
    page.getByLabel(words("Frames: ")).click();
    page.waitForFileChooser(() -> choose("by a file"))
        .setFiles(new FilePayload(name, "application/json", text.getBytes(UTF_8)));
  }

  /** A keyed frequency: described, sent, measured; its deviation and the eye of its frequency. */
  @Test
  public void aKeyedFrequencyIsMeasured() {
    job("Vector generator, its own errors");
    assertThat(page.getByLabel("Settings", exact())).isVisible();
    assertThat(page.getByLabel(words("Format: QPSK"))).isVisible();
    enter("format gmsk");
    assertThat(page.getByLabel(words("Format: GMSK"))).isVisible();
    assertThat(page.getByLabel(words("Filter: Gaussian"))).isVisible();
    enter("rate 50k");
    enter("centre 458.525M");
    enter("reference 10");
    button("Waveform ...").click();
    Locator dialog = page.getByRole(com.microsoft.playwright.options.AriaRole.DIALOG);
    assertThat(dialog).containsText("It repeats without a seam");
    sendAndSwitchOn();
    start();
    assertThat(reading("deviation")).containsText(words("12.(499|500)\\.\\d+ Hz"));
    assertThat(reading("gainImbalance")).containsText("which is I is not known");
    // A steady envelope at 0 dBm: the reference level goes to just above it, from too high and too
    // low.
    for (String wrong : new String[] {"40", "-25"}) {
      enter("reference " + wrong);
      assertThat(page.getByLabel("Reference level", exact())).hasValue(words(wrong.substring(1)));
      enter("fit level");
      assertThat(page.getByLabel("Reference level", exact())).hasValue(words("^[123] dBm$"));
    }
    page.locator("input[aria-label='What tile 1 shows']").click();
    page.getByRole(com.microsoft.playwright.options.AriaRole.OPTION)
        .filter(new Locator.FilterOptions().setHasText("Eye of the frequency"))
        .click();
    assertThat(page.locator("canvas[aria-label='Eye of the frequency']")).isVisible();
    keepsTheRules();
    // Another format takes its filter along, and says that what is sent does not fit.
    enter("format msk");
    assertThat(page.getByLabel(words("Format: MSK"))).isVisible();
    enter("format qpsk");
    assertThat(page.getByLabel(words("Filter: root-raised cosine"))).isVisible();
    assertThat(page.getByText(words("does not fit|envelope is steady|no symbols")).first())
        .isVisible();
  }

  /** An equalizer is trained, and held with the weights that are on the screen. */
  @Test
  public void anEqualizerIsTrainedAndHeld() {
    job("Vector generator, its own errors");
    button("Setups").click();
    page.getByText("16-QAM, as the buoy receiver takes it").click();
    assertThat(page.getByLabel(words("Format: 16-QAM"))).isVisible();
    button("Waveform ...").click();
    sendAndSwitchOn();
    enter("equalizer held");
    assertThat(page.getByText("Train the equalizer first")).isVisible();
    page.keyboard().press("Escape");
    start();
    assertThat(reading("evm")).isVisible();
    enter("equalizer trained");
    assertThat(page.getByLabel("Reach of the equalizer")).isVisible();
    page.locator("input[aria-label='What tile 2 shows']").click();
    page.getByRole(com.microsoft.playwright.options.AriaRole.OPTION)
        .filter(new Locator.FilterOptions().setHasText("Equalizer response"))
        .click();
    enter("equalizer held");
    assertThat(page.getByLabel(words("Equalizer: held as it is"))).isVisible();
    assertThat(reading("evm")).isVisible();
    enter("equalizer off");
    assertThat(page.getByLabel(words("Equalizer: off"))).isVisible();
  }

  /** The dock oscillator's supply: refused, mended, switched on, its AM measured. */
  @Test
  public void anOscillatorIsModulatedByItsSupply() {
    job("Dock oscillator, AM by its supply");
    assertThat(page.getByLabel("Settings", exact())).isVisible();
    enter("analog");
    button("Setups").click();
    page.getByText("AM by the supply").click();
    Locator supply = page.getByLabel("Supply", exact());
    assertThat(supply).containsText("Dock oscillator works from 4.5 V to 5.5 V");
    Locator amplitude = supply.getByLabel("swing to each side of Function source", inside());
    supply.getByLabel("mean of Function source", inside()).fill("5");
    page.keyboard().press("Enter");
    amplitude.fill("1");
    amplitude.press("Enter");
    // What was typed is there before the switch is pressed: while it is on its way nothing
    // switches.
    assertThat(supply).containsText("swings 4 to 6 V");
    supply.getByLabel("output of Function source", inside()).press("Space");
    assertThat(supply).containsText("it must not see 6 V");
    button("Leave it").click();
    supply.getByText(words("Use all of it")).click();
    assertThat(supply).containsText("swings 4.565 to 5.435 V");
    turn(supply.getByLabel("output of Function source", inside()), true);
    start();
    assertThat(reading("amount")).containsText(words("11\\.4\\d* %"));
    keepsTheRules();
    control(17, "output", "off");
  }
}
