package rovnik.core.modulation.ofdm;

import static org.testng.Assert.assertEquals;

import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import java.util.Random;
import java.util.zip.CRC32;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/**
 * Bits and samples of packets against the worked example of IEEE 802.11-2020, annex I.1: 100 bytes
 * at 36 Mbit/s. From memory; the check sum of the message says that it is remembered right.
 */
public class LegacyPacketTest {
  static final byte[] MESSAGE = message();

  private static byte[] message() {
    byte[] head = HexFormat.of().parseHex("0402002e006008cd37a60020d6013cf1006008ad3baf0000");
    byte[] text =
        "Joy, bright spark of divinity,\nDaughter of Elysium,\nFire-insired we trea"
            .getBytes(StandardCharsets.US_ASCII);
    byte[] end = HexFormat.of().parseHex("673321b6");
    byte[] all = new byte[100];
    System.arraycopy(head, 0, all, 0, 24);
    System.arraycopy(text, 0, all, 24, 72);
    System.arraycopy(end, 0, all, 96, 4);
    return all;
  }

  private static String bits(byte[] bits, int from, int to) {
    StringBuilder out = new StringBuilder();
    for (int i = from; i < to; i++) {
      out.append(bits[i]);
    }
    return out.toString();
  }

  @Test
  public void theExampleIsRememberedRight() {
    CRC32 sum = new CRC32();
    sum.update(MESSAGE, 0, 96);
    byte[] end = new byte[4];
    for (int i = 0; i < 4; i++) {
      end[i] = (byte) (sum.getValue() >> 8 * i);
    }
    assertEquals(HexFormat.of().formatHex(end), "673321b6");
  }

  /** The sequence of the all-ones state is printed in 17.3.5.5. */
  @Test
  public void theScramblerIsThatOfTheStandard() {
    assertEquals(
        bits(Scrambler.sequence(0x7f, 127), 0, 127),
        "0000111011110010110010010000001000100110001011101011011000001100110101001110011110110100"
            + "001010101111101001010001101110001111111");
    for (int state = 1; state <= Scrambler.PERIOD; state++) {
      assertEquals(Scrambler.stateBefore(Scrambler.sequence(state, 7)), state);
    }
  }

  /** Table I-8 to I-10: SIGNAL of the example, coded and interleaved. */
  @Test
  public void signalOfTheExample() {
    assertEquals(
        bits(LegacyBits.signal(LegacyRate.R36, 100), 0, 48),
        "100101001101000000010100100000110010010010010100");
  }

  /** Samples of table I-6 (long training, behind its guard) and table I-4 (short training). */
  @Test
  public void trainingOfTheExample() {
    float[] iq = LegacyPacket.samples(LegacyRate.R36, MESSAGE, 0b1011101, 1);
    double[] shortPart = {
      0.023, 0.023, -0.132, 0.002, -0.013, -0.079, 0.143, -0.013, 0.092, 0, 0.143, -0.013, -0.013,
      -0.079, -0.132, 0.002, 0.046, 0.046
    };
    for (int i = 0; i < shortPart.length; i++) {
      assertEquals(iq[2 + i], shortPart[i], 6e-4, "short training " + i);
    }
    double[] longPart = {
      0.156, 0, -0.005, -0.120, 0.040, -0.111, 0.097, 0.083, 0.021, 0.028, 0.060, -0.088, -0.115,
      -0.055, -0.038, -0.106, 0.098, -0.026, 0.053, 0.004, 0.001, -0.115
    };
    for (int i = 0; i < longPart.length; i++) {
      assertEquals(iq[2 * (1 + 160 + 32) + i], longPart[i], 6e-4, "long training " + i);
    }
    assertEquals(iq.length / 2, 320 + 80 + 6 * 80 + 2, "six symbols with data");
  }

  @DataProvider
  public static Object[][] rates() {
    Object[][] out = new Object[LegacyRate.values().length][];
    for (LegacyRate r : LegacyRate.values()) {
      out[r.ordinal()] = new Object[] {r};
    }
    return out;
  }

  /** Codes and interleavers there and back, with some bits that were not sure and some wrong. */
  @Test(dataProvider = "rates")
  public void bitsComeBack(LegacyRate rate) {
    Random random = new Random(rate.megabits());
    byte[] bytes = new byte[333];
    random.nextBytes(bytes);
    byte[] coded = LegacyBits.data(rate, bytes, 93);
    float[] sure = new float[coded.length];
    for (int i = 0; i < sure.length; i++) {
      sure[i] = coded[i] == 1 ? 1 : -1;
      if (i % 61 == 7) {
        sure[i] *= -0.2f;
      }
    }
    LegacyBits.Payload back = LegacyBits.payload(rate, sure, bytes.length);
    assertEquals(back.bytes(), bytes);
    assertEquals(back.scramblerState(), 93);
    assertEquals(back.service(), new byte[LegacyBits.SERVICE_BITS]);
    assertEquals(rate.codedBits() * rate.symbolsOf(bytes.length), coded.length);
  }

  /** Table 17-4: data bits a symbol. */
  @Test
  public void dataBitsOfASymbol() {
    int[] bits = {24, 36, 48, 72, 96, 144, 192, 216};
    for (LegacyRate r : LegacyRate.values()) {
      assertEquals(r.dataBits(), bits[r.ordinal()], r.label());
      assertEquals(r.dataBits() / 4e-6, 1e6 * r.megabits(), 1e-3);
    }
  }
}
