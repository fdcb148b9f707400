package rovnik.core.modulation.ofdm;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Outcome;
import rovnik.core.result.ResultTable;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** Packets that answer a trigger, and what is on the tones that it gave to nobody. */
public class TriggeredPacketsTest extends PacketBench {
  private static Outcome seen(float[] iq, double fs, int width, Trigger trigger) {
    OfdmSettings s =
        new OfdmSettings(
            0, width * 20e6, 0.1, 0, 1, OfdmSettings.Estimate.TRAINING, true, false, null, trigger);
    return new OfdmMeasurement(s)
        .of(new IqRecord(iq, fs, 5.5e9, 0, false), MeasurementContext.BARE);
  }

  private static Trigger one(int training, int tones, int place, int mcs) {
    return new Trigger(training, List.of(new SentUser(tones, place, 1, mcs, 0)), false);
  }

  private static float[] alone(float[] iq) {
    float[] out = new float[iq.length + 4000];
    System.arraycopy(iq, 0, out, 2000, iq.length);
    return out;
  }

  /** One that was made with NumPy alone: see fixtures/shared_packets.py. */
  @Test
  public void aPacketOfOthersIsReadAndMeasured() throws IOException {
    ByteBuffer b = ByteBuffer.wrap(resource("triggered_packet.f32")).order(ByteOrder.LITTLE_ENDIAN);
    float[] iq = new float[b.remaining() / 4];
    b.asFloatBuffer().get(iq);
    Outcome o = seen(iq, 48e6, 1, one(1, 52, 2, 5));
    assertEquals(value(o, "whole"), 1, o.summary());
    assertTrue(o.summary().contains("12 symbols, 1 checked, it fits"), o.summary());
    within(o, "frequencyError", 33_900);
    StringBuilder all = new StringBuilder();
    for (ResultTable.Row r : o.table("payload").orElseThrow().rows()) {
      all.append(r.cells().get(2).text().replace(" ", ""));
    }
    String hex = new String(resource("triggered_packet.txt"), StandardCharsets.US_ASCII).trim();
    assertEquals(all.substring(8, 8 + hex.length()), hex);
    // Noise is on all tones alike, 40 dB below those in use, with the second path on them.
    for (ResultTable.Row r : o.table("unused").orElseThrow().rows()) {
      assertEquals(r.cells().get(2).value(), -40, 1.8, r.toString());
    }
    // Units 3 and 4 are in use. MCS 5 may have -22 dB: 2 below that for two units, then -34, -35.
    double[] allowed = {-24, -24, -24, -24, -34, -34, -35};
    List<ResultTable.Row> rows = o.table("unused").orElseThrow().rows();
    assertEquals(rows.size(), allowed.length);
    for (int i = 0; i < allowed.length; i++) {
      assertEquals(rows.get(i).cells().get(3).value(), allowed[i], 1e-9, "unit " + i);
    }
  }

  @DataProvider
  public Object[][] units() {
    return new Object[][] {
      {1, 0, 26, 9, 3},
      {1, 1, 26, 5, 9},
      {1, 2, 106, 1, 7},
      {1, 1, 242, 1, 11},
      {2, 0, 52, 7, 4},
      {2, 2, 484, 1, 10},
      {4, 1, 26, 19, 5},
      {4, 0, 106, 8, 0},
      {4, 2, 996, 1, 8}
    };
  }

  /** Without noise nothing but the computation is left, in use and beside. */
  @Test(dataProvider = "units")
  public void theFloorIsLow(int width, int training, int tones, int place, int mcs) {
    Trigger trigger = one(training, tones, place, mcs);
    byte[] frame = framed(new Random(place), 150);
    float[] iq = UserPacket.of(width * 20e6, trigger, 150).samples(frame, 33, 2);
    Outcome o = seen(alone(iq), width * 40e6, width, trigger);
    assertEquals(value(o, "whole"), 1, o.summary());
    // The edges of symbols are in what a short training is transformed from.
    assertTrue(value(o, "evmDb") < (training == 0 ? -64 : -70), o.summary());
    boolean coded = tones <= 242 && mcs < 10;
    assertTrue(o.summary().contains(coded ? "1 checked" : "no bits"), o.summary());
    assertEquals(o.table("unused").isPresent(), tones < 242 * width, o.summary());
    if (o.table("unused").isPresent()) {
      // Symbols go over into one another within the guard, not within what is looked at.
      o.table("unused").orElseThrow().rows().forEach(r -> assertEquals(r.verdict(), Verdict.PASS));
      assertTrue(value(o, "unusedMargin") > 15, o.reading("unusedMargin").toString());
    }
  }

