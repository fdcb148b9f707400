package rovnik.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.Test;

/** A generator drives a receiver under test: mended, looked at, searched, kept. */
public class ReceiverScreenTest extends SpectrumScreen {
  private static final long GENERATOR = 12;
  private static final long BUOY = 15;
  private static final long VOICE = 16;
  private static final double LONG = 60_000;

  @Override
  protected String home() {
    return "/receiver";
  }

  @AfterMethod(alwaysRun = true)
  public void quiet() {
    control(GENERATOR, "output", "off");
    control(BUOY, "sequence", "PN23");
    control(VOICE, "squelch", "off");
  }

  private Locator signal() {
    return page.getByLabel("Signal", exact());
  }

  private void send(String what) {
    signal().getByText("Waveform ...").click();
    Locator dialog = page.getByRole(AriaRole.DIALOG);
    assertThat(dialog).containsText(what);
    assertThat(dialog).containsText("It repeats without a seam");
    button("Send it and play").click();
    assertThat(dialog).isHidden();
  }

  private void on() {
    turn(
        signal()
            .getByLabel(
                "output of Vector generator", new Locator.GetByLabelOptions().setExact(true)),
        true);
  }

  @Test
  public void sensitivityOfAReceiverThatCountsBits() {
    job("Buoy receiver, sensitivity");
    send("16-QAM");
    on();
    start();
    // On the wrong frequency, and comparing with another sequence: both are said.
    assertThat(page.getByText("It is not in step with the test sequence.").first()).isVisible();
    assertThat(signal()).containsText("Buoy receiver listens at 458.525 MHz.");
    button("Send it there").click();
    assertThat(signal()).not().containsText("listens at");
    signal().getByText("Adjust it here").click();
    page.getByLabel("Hook up", exact()).getByText("PN15").click();
    enter("noise figure 4.2");
    enter("level -99");
    assertThat(reading("ber")).containsText("0.00");
    assertThat(reading("loss")).containsText("dB");
    keepsTheRules();
    enter("sensitivity");
    assertThat(page.getByRole(AriaRole.DIALOG)).containsText("Chance leaves at most");
    keepsTheRules();
    page.keyboard().press("Enter");
    Locator found = page.getByTestId("finding");
    assertThat(found)
        .containsText(
            words("[-\u2212]98\\.\\d+ dBm for a bit error ratio of 1e-3"),
            new LocatorAssertions.ContainsTextOptions().setTimeout(LONG));
    assertThat(found).containsText("fitted to all counts");
    assertThat(found).containsText("Loss against theory");
    button("Keep as a run").click();
    assertThat(page.getByText(words("Kept as ")).first()).isVisible();
    button("Back to the live view").click();
    assertThat(found).isHidden();
  }

  @Test
  public void levelRunOfAReceiverThatSpeaks() {
    job("Voice radio, receiving");
    send("FM 1.5 kHz at 1 kHz");
    on();
    button("Send it there").click();
    enter("level -100");
    start();
    assertThat(reading("sinad")).containsText(words("30\\.\\d+ dB"));
    enter("level run");
    Locator dialog = page.getByRole(AriaRole.DIALOG);
    dialog.getByLabel("From (dBm)").fill("-116");
    dialog.getByLabel("Down to (dBm)").fill("-125");
    dialog.getByLabel("Step (dB)").fill("3");
    page.keyboard().press("Enter");
    Locator found = page.getByTestId("finding");
    assertThat(found)
        .containsText(
            "Level against quality", new LocatorAssertions.ContainsTextOptions().setTimeout(LONG));
    assertThat(page.getByTestId("table-levels")).containsText("closed");
    keepsTheRules();
    // Stopped on the way, what there is stays.
    button("Back to the live view").click();
    enter("squelch");
    assertThat(dialog).containsText("Surely closed at");
    page.keyboard().press("Enter");
    assertThat(page.getByTestId("progress")).containsText("passage");
    button("Stop, keep what there is").click();
    assertThat(page.getByTestId("progress")).isHidden();
  }
}
