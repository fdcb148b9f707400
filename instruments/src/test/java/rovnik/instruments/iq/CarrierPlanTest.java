package rovnik.instruments.iq;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.uncertainty.InstrumentAccuracy;

/** How a receiver is set for records of one carrier; no instrument is needed. */
public class CarrierPlanTest {
  private static final IqCapabilities ABLE =
      new IqCapabilities(
          10e3,
          8e9,
          102.4e6,
          16,
          0.8,
          1 << 20,
          -20,
          40,
          2,
          20,
          18,
          1,
          0,
          new InstrumentAccuracy(0.4, 1e-9));

  /** The tuned frequency and its mirror image of the carrier lie outside, the carrier within. */
  @Test
  public void itTunesBesideTheCarrier() {
    double band = 89e3;
    IqSetup s = CarrierPlan.of(458.525e6, band, "bandHz", 0.05, -7, ABLE);
    double offset = 458.525e6 - s.centreHz();
    assertTrue(offset - band / 2 > 0, "dc outside");
    assertTrue(offset + band / 2 <= 0.8 * s.sampleRateHz() / 2 + 1, "carrier within");
    assertEquals(s.samples(), (int) Math.ceil(0.05 * s.sampleRateHz()));
    assertEquals(s.attenuationDb(), 14.0, 1e-9);
  }

  /** Too wide to stand beside: in the middle, at a rate that just holds it. */
  @Test
  public void aWideOneStandsInTheMiddle() {
    IqSetup s = CarrierPlan.of(1e9, 60e6, "bandHz", 1e-4, 0, ABLE);
    assertEquals(s.centreHz(), 1e9);
    assertEquals(s.sampleRateHz(), 102.4e6);
  }

  @Test
  public void whatItCannotIsRefusedByItsField() {
    assertEquals(field(1e9, 90e6, 1e-3), "symbolRateHz");
    assertEquals(field(8e9, 1e6, 1e-3), "centreHz");
    assertEquals(field(1e9, 1e6, 10), "seconds");
  }

  private static String field(double hertz, double band, double seconds) {
    return expectThrows(
            Refusal.class, () -> CarrierPlan.of(hertz, band, "symbolRateHz", seconds, 0, ABLE))
        .field();
  }
}