  /** What a second sender puts on a unit that it was not given is measured to a tenth of a dB. */
  @Test
  public void whatIsOnOtherUnitsIsKnown() {
    for (double db : new double[] {-28.7, -29.3, -40}) {
      Trigger asked = one(1, 26, 4, 7);
      byte[] frame = framed(new Random(3), 400);
      float[] own = alone(UserPacket.of(20e6, asked, 400).samples(frame, 33, 2));
      float[] other =
          alone(
              UserPacket.of(20e6, new Trigger(1, List.of(new SentUser(26, 5, 2, 7, 0)), false), 400)
                  .samples(frame, 33, 2));
      double gain = Math.pow(10, db / 20);
      for (int i = 0; i < own.length; i++) {
        own[i] += (float) (gain * other[i]);
      }
      Outcome o = seen(own, FS, 1, asked);
      ResultTable.Row row = o.table("unused").orElseThrow().rows().get(3);
      assertEquals(row.cells().get(0).value(), 5);
      assertEquals(row.cells().get(2).value(), db, 0.1);
      // MCS 7 allows -27 dB: 2 dB below that right beside it.
      assertEquals(row.cells().get(3).value(), -29, 1e-9);
      assertEquals(value(o, "unusedMargin"), -29 - db, 0.1);
      assertEquals(row.verdict().passed(), db < -29, row.toString());
    }
  }

  /** A margin that is claimed holds as often as it is claimed: k = 2. */
  @Test
  public void theTruthLiesWithinWhatIsClaimed() {
    Random random = new Random(6);
    int inside = 0;
    int all = 0;
    double ratio = 0;
    for (int t = 0; t < 40; t++) {
      Trigger trigger = one(2, 52, 1 + random.nextInt(4), 3);
      byte[] frame = framed(random, 200);
      float[] clean = UserPacket.of(20e6, trigger, 200).samples(frame, 9, 2);
      double snr = 28 + 8 * random.nextDouble();
      float[] iq = received(clean, 20e3, snr, random, 52.0 / 64 / 64, 52 * 78.125e3);
      Outcome o = seen(iq, FS, 1, trigger);
      double symbols = Double.parseDouble(o.summary().split(" symbols")[0].replaceAll(".* ", ""));
      for (ResultTable.Row r : o.table("unused").orElseThrow().rows()) {
        double sigma = 4.343 * Math.sqrt(1 / (26 * symbols) + 0.4 / (52 * symbols));
        double off = r.cells().get(2).value() + snr + 10 * Math.log10(1 + Math.pow(10, -snr / 10));
        inside += Math.abs(off) < 2 * sigma ? 1 : 0;
        ratio += off * off / sigma / sigma;
        all++;
      }
    }
    assertTrue(inside >= 0.93 * all, inside + " of " + all);
    assertTrue(ratio / all > 0.6, "needlessly wide: " + ratio / all);
  }

  /** Without the trigger it is said what is missing; what no trigger asks for is refused. */
  @Test
  public void whatIsMissingOrWrongIsSaid() {
    Trigger trigger = one(1, 52, 2, 5);
    float[] iq = alone(UserPacket.of(20e6, trigger, 60).samples(framed(new Random(1), 60), 3, 2));
    Outcome o = seen(iq, FS, 1, null);
    assertTrue(o.summary().contains("say what that asked for"), o.summary());
    // Its power is known all the same, to what the training tells.
    assertEquals(o.reading("carrierPower").orElseThrow().uncertainty(), 0.85, 0.05);
    assertTrue(seen(iq, FS, 1, one(1, 26, 1, 5)).summary().contains("EVM"));
    for (Object[] bad :
        new Object[][] {
          {3, 52, 1, "three trainings"}, {1, 52, 5, "place is 1 to 4"}, {1, 484, 1, "no unit"}
        }) {
      Refusal r =
          expectThrows(
              Refusal.class,
              () -> seen(iq, FS, 1, one((int) bad[0], (int) bad[1], (int) bad[2], 1)));
      assertEquals(r.field(), "trigger");
      assertTrue(r.getMessage().contains((String) bad[3]), r.getMessage());
    }
    expectThrows(Refusal.class, () -> new Trigger(1, List.of(), false));
  }
}
