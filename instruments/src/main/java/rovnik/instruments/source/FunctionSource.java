package rovnik.instruments.source;

import rovnik.core.path.Supply;
import rovnik.instruments.Instrument;

/** A low-frequency source of voltages, such as the supply of a part that is modulated by it. */
public interface FunctionSource extends Instrument {
  String OUTPUT = "output";
  String SHAPE = "shape";
  String FREQUENCY = "frequency";
  String AMPLITUDE = "amplitude";
  String OFFSET = "offset";

  FunctionState state();

  /** How far its voltage errs. */
  Supply.Accuracy accuracy();
}
