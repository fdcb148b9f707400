package rovnik.core.modulation.ofdm;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.io.InputStream;
import java.util.Random;
import java.util.function.IntFunction;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** What tests of packets that say what they are have alike. */
class PacketBench {
  static final double FS = 40e6;

  /** A training of one symbol adds its noise, pilots that turn a symbol their share. */
  static final double OWN_DB = 10 * Math.log10(2 * (1 + 48.0 / 56 / 8));

  static OfdmSettings settings(int packet) {
    return new OfdmSettings(
        0, 20e6, 0.1, 0, packet, OfdmSettings.Estimate.TRAINING, true, false, null);
  }

  static byte[] resource(String name) throws IOException {
    try (InputStream in = LaterPacketsTest.class.getResourceAsStream("/fixtures/" + name)) {
      return in.readAllBytes();
    }
  }

  static Outcome measured(float[] iq, double fs, int packet) {
    return new OfdmMeasurement(settings(packet))
        .of(new IqRecord(iq, fs, 5.5e9, 0, false), MeasurementContext.BARE);
  }

  static double value(Outcome o, String id) {
    return o.reading(id).orElseThrow().value();
  }

  static void within(Outcome o, String id, double truth) {
    Reading r = o.reading(id).orElseThrow();
    // Readings of one seed: three standard deviations.
    assertEquals(r.value(), truth, 1.5 * r.uncertainty(), id);
  }

  static OfdmPacket packet(float[] iq, double fs, int which) {
    ChannelSamples samples = new ChannelSamples(iq, 0, iq.length / 2, fs, 0, 20e6, 0.9);
    double[] re = new double[samples.count()];
    double[] im = new double[samples.count()];
    samples.read(0, 0, re, im);
    PacketFinder finder = new PacketFinder(re, im);
    PacketReader reader = new PacketReader(new Channels(samples, i -> samples), settings(1));
    PacketFinder.Found found = finder.next(0);
    OfdmPacket p = null;
    for (int i = 0; i < which; i++) {
      p = reader.read(found);
      found = finder.next(found.training() + p.end());
    }
    return p;
  }

  static String said(Outcome o, String field) {
    ResultTable t =
        o.tables().stream().filter(x -> x.id().equals("signal")).findFirst().orElseThrow();
    String first = "";
    for (ResultTable.Row r : t.rows()) {
      if (r.cells().get(1).text().equals(field)) {
        return r.cells().get(2).text();
      }
      boolean like = first.isEmpty() && r.cells().get(1).text().startsWith(field);
      first = like ? r.cells().get(2).text() : first;
    }
    return first;
  }

  static byte[] framed(Random random, int bytes) {
    byte[] out = new byte[bytes];
    random.nextBytes(out);
    FrameCheck.seal(out);
    return out;
  }

  /** A packet at 40 MS/s with silence around it, an offset, and noise of its 56 tones. */
  static float[] received(float[] clean, double hz, double snrDb, Random random) {
    return received(clean, hz, snrDb, random, 52.0 / 64 / 64, 56 * 312.5e3);
  }

  static float[] received(
      float[] clean, double hz, double snrDb, Random random, double power, double widthHz) {
    int before = 500;
    float[] iq = new float[clean.length + 4 * before];
    double sigma = Math.sqrt(power * Math.pow(10, -snrDb / 10) * FS / widthHz / 2);
    for (int n = 0; n < iq.length / 2; n++) {
      int i = n - before;
      boolean in = i >= 0 && i < clean.length / 2;
      double c = Math.cos(2 * Math.PI * hz * n / FS);
      double s = Math.sin(2 * Math.PI * hz * n / FS);
      double x = in ? clean[2 * i] * c - clean[2 * i + 1] * s : 0;
      double y = in ? clean[2 * i] * s + clean[2 * i + 1] * c : 0;
      iq[2 * n] = (float) (x + sigma * random.nextGaussian());
      iq[2 * n + 1] = (float) (y + sigma * random.nextGaussian());
    }
    return iq;
  }

  static String checkOf(Outcome o) {
    return o.table("packets").orElseThrow().rows().get(0).cells().get(6).text();
  }

  /** One measurement, and what is true of the readings in question. */
  record Trial(Outcome outcome, double... truths) {}

  /** What is claimed holds as often as it is claimed, k = 2, and is not needlessly wide. */
  static void holds(int tries, String[] ids, IntFunction<Trial> trials) {
    int[] inside = new int[ids.length];
    double[] ratio = new double[ids.length];
    for (int t = 0; t < tries; t++) {
      Trial trial = trials.apply(t);
      assertEquals(
          value(trial.outcome, "whole"), value(trial.outcome, "packets"), trial.outcome.summary());
      for (int i = 0; i < ids.length; i++) {
        Reading r = trial.outcome.reading(ids[i]).orElseThrow();
        double off = Math.abs(r.value() - trial.truths[i]);
        inside[i] += off <= r.uncertainty() ? 1 : 0;
        ratio[i] += off * off / (r.uncertainty() * r.uncertainty() / 4) / tries;
      }
    }
    for (int i = 0; i < ids.length; i++) {
      assertTrue(inside[i] >= 0.9 * tries, ids[i] + " inside " + inside[i] + ", ratio " + ratio[i]);
      assertTrue(ratio[i] > 0.4, ids[i] + " needlessly wide: " + ratio[i]);
    }
  }
}
