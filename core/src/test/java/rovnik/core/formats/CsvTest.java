package rovnik.core.formats;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.path.Gain;
import rovnik.core.spectrum.Trace;
import rovnik.core.spectrum.TraceSeries;

public class CsvTest {
  @DataProvider
  public Object[][] tables() {
    return new Object[][] {
      {"400M, -1.1\n500M, -1.3\n", 400e6, -1.1},
      {"# feeder\nfrequency (MHz);gain (dB)\n400;-1.1\n500;-1.3\n", 400e6, -1.1},
      {"frequency (GHz)\tgain\n0.4\t-1.1 dB\n0.5\t-1.3dB\n", 400e6, -1.1},
      {"\n  4e8 , -1.1\n\n5e8,-1.3", 400e6, -1.1},
      {"khz,db\n400000,-1.1\n500000,-1.3", 400e6, -1.1},
      {"\uFEFF400M,-1.1\n500M,-1.3\n", 400e6, -1.1},
      {"400M;-1.1;12\n500M;-1.3;14\n", 400e6, -1.1},
    };
  }

  @Test(dataProvider = "tables")
  public void gainTablesInTheirManyForms(String text, double hertz, double db) {
    Gain.Table t = GainTableCsv.parse(text);
    assertEquals(t.frequencyHz().length, 2);
    assertEquals(t.frequencyHz()[0], hertz, 1e-3);
    assertEquals(t.dbAt(hertz), db);
    assertEquals(t.dbAt(450e6), -1.2, 1e-9); // straight in dB between rows
    assertEquals(t.dbAt(1e9), -1.3); // held beyond the ends
    assertTrue(t.covers(450e6) && !t.covers(1e9));
  }

  @DataProvider
  public Object[][] broken() {
    return new Object[][] {
      {"", "no rows"},
      {"# only a comment\n", "no rows"},
      {"400M\n", "line 1: needs a frequency and a gain"},
      {"400M,-1\n300M,-1\n", "line 2: the frequencies must rise"},
      {"400M,-1\n400M,-1\n", "line 2: the frequencies must rise"},
      {"400M,-1\n500M,lots\n", "line 2: \"lots\" is not a gain"},
      {"400M,-1\nfive,2\n", "line 2"},
      {"-5,2\n", "line 1: the frequency is negative"},
      {"400M,NaN\n500M,NaN\n", "line 2"},
      {"458,5;-0,31\n500,0;-1,2\n", "line 1: \"458,5\" is not a frequency"},
      {"458,5,-0,31\n500,0,-1,2\n", "line 1: has 4 columns"},
      {"458.5mhz,-1\n", "write MHz, or mHz"},
    };
  }

  @Test(dataProvider = "broken")
  public void brokenGainTablesNameTheirLine(String text, String part) {
    String message = expectThrows(Refusal.class, () -> GainTableCsv.parse(text)).getMessage();
    assertTrue(message.contains(part), message);
  }

  /** What is written comes back to the last digit. */
  @Test
  public void gainTablesRoundTrip() {
    Random random = new Random(1);
    double[] f = new double[500];
    double[] g = new double[500];
    for (int i = 0; i < f.length; i++) {
      f[i] = i * 1.1e6 + random.nextDouble();
      g[i] = random.nextGaussian();
    }
    Gain.Table again = GainTableCsv.parse(GainTableCsv.write(new Gain.Table(f, g)));
    assertEquals(again.frequencyHz(), f);
    assertEquals(again.gainDb(), g);
  }

  @Test
  public void tracesSayWhatTheyAre() {
    Trace t =
        new Trace(
            458e6, 100, new float[] {-50, -60.5f}, "dBm", "TX\nOUT", 144, 150, 7, "Hann", "RMS");
    String[] lines = SeriesCsv.write(TraceSeries.of("trace", "", t)).split("\\R");
    assertEquals(lines[1], "# plane: TX OUT");
    assertTrue(lines[2].contains("RBW: 144.000 Hz") && lines[2].contains("averages: 7"), lines[2]);
    assertEquals(lines[3], "frequency (Hz),level (dBm)");
    assertEquals(lines[5], "458000100.0000,-60.5000");
    assertEquals(lines.length, 6);
  }
}
