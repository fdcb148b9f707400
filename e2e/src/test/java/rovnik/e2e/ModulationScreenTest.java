package rovnik.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.BoundingBox;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** The buoy sends data: measured, explained, kept and compared in the Modulation area. */
public class ModulationScreenTest extends SpectrumScreen {
  private static final String WORD =
      "1011 0011 1000 1111 0100 0010 1101 1001 0011 0101 1110 0010 0110 1010 1100 0111";

  @Override
  protected String home() {
    return "/modulation";
  }

  @BeforeMethod
  public void sendData() {
    control(2, "signal", "data");
    start();
    enter("format qpsk");
    enter("rate 48k");
    assertThat(reading("evm")).containsText("%");
  }

  private Locator tile(int number) {
    return page.getByLabel("Tile " + number, exact());
  }

  private void word(String bits, String every) {
    page.getByLabel(words("Known word: .*")).click();
    page.getByLabel(words("Bits of the known word")).fill(bits);
    page.getByLabel(words("Symbols from one word")).fill(every);
    page.keyboard().press("Enter");
    assertThat(page.getByLabel(words("Bits of the known word"))).isHidden();
  }

  @Test
  public void whatIsWrongWithItIsToldAndTwoRunsAreCompared() {
    word(WORD, "2048");
    enter("symbols 2200");
    assertThat(reading("ber")).containsText("0");
    Locator why = page.getByTestId("table-causes");
    assertThat(why).containsText("Carrier leakage");
    assertThat(why).containsText("Gain imbalance");
    assertThat(reading("gainImbalance")).containsText(words("\\+0\\.2\\d dB"));
    assertThat(reading("frequencyErrorPpm")).containsText(words("\\+1\\.(89|90)"));
    enter("keep drive normal");
    assertThat(page.getByText("Kept as \"drive normal\".")).isVisible();
    control(2, "drive", "high");
    assertThat(why).containsText("Turn with level (AM-PM)");
    enter("keep drive high");
    assertThat(page.getByText("Kept as \"drive high\".")).isVisible();
    control(2, "drive", "normal");
    page.keyboard().press("Space");
    assertThat(button("Resume")).isVisible();
    button("Compare the newest two").click();
    assertThat(page.getByText(words("EVM rms")).first()).isVisible();
    assertThat(page.getByText(words("drive high")).first()).isVisible();
    page.goBack();
    word("", "");
    enter("symbols 2000");
    keepsTheRules();
  }

  @Test
  public void aSymbolIsItsPointAndItsPlace() {
    page.keyboard().press("Space");
    assertThat(button("Resume")).isVisible();
    Locator ring = tile(1).locator("svg[data-testid='chart'] > circle");
    assertThat(ring).hasCount(0);
    BoundingBox box = tile(4).locator("[data-at='37']").boundingBox();
    page.mouse().move(box.x + box.width / 2, box.y + box.height / 2);
    assertThat(ring).hasCount(1);
    assertThat(tile(4).locator("[data-marked='true']")).hasAttribute("data-at", "37");
    // The same by keys: one symbol on, one row down.
    tile(4).getByLabel("Symbols in rows").focus();
    page.keyboard().press("ArrowRight");
    page.keyboard().press("ArrowDown");
    assertThat(tile(4).locator("[data-marked='true']")).hasAttribute("data-at", "54");
  }

  @Test
  public void anotherFormatIsASentence() {
    enter("format 16-qam");
    assertThat(page.getByRole(com.microsoft.playwright.options.AriaRole.ALERT).first())
        .containsText("does not fit");
    assertThat(page.getByText("of an earlier record").first()).isVisible();
    assertThat(button("Keep this run")).isDisabled();
    enter("format qpsk");
    assertThat(button("Keep this run")).isEnabled();
  }

  /** Asked with a wrong description set: the answer is taken over only when one says so. */
  @Test
  public void whatItIsIsToldAndTakenOver() {
    enter("format 16-qam");
    enter("rate 30k");
    enter("what is it");
    Locator found = page.getByTestId("finding");
    assertThat(found).containsText(words("QPSK, 48 ksym/s at 458\\.5258\\d+ MHz"));
    assertThat(found).containsText("sure, no other format fits");
    assertThat(page.getByLabel(words("Format: 16-QAM"))).isVisible();
    button("Take it over").click();
    assertThat(found).isHidden();
    assertThat(page.getByLabel(words("Format: QPSK"))).isVisible();
    assertThat(reading("evm")).containsText("%");
    assertThat(reading("evm")).not().containsText("earlier");
    enter("roll-off 0.35");
    enter("centre 458.525M");
  }
}
