package rovnik.server.networks;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rovnik.core.limits.Verdict;
import rovnik.core.network.MatchElement;
import rovnik.core.network.NetworkFormat;
import rovnik.core.network.NetworkLimit;
import rovnik.core.network.NetworkMath;
import rovnik.core.network.Resonance;
import rovnik.core.network.TimeDomain;

/** What is asked of networks, and what they look like then. */
public final class NetworkViewDto {
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
   * @param memory file that all others are reckoned with, null for none
   * @param math how; null for none
   * @param limits what the networks must keep
   * @param bands where readings are wanted
   * @param otherVswr of what the part is joined to, for the mismatch uncertainty; null for 1.5
   * @param detailHz frequencies of markers, at which two-ports tell of stability and gain
   * @param resonance what to look for, null for nothing
   * @param cableMetres length of the cable that is shown, null if it is none
   * @param fixture bounds of a home-made fixture, null for none
   * @param dut the part that limits are for which name none; null to hold every part to them
   */
  @Schema(name = "NetworkViewRequest")
  public record Request(
      @Nullable List<Long> networks,
      @Nullable List<Pane> panes,
      @Nullable Double smoothing,
      @Nullable Double apertureHz,
      @Nullable Change change,
      @Nullable Time time,
      @Nullable Long memory,
      @Nullable NetworkMath math,
      @Nullable List<LimitDto> limits,
      @Nullable List<Band> bands,
      @Nullable Double otherVswr,
      @Nullable List<Double> detailHz,
      @Nullable ResonanceAsk resonance,
      @Nullable Double cableMetres,
      @Nullable Fixture fixture,
      @Nullable String dut) {

    /** Nothing but one parameter in dB. */
    public static final Request PLAIN =
        new Request(
            List.of(),
            List.of(new Pane(2, 1, "LOG_MAGNITUDE")),
            null,
            null,
            null,
            null,
            null,
            null,
            List.of(),
            List.of(),
            null,
            List.of(),
            null,
            null,
            null,
            null);

    private Request with(
        @Nullable List<Pane> otherPanes,
        @Nullable List<LimitDto> otherLimits,
        @Nullable List<Band> otherBands,
        @Nullable List<Double> otherDetails,
        @Nullable String otherDut) {
      return new Request(
          networks,
          otherPanes,
          smoothing,
          apertureHz,
          change,
          time,
          memory,
          math,
          otherLimits,
          otherBands,
          otherVswr,
          otherDetails,
          resonance,
          cableMetres,
          fixture,
          otherDut);
    }

    /** The same with other limits and bands, as those of a job. */
    public Request judging(
        @Nullable List<LimitDto> otherLimits,
        @Nullable List<Band> otherBands,
        @Nullable String device) {
      return with(panes, otherLimits, otherBands, detailHz, device);
    }

    public Request showing(List<Pane> otherPanes) {
      return with(otherPanes, limits, bands, detailHz, dut);
    }

    public Request detailing(List<Double> hertz) {
      return with(panes, limits, bands, hertz, dut);
    }
  }

  /**
   * One bound; as in the core.
   *
   * @param part the part, or kind of part, that it is for; null or empty for the job's device
   */
  @Schema(name = "NetworkLimit")
  public record LimitDto(
      String name,
      int row,
      int column,
      NetworkFormat format,
      boolean upper,
      double fromHz,
      double toHz,
      double fromValue,
      double toValue,
      @Nullable String part) {
    public NetworkLimit toCore() {
      return new NetworkLimit(
          name, row, column, format, upper, fromHz, toHz, fromValue, toValue, part);
    }
  }

  /** A stretch that the job cares for. */
  @Schema(name = "NetworkBand")
  public record Band(String name, double fromHz, double toHz) {}

  /** A resonance to look for in a stretch. */
  @Schema(name = "ResonanceAsk")
  public record ResonanceAsk(
      Resonance.Connection connection, boolean series, double fromHz, double toHz) {}

  /** Files of the fixture with nothing in it, and shorted. */
  @Schema(name = "FixtureFiles")
  public record Fixture(@Nullable Long empty, @Nullable Long shorted) {}

  /**
   * One parameter.
   *
   * @param format a NetworkFormat, or COMPLEX for the Smith chart and the polar plot
   */
  @Schema(name = "NetworkPane")
  public record Pane(int row, int column, String format) {}

  /**
   * Corrections, in this order: parts taken off, parts put on, line taken off, elements put before
   * port 1, reference changed, balanced ports made.
   *
   * @param firstPart file of a two-port between the instrument's port 1 and the part, null for none
   * @param lastPart the same at port 2; its port 2 is towards the instrument
   * @param firstAdded file of a two-port to put before port 1, null for none
   * @param lastAdded the same behind port 2
   * @param extensions one a port, null for none
   * @param elements of a matching network that is only thought of, the one at the part first
   * @param referenceOhm new reference of all ports, null to leave it
   * @param balanced ports of balanced port 1, then of 2, such as 1, 3, 2, 4; null for none
   */
  @Schema(name = "NetworkChange")
  public record Change(
      @Nullable Long firstPart,
      @Nullable Long lastPart,
      @Nullable Long firstAdded,
      @Nullable Long lastAdded,
      @Nullable List<Extension> extensions,
      @Nullable List<Element> elements,
      @Nullable Double referenceOhm,
      int @Nullable [] balanced) {}

