package rovnik.core.units;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;

public class UnitsTest {
  @DataProvider
  public Object[][] frequencies() {
    return new Object[][] {
      {"458.525M", 458.525e6},
      {"12.5 kHz", 12.5e3},
      {"1e6", 1e6},
      {"-3k", -3e3},
      {".5GHz", 0.5e9},
      {" 25m ", 0.025},
      {"100", 100.0},
      {"25 mHz", 0.025},
      {"3 \u00B5Hz", 3e-6},
      {"3 \u03BCHz", 3e-6},
      {"458.525MHZ", 458.525e6},
    };
  }

  @Test(dataProvider = "frequencies")
  public void readsFrequencies(String text, double hertz) {
    assertEquals(Frequency.parse(text).hertz(), hertz, Math.abs(hertz) * 1e-12);
  }

  @DataProvider
  public Object[][] nonsense() {
    return new Object[][] {{""}, {"abc"}, {"1,5M"}, {"5 MHzz"}, {"1e400"}, {"NaN"}, {"458.5mhz"}};
  }

  @Test(dataProvider = "nonsense")
  public void refusesNonsense(String text) {
    assertThrows(Refusal.class, () -> Frequency.parse(text));
  }

  @Test
  public void writesWithPrefix() {
    assertEquals(Frequency.ofHertz(458.525e6).toString(), "458.525 MHz");
    assertEquals(Frequency.ofHertz(200e3).toString(), "200 kHz");
    assertEquals(Frequency.ofHertz(1e9).toString(), "1 GHz");
    assertEquals(Frequency.ofHertz(0).toString(), "0 Hz");
    assertEquals(Frequency.ofHertz(-5e299).toString(), "-5.00e+299 Hz");
    assertEquals(Frequency.ofHertz(458525871.2).toString(), "458.5258712 MHz");
  }

  /** k = 1.380649e-23 J/K (SI 2019): -173.975 dBm/Hz at 290 K. */
  @Test
  public void thermalNoise() {
    assertEquals(Decibels.thermalNoiseDbmPerHz(290), -173.975, 0.0005);
  }

  @Test
  public void levelsConvert() {
    assertEquals(Decibels.dbmFromWatts(10), 40, 1e-12);
    assertEquals(Decibels.wattsFromDbm(27), 0.501187, 1e-6);
    assertEquals(Decibels.fromPowerRatio(0), -300, 1e-9);
  }
}
