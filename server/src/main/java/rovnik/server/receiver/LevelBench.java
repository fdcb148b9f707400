package rovnik.server.receiver;

import java.util.Map;
import rovnik.core.Refusal;
import rovnik.core.receiver.LevelAtReceiver;
import rovnik.core.receiver.Quality;
import rovnik.core.receiver.ReceiverModel;
import rovnik.instruments.source.SignalGenerator;
import rovnik.instruments.source.SignalSource;
import rovnik.server.bench.InstrumentDto;
import rovnik.server.live.PathGenerators;
import rovnik.server.live.Workbench;

/** What work that turns the level at a receiver has at hand. */
public interface LevelBench extends Workbench {
  PathGenerators generators();

  /** What the receiver gets of what the generator sends. */
  LevelAtReceiver at();

  /** What is known of the receiver. */
  ReceiverModel model();

  /** Bits of a packet that it counts, 0 if it counts none. */
  int packetBits();

  /** How well it receives now, after so many seconds of listening; the screen follows. */
  Quality measure(double seconds);

  /** Sets the level at the receiver's connector. */
  default void level(double dbm) {
    generators().source().set(SignalSource.LEVEL, dbm - at().gainDb());
  }

  /** Lowest and highest level that the generator can give the receiver, dBm. */
  default double[] range() {
    InstrumentDto.ControlDto level = generators().source().control(SignalSource.LEVEL);
    return new double[] {level.lowest() + at().gainDb(), level.highest() + at().gainDb()};
  }

  /** Level at the receiver now. */
  default double level() {
    return generators().source().value(SignalSource.LEVEL) + at().gainDb();
  }

  /** Refuses work while the generator is off. */
  default void refuseSilence() {
    if (!generators().source().on()) {
      throw new Refusal("source", "The generator is off. Switch it on first.");
    }
  }

  /** Sets level, and frequency and output of another generator too. */
  default void disturb(double dbm, double hz) {
    generators()
        .side()
        .set(
            Map.of(
                SignalSource.LEVEL,
                Double.toString(dbm - at().sideGainDb()),
                SignalGenerator.FREQUENCY,
                Double.toString(hz),
                SignalSource.OUTPUT,
                "on"));
  }
}
