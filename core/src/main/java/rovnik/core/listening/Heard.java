package rovnik.core.listening;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import rovnik.core.modulation.analog.ToneSquelch;

/** What the squelch let pass of a channel, and what its slots say of it. */
final class Heard {
  /** The sound begins and ends softly. */
  static final double RAMP_SECONDS = 5e-3;

  /** Where noise is less by this, there is a carrier. */
  private static final double CARRIER_DB = 6;

  final ListenSettings settings;
  final Demodulator d;

  /** Level over dB of full scale. */
  final double addDb;

  final List<Gate.Passage> passages;

  /** The sound, with silence where the squelch is closed. */
  final float[] sound;

  private final double noiseBend;
  private final Optional<ToneSquelch> squelchTone;

  Heard(ListenSettings settings, Demodulator demodulator, double addDb) {
    this.settings = settings;
    this.d = demodulator;
    this.addDb = addDb;
    this.noiseBend = settings.mode() == Mode.FM ? d.bendOfNoise(settings.bandHz()) : Double.NaN;
    this.passages = Gate.passages(d, settings.squelch(), addDb, noiseBend);
    this.sound = sound();
    this.squelchTone = lookForSquelchTone();
  }

  int sample(double slot) {
    return (int) Math.min(d.sound.size(), Math.round(slot * d.slotSeconds() * d.soundRateHz()));
  }

  static double mean(Gate.Passage passage, Growing of) {
    Gate.Passage p = passage.inner();
    double sum = 0;
    for (int k = p.from(); k < p.to(); k++) {
      sum += of.at(k) / p.slots();
    }
    return sum;
  }

  /** What it is measured against: AM is a share of its carrier. */
  double full(Gate.Passage p) {
    return settings.mode() == Mode.AM ? Math.max(mean(p, d.means), 1e-12) : 1;
  }

  /** The sound with silence where the squelch is closed, without what stays the same. */
  private float[] sound() {
    float[] out = new float[d.sound.size()];
    int ramp = (int) Math.max(1, RAMP_SECONDS * d.soundRateHz());
    for (Gate.Passage p : passages) {
      int from = sample(p.from());
      int to = p.to() == d.powers.size() ? out.length : sample(p.to());
      double mean = 0;
      for (int i = from; i < to; i++) {
        mean += d.sound.at(i) / (double) (to - from);
      }
      double full = full(p);
      for (int i = from; i < to; i++) {
        double edge = Math.min(1, Math.min(i - from + 0.5, to - i - 0.5) / ramp);
        double soft = (1 - Math.cos(Math.PI * edge)) / 2;
        out[i] = (float) (soft * (d.sound.at(i) - mean) / full);
      }
    }
    return out;
  }

  /** The longest that is heard. */
  Optional<Gate.Passage> longest() {
    return longest(passages);
  }

  private static Optional<Gate.Passage> longest(List<Gate.Passage> passages) {
    return passages.stream().max(Comparator.comparingInt(Gate.Passage::slots));
  }

  double seconds() {
    return d.powers.size() * d.slotSeconds();
  }

  int open() {
    return passages.stream().mapToInt(Gate.Passage::slots).sum();
  }

  /** From where it was expected. */
  double carrierHz() {
    double[] all = slots(settings.mode() == Mode.FM ? d.means : d.turns);
    return settings.mode().oneSideBand() || all.length == 0
        ? 0
        : Arrays.stream(all).average().orElse(0);
  }

  /** Of all slots that are heard, without the ends of passages. */
  double[] slots(Growing of) {
    return passages.stream()
        .map(Gate.Passage::inner)
        .flatMapToInt(p -> IntStream.range(p.from(), p.to()))
        .mapToDouble(of::at)
        .toArray();
  }

  double quietingDb() {
    double[] bends = slots(d.bends);
    return Gate.quietingDb(noiseBend, Arrays.stream(bends).average().orElse(noiseBend));
  }

  double quietingDb(double bend) {
    return Gate.quietingDb(noiseBend, bend);
  }

  /** How far it goes in a passage. */
  double farthest(Gate.Passage passage, Growing of, int sign) {
    double mean = mean(passage, d.means);
    double full = full(passage);
    Gate.Passage p = passage.inner();
    double most = 0;
    for (int k = p.from(); k < p.to(); k++) {
      most = Math.max(most, sign * (of.at(k) - mean) / full);
    }
    return most;
  }

  /** The tone of the list that is there, of FM. */
  Optional<ToneSquelch> squelchTone() {
    return squelchTone;
  }

  private Optional<ToneSquelch> lookForSquelchTone() {
    if (settings.mode() != Mode.FM) {
      return Optional.empty();
    }
    // Noise without a carrier is louder than any tone.
    List<Gate.Passage> where =
        passages.isEmpty()
            ? Gate.passages(d, new Squelch(Squelch.By.QUIETING, CARRIER_DB), addDb, noiseBend)
            : passages;
    return longest(where).flatMap(this::slowTone);
  }

  private Optional<ToneSquelch> slowTone(Gate.Passage p) {
    double each = d.slotSeconds() * d.slowRateHz();
    int from = (int) (each * p.from());
    int to = (int) Math.min(d.slow.size(), each * p.to());
    double[] slow = new double[Math.max(0, to - from)];
    for (int i = 0; i < slow.length; i++) {
      slow[i] = d.slow.at(from + i);
    }
    return ToneSquelch.in(slow, d.slowRateHz(), 0);
  }
}
