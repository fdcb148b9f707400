package rovnik.server.networks;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import rovnik.core.network.TimeDomain;

/** What is asked of networks, and what they look like then. */
final class NetworkViewDto {
  private NetworkViewDto() {}

  /**
   * What to show.
   *
   * @param networks files, laid over one another
   * @param panes parameters with their formats
   * @param smoothing share of the points, 0 to 0.25; null for none
   * @param apertureHz of group delay; null for neighbouring points
   * @param change corrections before anything is shown, null for none
   * @param time transform to time, null for none
   */
  @Schema(name = "NetworkViewRequest")
  record Request(
      List<Long> networks,
      List<Pane> panes,
      Double smoothing,
      Double apertureHz,
      Change change,
      Time time) {}

  /**
   * One parameter.
   *
   * @param format a NetworkFormat, or COMPLEX for the Smith chart and the polar plot
   */
  @Schema(name = "NetworkPane")
  record Pane(int row, int column, String format) {}

  /**
   * Corrections, in this order: parts taken off, line taken off, reference changed.
   *
   * @param firstPart file of a two-port between the instrument's port 1 and the part, null for none
   * @param lastPart the same at port 2; its port 2 is towards the instrument
   * @param extensions one a port, null for none
   * @param referenceOhm new reference of all ports, null to leave it
   */
  @Schema(name = "NetworkChange")
  record Change(Long firstPart, Long lastPart, List<Extension> extensions, Double referenceOhm) {}

  /** A length of line at a port, one way. */
  @Schema(name = "PortExtension")
  record Extension(double delaySeconds, double lossDb, double atHz) {}

  /**
   * A transform to time of one parameter.
   *
   * @param gate only what lies between these two distances is left in the panes; null for all
   * @param leastFault smallest reflection in the list, null for 0.02
   */
  @Schema(name = "TimeRequest")
  record Time(
      int row,
      int column,
      TimeDomain.Mode mode,
      TimeDomain.Shape shape,
      double velocityFactor,
      Gate gate,
      Double leastFault) {}

  /** Two one-way distances. */
  @Schema(name = "TimeGate")
  record Gate(double fromMetres, double toMetres) {}

  /** What the networks look like, in the order they were asked for. */
  @Schema(name = "NetworkView")
  record Reply(List<Shown> networks) {}

  /** One network. */
  @Schema(name = "ShownNetwork")
  record Shown(
      long id,
      String name,
      int ports,
      double[] z0,
      double[] frequencyHz,
      List<Curve> curves,
      TimeReply time) {}

  /**
   * One pane's values, null where there is none (the VSWR of a total reflection).
   *
   * @param y empty for COMPLEX
   * @param re empty but for COMPLEX
   */
  @Schema(name = "NetworkCurve")
  record Curve(
      String parameter,
      String format,
      String label,
      String unit,
      Double[] y,
      double[] re,
      double[] im) {}

  /** The response over distance, one way. */
  @Schema(name = "TimeReply")
  record TimeReply(
      double[] metres,
      double[] value,
      double resolutionMetres,
      double rangeMetres,
      List<FaultDto> faults) {}

  /**
   * One disturbance.
   *
   * @param ohm what it would be alone on a line of the reference; null where the sign is not known
   */
  @Schema(name = "LineFault")
  record FaultDto(double metres, double reflection, Double ohm, String kind) {}
}
