package rovnik.server.analyzer;

import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.network.KeptCalibration;
import rovnik.core.network.NetworkData;
import rovnik.core.network.Residuals;
import rovnik.core.network.SweepSettings;
import rovnik.instruments.network.NetworkCapabilities;
import rovnik.server.config.Conflict;
import rovnik.server.networks.NetworkView;
import rovnik.server.networks.NetworkViewDto;

/**
 * What is made of a sweep before it is shown: the calibration that corrects it, the plane where it
 * is read, the views that are asked for, and the errors that are left. Set by requests, read by the
 * instrument's thread.
 */
final class SweepPicture {
  /** What was measured last. */
  record Look(
      NetworkData atPlane,
      NetworkData shown,
      KeptCalibration.State state,
      List<String> marks,
      String plane) {
    boolean invalid() {
      return !marks.isEmpty() || state.trust() == KeptCalibration.Trust.NONE;
    }
  }

  /** A sweep and what the views show of it. */
  record Seen(Look look, NetworkViewDto.Shown shown) {}

  private final NetworkView views;
  private final NetworkCapabilities able;
  private volatile NetworkViewDto.Request view = NetworkView.PLAIN;
  private volatile boolean atPart = true;
  private volatile KeptCalibration calibration;
  private volatile double verified;

  SweepPicture(NetworkView views, NetworkCapabilities able) {
    this.views = views;
    this.able = able;
  }

  boolean atPart() {
    return atPart;
  }

  KeptCalibration calibration() {
    return calibration;
  }

  /**
   * Corrects by a calibration, or by none.
   *
   * @param worstVerified largest residual that a verification found, linear; 0 if none was made
   */
  void use(KeptCalibration c, double worstVerified) {
    calibration = c;
    verified = worstVerified;
  }

  void verified(double worst) {
    verified = worst;
  }

  /**
   * Takes another view, if it fits the newest sweep; refuses it and changes nothing if not.
   *
   * @param newest null if nothing was measured yet
   * @return the newest sweep as it is read now, null if there is none
   */
  Seen view(NetworkViewDto.Request wanted, boolean part, Look newest, Setting at) {
    NetworkViewDto.Request before = view;
    boolean beforePart = atPart;
    view = wanted;
    atPart = part;
    if (newest == null) {
      return null;
    }
    try {
      Look again =
          part == beforePart
              ? newest
              : look(newest.atPlane(), newest.state(), newest.marks(), at.path);
      return new Seen(again, asked(again, at));
    } catch (Refusal | Conflict r) {
      view = before;
      atPart = beforePart;
      throw r;
    }
  }

  /**
   * Where and how a sweep was made.
   *
   * @param path null if the job's path does not lead through this analyzer
   */
  record Setting(String name, SweepSettings sweep, AnalyzerPath path) {}

  /** A corrected sweep as it is read at the plane that was chosen. */
  Look look(
      NetworkData atPlane, KeptCalibration.State state, List<String> marks, AnalyzerPath path) {
    boolean part = atPart && path != null;
    return new Look(
        atPlane,
        part ? path.atPart(atPlane) : atPlane,
        state,
        marks,
        !part || path.partName().isEmpty()
            ? "the calibrated ports"
            : "the connectors of " + path.partName());
  }

  /** Errors left in what is shown. */
  Residuals residuals(KeptCalibration.State state, Setting at) {
    KeptCalibration c = calibration;
    SweepSettings s = at.sweep;
    Residuals r =
        c == null
            ? able.raw()
            : Residuals.after(c.method(), state.trust(), able.raw(), able.calibrated(), verified);
    AnalyzerPath path = atPart ? at.path : null;
    double around = path == null ? 0 : path.aroundDb((s.lowestHz() + s.highestHz()) / 2);
    double noiseDb =
        10 * Math.log10(s.bandwidthHz() / 1e3 / s.averages()) - (s.powerDbm() + 10) - around;
    double pads = path == null ? 0 : Math.pow(10, path.aroundUncertaintyDb() / 20) - 1;
    return r.withTracking(Math.hypot(r.tracking(), pads))
        .withFloor(able.calibrated().floor() * Math.pow(10, noiseDb / 20));
  }

  private NetworkViewDto.Shown asked(Look l, Setting at) {
    return views.shown(0, at.name, l.shown(), view, residuals(l.state(), at), l.invalid());
  }

  /** As the view asks, or plainly and with a note if the view does not fit this sweep. */
  NetworkViewDto.Shown answered(Look l, Setting at) {
    try {
      return asked(l, at);
    } catch (Refusal | Conflict r) {
      // The view was good for another sweep, as a part known over another band only.
      return views
          .shown(0, at.name, l.shown(), NetworkView.PLAIN, null, true)
          .withNote(r.getMessage());
    }
  }
}
