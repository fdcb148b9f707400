package rovnik.core.modulation.ofdm;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.wave.PacketPart;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/**
 * HE and EHT packets that are made: they say what they are, and are as strong as they should be.
 */
public class UserPacketTest extends PacketBench {
  private static Outcome measured(float[] clean, int width, int times) {
    int before = 400 * width;
    float[] iq = new float[clean.length + 4 * before];
    System.arraycopy(clean, 0, iq, 2 * before, clean.length);
    OfdmSettings s =
        new OfdmSettings(
            0, width * 20e6, 0.1, 0, 1, OfdmSettings.Estimate.TRAINING, true, false, null);
    return new OfdmMeasurement(s)
        .of(new IqRecord(iq, times * width * 20e6, 5.5e9, 0, false), MeasurementContext.BARE);
  }

  @DataProvider
  public Object[][] kinds() {
    return new Object[][] {
      {PacketFormat.HE, 1, 0, 0},
      {PacketFormat.HE, 1, 7, 3},
      {PacketFormat.HE, 1, 11, 1},
      {PacketFormat.HE, 2, 9, 2},
      {PacketFormat.HE, 8, 4, 3},
      {PacketFormat.EHT, 1, 5, 2},
      {PacketFormat.EHT, 4, 12, 1},
      {PacketFormat.EHT, 16, 13, 3}
    };
  }

  /** From bytes to samples and back, with the windows of the standard. */
  @Test(dataProvider = "kinds")
  public void whatIsMadeSaysWhatItIs(PacketFormat format, int width, int mcs, int training) {
    int bytes = 60 * width * (mcs + 3);
    byte[] frame = framed(new Random(mcs), bytes);
    UserPacket made = UserPacket.of(format, width * 20e6, mcs, training, bytes);
    float[] iq = made.samples(frame, 93, 2);
    Outcome o = measured(iq, width, 2);
    assertEquals(value(o, "whole"), 1, o.summary());
    assertTrue(o.summary().contains(format.label() + " MCS " + mcs + ","), o.summary());
    // A window of 100 ns reaches into the guard, no farther: 0.8 us is enough for all of it.
    assertTrue(value(o, "evmDb") < -65, o.summary());
    boolean coded = width == 1 && mcs < 10;
    assertEquals(checkOf(o), coded ? "fits" : "its bits are in LDPC and not decoded");
    // It lasts as long as was said, to its window.
    double seconds = iq.length / 2 / (2.0 * width * 20e6);
    assertEquals(made.seconds(width * 20e6), seconds, 0.2e-6);
    assertEquals(value(o, "carrierPower"), 10 * Math.log10(52.0 / 64 / 64), 0.4);
    assertTrue(value(o, "occupiedBandwidth") < 19.7e6 * width, o.summary());
  }

  /** Any number of samples for each of the channel, as a waveform may want it. */
  @Test
  public void otherRatesAreMadeAlike() {
    byte[] frame = framed(new Random(2), 300);
    for (int times : new int[] {1, 3, 4}) {
      float[] iq = UserPacket.of(PacketFormat.EHT, 20e6, 4, 2, 300).samples(frame, 11, times);
      Outcome o = measured(iq, 1, times);
      assertTrue(value(o, "evmDb") < (times == 1 ? -38 : -65), times + ": " + o.summary());
      assertEquals(checkOf(o), "fits");
    }
  }

  /** All limits of the masks are kept by what is made without a fault. */
  @Test
  public void itsOwnMaskIsKept() {
    for (PacketFormat format : new PacketFormat[] {PacketFormat.HE, PacketFormat.EHT}) {
      byte[] frame = framed(new Random(3), 3000);
      float[] iq = UserPacket.of(format, 20e6, 3, 3, 3000).samples(frame, 5, 4);
      Outcome o = measured(iq, 1, 4);
      assertTrue(value(o, "maskMargin") > 3, o.reading("maskMargin").toString());
    }
  }

  /**
   * A record may end anywhere in a packet: it is measured as far as it goes, or it is said why not.
   */
  @Test
  public void recordsMayEndAnywhere() {
    byte[] frame = framed(new Random(6), 120);
    SentPacket[] all = {
      LegacyPacket.of(LegacyRate.R12, 120),
      new MixedPacket(PacketFormat.HT, 3, false, 120),
      new MixedPacket(PacketFormat.VHT, 2, true, 120),
      UserPacket.of(PacketFormat.HE, 20e6, 1, 3, 120),
      UserPacket.of(PacketFormat.EHT, 20e6, 1, 0, 120)
    };
    for (SentPacket p : all) {
      float[] whole = p.samples(frame, 9, 2);
      int cut = 0;
      for (int n = 700; n < whole.length / 2; n += 37) {
        float[] iq = new float[2 * (n + 100)];
        System.arraycopy(whole, 0, iq, 200, 2 * n);
        try {
          Outcome o =
              new OfdmMeasurement(settings(1))
                  .of(new IqRecord(iq, FS, 5.5e9, 0, false), MeasurementContext.BARE);
          cut += o.summary().contains("cut off") ? 1 : 0;
        } catch (Refusal said) {
          assertTrue(said.getMessage().length() > 20, said.getMessage());
        }
      }
      assertTrue(cut > 3, p.label() + " was cut " + cut + " times");
    }
  }

  @Test
  public void whatCannotBeIsRefused() {
    refused("mcs", () -> UserPacket.of(PacketFormat.HE, 20e6, 12, 0, 100));
    refused("bandHz", () -> UserPacket.of(PacketFormat.HE, 320e6, 1, 0, 100));
    refused("bandHz", () -> UserPacket.of(PacketFormat.EHT, 60e6, 1, 0, 100));
    refused("training", () -> UserPacket.of(PacketFormat.EHT, 20e6, 1, 4, 100));
    refused("bytes", () -> UserPacket.of(PacketFormat.EHT, 20e6, 0, 3, 200_000));
    UserPacket fine = UserPacket.of(PacketFormat.EHT, 40e6, 1, 0, 100);
    refused("bandHz", () -> new PacketPart(fine, 100, 1e-3, 20e6));
  }

  private static void refused(String field, org.testng.Assert.ThrowingRunnable r) {
    assertEquals(expectThrows(Refusal.class, r).field(), field);
  }
}
