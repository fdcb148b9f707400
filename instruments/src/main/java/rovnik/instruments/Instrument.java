package rovnik.instruments;

import java.util.List;

/** What every connected instrument can do. All calls may raise an {@link InstrumentFault}. */
public interface Instrument extends AutoCloseable {
  /** Its answer to *IDN?. */
  String identity();

  /** Back to its own default state (*RST). */
  void reset();

  /** Empties its error queue and returns what was in it. */
  List<String> errors();

  @Override
  void close();
}
