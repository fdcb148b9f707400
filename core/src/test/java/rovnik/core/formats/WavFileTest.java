package rovnik.core.formats;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.ByteArrayInputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;

/** WAV files made byte by byte (RIFF WAVE, IBM and Microsoft 1991, from memory). */
public class WavFileTest {
  private static final double[] VALUES = {0, 0.5, -0.5, 0.25, -1, 0.75};

  private static byte[] wav(int bits, int channels, int format, int told) {
    int size = bits / 8;
    int bytes = VALUES.length * size;
    ByteBuffer b = ByteBuffer.allocate(44 + bytes).order(ByteOrder.LITTLE_ENDIAN);
    b.put("RIFF".getBytes()).putInt(36 + bytes).put("WAVEfmt ".getBytes()).putInt(16);
    b.putShort((short) format).putShort((short) channels).putInt(8000);
    b.putInt(8000 * channels * size).putShort((short) (channels * size)).putShort((short) bits);
    b.put("data".getBytes()).putInt(told < 0 ? bytes : told);
    for (double v : VALUES) {
      switch (bits) {
        case 8 -> b.put((byte) Math.round(128 + 128 * v));
        case 16 -> b.putShort((short) Math.round(32768 * v));
        case 24 -> {
          int x = (int) Math.round(8388608 * v);
          b.put((byte) x).put((byte) (x >> 8)).put((byte) (x >> 16));
        }
        default -> {
          if (format == 3) {
            b.putFloat((float) v);
          } else {
            b.putInt((int) Math.round(2147483648.0 * v));
          }
        }
      }
    }
    return b.array();
  }

  @DataProvider
  public Object[][] kinds() {
    return new Object[][] {{8, 1}, {16, 1}, {24, 1}, {32, 1}, {32, 3}};
  }

  @Test(dataProvider = "kinds")
  public void samplesComeBack(int bits, int format) {
    for (int channels = 1; channels <= 2; channels++) {
      WavFile f = WavFile.read(new ByteArrayInputStream(wav(bits, channels, format, -1)));
      assertEquals(f.rateHz(), 8000, 0);
      assertEquals(f.channels(), channels);
      assertEquals(f.iq().length, 2 * VALUES.length / channels);
      for (int i = 0; i < VALUES.length; i++) {
        float v = channels == 2 ? f.iq()[i] : f.iq()[2 * i];
        assertEquals(v, VALUES[i], 1.0 / (1L << Math.min(bits, 23) - 1), bits + " bits, " + i);
      }
    }
  }

  @Test
  public void whatCannotBeRead() {
    expectThrows(Refusal.class, () -> WavFile.read(new ByteArrayInputStream(new byte[0])));
    expectThrows(Refusal.class, () -> WavFile.read(new ByteArrayInputStream("RIFF,".getBytes())));
    Refusal early =
        expectThrows(
            Refusal.class, () -> WavFile.read(new ByteArrayInputStream(wav(16, 1, 1, 400))));
    assertTrue(early.getMessage().contains("ends early"), early.getMessage());
    expectThrows(Refusal.class, () -> WavFile.read(new ByteArrayInputStream(wav(16, 3, 1, -1))));
    byte[] whole = wav(16, 1, 1, -1);
    for (int cut = 0; cut < whole.length; cut++) {
      byte[] part = java.util.Arrays.copyOf(whole, cut);
      expectThrows(Refusal.class, () -> WavFile.read(new ByteArrayInputStream(part)));
    }
  }

  /** What is written comes back; louder than full scale is cut. */
  @Test
  public void whatIsWrittenIsRead() {
    float[] sound = {0, 0.5f, -0.5f, 0.25f, -1, 2};
    WavFile f = WavFile.read(new ByteArrayInputStream(WavWriter.of(sound, 48_000)));
    assertEquals(f.rateHz(), 48_000, 0);
    assertEquals(f.channels(), 1);
    for (int i = 0; i < sound.length; i++) {
      assertEquals(f.iq()[2 * i], Math.min(1, sound[i]), 1e-4);
    }
  }
}
