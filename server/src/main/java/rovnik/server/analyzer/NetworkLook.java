package rovnik.server.analyzer;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import rovnik.core.network.KeptCalibration;
import rovnik.core.network.NetworkData;
import rovnik.core.result.Outcome;
import rovnik.server.live.Look;
import rovnik.server.networks.NetworkOutcome;
import rovnik.server.networks.NetworkViewDto.Shown;

/**
 * A corrected sweep and what the views show of it.
 *
 * @param atPlane at the calibrated ports
 * @param network at the plane where it is read
 * @param drawn as the views show it
 * @param state trust of the calibration
 * @param marks why nothing of it must be trusted
 * @param plane where it is read
 */
record NetworkLook(
    NetworkData atPlane,
    NetworkData network,
    Shown drawn,
    KeptCalibration.State state,
    List<String> marks,
    String plane)
    implements Look {

  /**
   * What the screen of a network needs beside the outcome.
   *
   * @param network as the view is sent for files, its arrays empty: they are in the outcome
   */
  @Schema(name = "SweepView")
  record View(Shown network, KeptCalibration.Trust trust, String plane) {}

  static boolean invalid(KeptCalibration.State state, List<String> marks) {
    return !marks.isEmpty() || state.trust() == KeptCalibration.Trust.NONE;
  }

  private List<String> doubts() {
    List<String> all = new ArrayList<>(marks);
    if (state.trust() != KeptCalibration.Trust.VALID) {
      all.add(state.trust().label());
    }
    return all;
  }

  @Override
  public Outcome shown() {
    return NetworkOutcome.of(drawn, plane, marks, doubts());
  }

  /** All S-parameters, held to the limits of the job. */
  Outcome whole(Shown judged) {
    return NetworkOutcome.whole(network, judged, plane, marks, doubts());
  }

  @Override
  public View view() {
    return new View(drawn.withoutArrays(), state.trust(), plane);
  }
}
