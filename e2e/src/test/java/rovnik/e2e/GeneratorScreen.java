package rovnik.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.AriaRole;
import org.testng.annotations.AfterMethod;

/** The desk of carriers, with the vector generator before it. */
abstract class GeneratorScreen extends SpectrumScreen {
  static final long GENERATOR = 12;

  @Override
  protected String home() {
    return "/modulation";
  }

  @AfterMethod(alwaysRun = true)
  public void quiet() {
    control(GENERATOR, "output", "off");
    for (String trim : new String[] {"gain", "quadrature", "leakage-i", "leakage-q", "delay"}) {
      control(GENERATOR, trim, "0");
    }
  }

  Locator signal() {
    return page.getByLabel("Signal", exact());
  }

  void field(String label, String value) {
    Locator field = signal().getByLabel(label + " of Vector generator", inside());
    field.fill(value);
    field.press("Enter");
  }

  static Locator.GetByLabelOptions inside() {
    return new Locator.GetByLabelOptions().setExact(true);
  }

  /** Sends what the open dialog describes, at 458.525 MHz and 0 dBm. */
  void sendAndSwitchOn() {
    button("Send it and play").click();
    assertThat(page.getByRole(AriaRole.DIALOG)).isHidden();
    field("at", "458.525M");
    field("level", "0");
    turn(signal().getByLabel("output of Vector generator", inside()), true);
  }
}
