package rovnik.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.AriaRole;
import org.testng.annotations.Test;

/** Whose error it is: a carrier is kept by one receiver and taken apart with another. */
public class OwnShareScreenTest extends GeneratorScreen {
  private void describe() {
    assertThat(page.getByLabel(words("^Format: "))).isVisible();
    enter("format 16-qam");
    assertThat(page.getByLabel(words("Format: 16-QAM"))).isVisible();
    enter("rate 250k");
    enter("roll-off 0.25");
    enter("symbols 1000");
    enter("reference 10");
    assertThat(page.getByLabel("Reference level", exact())).hasValue(words("^10 dBm$"));
  }

  @Test
  public void aReceiversShareIsTakenApart() {
    job("Vector generator, seen by the fast receiver");
    describe();
    button("Waveform ...").click();
    assertThat(page.getByRole(AriaRole.DIALOG)).containsText("It repeats without a seam");
    sendAndSwitchOn();
    start();
    assertThat(reading("evm")).containsText(words("2\\.\\d+ %"));
    enter("keep fast one");
    assertThat(page.getByText("fast one").first()).isVisible();

    job("Vector generator, its own errors");
    describe();
    start();
    assertThat(reading("evm")).containsText(words("2\\.\\d+ %"));
    button("Guided").click();
    page.getByText("The receiver's own share ...").click();
    Locator dialog = page.getByRole(AriaRole.DIALOG);
    dialog.getByLabel("Looks").fill("4");
    dialog.getByLabel("Seen by another receiver").first().click();
    page.getByRole(AriaRole.OPTION)
        .filter(new Locator.FilterOptions().setHasText("fast one"))
        .click();
    keepsTheRules();
    dialog.getByRole(AriaRole.BUTTON, named("Start")).click();
    Locator found = page.getByTestId("finding");
    assertThat(found).containsText("Fast receiver (fast one) sees");
    assertThat(found).containsText("Distortion of the source");
    assertThat(found).containsText("EVM by this receiver");
    // The source is on again.
    button("Back to the live view").click();
    assertThat(reading("evm")).containsText(words("2\\.\\d+ %"));
  }

  private static Locator.GetByRoleOptions named(String name) {
    return new Locator.GetByRoleOptions().setName(name);
  }

  /** A second waveform goes to the third output, and says that its rate is another. */
  @Test
  public void theThirdOutputPlaysBeside() {
    job("Vector generator, its own errors");
    describe();
    button("Waveform ...").click();
    sendAndSwitchOn();
    enter("rate 100k");
    assertThat(page.getByLabel("Symbol rate", exact())).hasValue(words("100 ksym/s"));
    button("Waveform ...").click();
    Locator dialog = page.getByRole(AriaRole.DIALOG);
    dialog.getByLabel(words("Played on")).click();
    page.getByRole(AriaRole.MENUITEM, pageNamed("the third output, in step")).click();
    assertThat(dialog.getByText("Levels on the way")).isHidden();
    button("Send it and play").click();
    assertThat(dialog).isHidden();
    assertThat(signal()).containsText("it plays at the rate of the carrier");
    button("Let it play nothing").click();
    assertThat(signal().getByText("it plays at the rate of the carrier")).isHidden();
  }

  private static com.microsoft.playwright.Page.GetByRoleOptions pageNamed(String name) {
    return new com.microsoft.playwright.Page.GetByRoleOptions().setName(name);
  }
}