  /** One element; ohm, henry, farad, or the seconds of a line. */
  @Schema(name = "MatchElement")
  public record Element(MatchElement.Place place, MatchElement.Part part, double value) {}

  /** A length of line at a port, one way. */
  @Schema(name = "PortExtension")
  public record Extension(double delaySeconds, double lossDb, double atHz) {}

  /**
   * A transform to time of one parameter.
   *
   * @param gate only what lies between these two distances is left in the panes; null for all
   * @param leastFault smallest reflection in the list, null for 0.02
   */
  @Schema(name = "TimeRequest")
  public record Time(
      int row,
      int column,
      TimeDomain.Mode mode,
      TimeDomain.Shape shape,
      double velocityFactor,
      @Nullable Gate gate,
      @Nullable Double leastFault) {}

  /** Two one-way distances. */
  @Schema(name = "TimeGate")
  public record Gate(double fromMetres, double toMetres) {}

  /** What the networks look like, in the order they were asked for. */
  @Schema(name = "NetworkView")
  record Reply(List<Shown> networks) {}

  /**
   * One network.
   *
   * @param verdict of all limits together
   * @param notes what could not be done, and what to mind
   * @param window what the fixture can be trusted with, null if there is none
   */
  @Schema(name = "ShownNetwork")
  public record Shown(
      long id,
      String name,
      int ports,
      double[] z0,
      double[] frequencyHz,
      List<Curve> curves,
      @Nullable TimeReply time,
      List<OutcomeDto> outcomes,
      Verdict verdict,
      String verdictText,
      List<BandReply> bands,
      List<Detail> details,
      @Nullable ResonanceReply resonance,
      @Nullable CableReply cable,
      @Nullable Window window,
      List<String> notes) {

    /** With one more note. */
    public Shown withNote(String note) {
      List<String> more = new java.util.ArrayList<>(notes);
      more.add(note);
      return new Shown(
          id,
          name,
          ports,
          z0,
          frequencyHz,
          curves,
          time,
          outcomes,
          verdict,
          verdictText,
          bands,
          details,
          resonance,
          cable,
          window,
          more);
    }

    /** Without what is sent apart. */
    public Shown withoutArrays() {
      double[] none = new double[0];
      return new Shown(
          id,
          name,
          ports,
          z0,
          none,
          curves.stream()
              .map(
                  c -> new Curve(c.parameter, c.format, c.label, c.unit, new Double[0], none, none))
              .toList(),
          time == null
              ? null
              : new TimeReply(none, none, time.resolutionMetres, time.rangeMetres, time.faults),
          outcomes,
          verdict,
          verdictText,
          bands,
          details,
          resonance,
          cable,
          window,
          notes);
    }
  }

  /**
   * How one limit is kept; null where no point lies in it.
   *
   * @param bound the limit at that place
   * @param upper true if values must stay below it
   * @param verdict NONE if it is for another part
   */
  @Schema(name = "LimitOutcome")
  public record OutcomeDto(
      String name,
      @Nullable Double worst,
      @Nullable Double atHz,
      @Nullable Double margin,
      @Nullable Double bound,
      boolean upper,
      String unit,
      Verdict verdict,
      String verdictText) {}

  /** Worst values in one band. */
  @Schema(name = "BandReadings")
  public record BandReply(String name, List<NetworkDetail.NetworkReading> readings) {}

  /** A reflection, or the middle of a circle. */
  @Schema(name = "ReflectionPoint")
  public record Gamma(double re, double im) {}

  /** Stability and gain of a two-port at one frequency; null where there is none. */
  @Schema(name = "TwoPortDetail")
  public record Detail(
      double hertz,
      @Nullable Double stabilityK,
      double stabilityMu,
      @Nullable Double maximumGainDb,
      @Nullable Double stableGainDb,
      Gamma loadCircle,
      double loadRadius,
      Gamma sourceCircle,
      double sourceRadius,
      @Nullable Gamma matchedSource,
      @Nullable Gamma matchedLoad) {}

  /** The strongest resonance. */
  @Schema(name = "ResonanceReply")
  public record ResonanceReply(
      double hertz,
      double quality,
      double henry,
      double farad,
      double ohm,
      boolean seriesCircuit) {}

  /** What a cable of known length does. */
  @Schema(name = "CableReply")
  public record CableReply(double velocityFactor, double lossDbPerMetre, double atHz) {}

  /**
   * S21 between these can be trusted, a value a point.
   *
   * @param near where S21 lies outside: what is read there says more of the fixture
   */
  @Schema(name = "FixtureWindow")
  public record Window(double[] lowestDb, double[] highestDb, List<Near> near) {
    /** Frequencies from the first to the last point. */
    @Schema(name = "FixtureNear")
    public record Near(double fromHz, double toHz) {}
  }

  /**
   * One pane's values, null where there is none (the VSWR of a total reflection).
   *
   * @param y empty for COMPLEX
   * @param re empty but for COMPLEX
   */
  @Schema(name = "NetworkCurve")
  public record Curve(
      String parameter,
      String format,
      String label,
      String unit,
      @Nullable Double[] y,
      double[] re,
      double[] im) {}

  /** The response over distance, one way. */
  @Schema(name = "TimeReply")
  public record TimeReply(
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
  public record FaultDto(double metres, double reflection, @Nullable Double ohm, String kind) {}
}
