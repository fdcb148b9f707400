package rovnik.core.formats;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.nio.ByteBuffer;
import java.util.List;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.spectrum.Trace;
import rovnik.core.spectrum.TraceSeries;

public class SigMfTest {
  /** The byte patterns follow the datatype rules of the SigMF specification 1.x. */
  @DataProvider
  public Object[][] types() {
    return new Object[][] {
      {"cf32_le", "0000003f000080be", 0.5f, -0.25f},
      {"cf32_be", "3f000000be800000", 0.5f, -0.25f},
      {"cf64_le", "000000000000e03f000000000000d0bf", 0.5f, -0.25f},
      {"ci32_be", "40000000e0000000", 0.5f, -0.25f},
      {"ci16_le", "004000e0", 0.5f, -0.25f},
      {"ci16_be", "4000e000", 0.5f, -0.25f},
      {"ci8", "40e0", 0.5f, -0.25f},
      {"cu8", "ff00", 1f, -1f},
      {"ri16_le", "0040", 0.5f, 0f},
      {"ri16_be", "4000", 0.5f, 0f},
      {"rf32_le", "0000003f", 0.5f, 0f},
      {"rf32_be", "3f000000", 0.5f, 0f},
    };
  }

  @Test(dataProvider = "types")
  public void decodesEveryType(String datatype, String hex, float i, float q) {
    SampleFormat f = SampleFormat.parse(datatype);
    byte[] bytes = java.util.HexFormat.of().parseHex(hex);
    assertEquals(f.bytesPerSample(), bytes.length);
    float[] iq = new float[2];
    f.decode(ByteBuffer.wrap(bytes), iq, 1);
    assertEquals(iq[0], i, 1e-7);
    assertEquals(iq[1], q, 1e-7);
    assertEquals(f.datatype(), datatype);
  }

  @Test
  public void refusesUnknownTypes() {
    for (String bad :
        new String[] {null, "", "cf16_le", "cf32", "xf32_le", "ci16_me", "cf32_le_x"}) {
      assertThrows(Refusal.class, () -> SampleFormat.parse(bad));
    }
  }

  private static Map<String, Object> meta(Object datatype, Object rate) {
    return Map.of(
        "global",
        Map.of("core:datatype", datatype, "core:sample_rate", rate, "core:version", "1.0.0"),
        "captures",
        List.of(Map.of("core:sample_start", 0, "core:frequency", 458.525e6)));
  }

  @Test
  public void readsAndWritesMetadata() {
    SigMf m = SigMf.fromTree(meta("ci16_le", 1_000_000));
    assertEquals(m.centreHz(), 458.525e6);
    assertEquals(m.sampleRateHz(), 1e6);
    assertTrue(Double.isNaN(m.fullScaleDbm()));
    assertEquals(m.samplesIn(4000), 1000);
    SigMf calibrated =
        new SigMf(
            SampleFormat.CF32_LE,
            2e6,
            1e9,
            -12.5,
            "d",
            "2026-01-01T00:00:00Z",
            "hw",
            new rovnik.core.uncertainty.InstrumentAccuracy(0.4, 1e-9, 0.1, -52));
    assertEquals(SigMf.fromTree(calibrated.toTree()), calibrated);
    assertEquals(SigMf.fromTree(m.toTree()), m);
  }

  @Test
  public void refusalsNameTheField() {
    refused("core:sample_rate", meta("cf32_le", -1));
    refused("core:sample_rate", meta("cf32_le", 0));
    refused("core:sample_rate", meta("cf32_le", 1e15));
    refused("core:sample_rate", meta("cf32_le", Double.NaN));
    refused("core:sample_rate", meta("cf32_le", "fast"));
    refused("core:datatype", meta("c32", 1e6));
    refused("core:datatype", meta(7, 1e6));
    refused("global", Map.of());
    SigMf m = SigMf.fromTree(meta("cf32_le", 1e6));
    assertEquals(expectThrows(Refusal.class, () -> m.samplesIn(0)).field(), "data");
    Refusal cut = expectThrows(Refusal.class, () -> m.samplesIn(8001));
    assertTrue(cut.getMessage().contains("cut off"), cut.getMessage());
  }

  private static void refused(String field, Map<String, Object> tree) {
    assertEquals(expectThrows(Refusal.class, () -> SigMf.fromTree(tree)).field(), field);
  }

  @Test
  public void seesClipping() {
    float[] iq = new float[2000];
    assertFalse(SampleFormat.clipped(iq, 1000));
    for (int i = 0; i < 40; i++) {
      iq[i * 10] = i % 2 == 0 ? 0.99997f : -1f;
    }
    assertTrue(SampleFormat.clipped(iq, 1000));
  }

  @Test
  public void writesATraceAsCsv() {
    String csv =
        SeriesCsv.write(
            TraceSeries.of(
                "trace",
                "",
                new Trace(
                    1e6, 10, new float[] {-1.5f, -2}, "dBm", "TX OUT", 14, 15, 3, "Hann", "RMS")));
    assertTrue(csv.contains("# plane: TX OUT"));
    assertTrue(csv.contains("frequency (Hz),level (dBm)"));
    assertTrue(csv.endsWith("1000000.0000,-1.5000\n1000010.0000,-2.0000\n"), csv);
  }

  /** Floats and short integers are decoded in one go: every sample of both byte orders. */
  @Test
  public void longBlocksAreDecodedSampleBySample() {
    java.util.Random random = new java.util.Random(12);
    for (java.nio.ByteOrder order :
        new java.nio.ByteOrder[] {
          java.nio.ByteOrder.LITTLE_ENDIAN, java.nio.ByteOrder.BIG_ENDIAN
        }) {
      String end = order == java.nio.ByteOrder.LITTLE_ENDIAN ? "_le" : "_be";
      int samples = 777;
      java.nio.ByteBuffer floats = java.nio.ByteBuffer.allocate(8 * samples + 8).order(order);
      java.nio.ByteBuffer shorts = java.nio.ByteBuffer.allocate(4 * samples + 4).order(order);
      float[] f = new float[2 * samples];
      short[] s = new short[2 * samples];
      floats.putDouble(0); // what was read before
      shorts.putInt(0);
      for (int i = 0; i < 2 * samples; i++) {
        f[i] = (float) random.nextGaussian();
        s[i] = (short) random.nextInt();
        floats.putFloat(f[i]);
        shorts.putShort(s[i]);
      }
      float[] out = new float[2 * samples];
      floats.position(8);
      SampleFormat.parse("cf32" + end).decode(floats, out, samples);
      assertEquals(out, f);
      assertEquals(floats.remaining(), 0);
      shorts.position(4);
      SampleFormat.parse("ci16" + end).decode(shorts, out, samples);
      for (int i = 0; i < out.length; i++) {
        assertEquals(out[i], s[i] / 32768f, 0);
      }
      assertEquals(shorts.remaining(), 0);
    }
  }
}
