package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.emission.AdjacentChannels;
import rovnik.core.emission.ChannelFilter;
import rovnik.core.emission.EmissionMask;
import rovnik.core.emission.LevelDisplay;
import rovnik.core.emission.SecondInput;
import rovnik.core.emission.ViewPlan;
import rovnik.core.spectrum.PointReducer;
import rovnik.core.spectrum.TraceMode;
import rovnik.core.spectrum.TraceRow;
import rovnik.core.units.LevelUnit;
import rovnik.server.results.Nulls;

/**
 * What is shown and read beside the main trace, as sent and stored; null parts are not asked for.
 *
 * @param reducer how bins become points: peak, negative-peak, sample, rms
 * @param unit that levels are shown in: DBM, DBUV, DBV, VOLT, WATT
 * @param impedanceOhm that powers are shown for, null for 50
 * @param second second input of the receiver
 */
@Schema(name = "ViewPlan")
public record ViewDto(
    @Nullable List<RowDto> traces,
    @Nullable String reducer,
    @Nullable Integer mostPoints,
    @Nullable OccupiedDto occupied,
    @Nullable AdjacentDto adjacent,
    @Nullable List<SegmentDto> mask,
    @Nullable DensityDto density,
    @Nullable Boolean twoTones,
    @Nullable Boolean amDepth,
    @Nullable Boolean skirt,
    @Nullable List<ReadDto> reads,
    @Nullable String unit,
    @Nullable Double impedanceOhm,
    @Nullable SecondDto second) {

  public static final ViewDto PLAIN = of(ViewPlan.PLAIN);

  /** One more trace. */
  @Schema(name = "TraceRow")
  public record RowDto(TraceMode mode, int count, int a, int b) {}

  /** Occupied bandwidth by share (0 to 1), or by x dB if that is set. */
  @Schema(name = "OccupiedPlan")
  public record OccupiedDto(
      @Nullable Double share, @Nullable Double xDb, @Nullable Double widestHz) {}

  /** Adjacent channels; a roll-off makes the width a symbol rate behind a root-raised cosine. */
  @Schema(name = "AdjacentPlan")
  public record AdjacentDto(
      double ownWidthHz, @Nullable Double ownRollOff, List<ChannelDto> channels) {}

  /** One channel on each side. */
  @Schema(name = "AdjacentChannel")
  public record ChannelDto(
      double offsetHz, double widthHz, @Nullable Double rollOff, @Nullable Double highestDbc) {}

  /** One segment of a mask; limits are straight in dB over the offset. */
  @Schema(name = "MaskSegment")
  public record SegmentDto(
      double fromHz,
      double toHz,
      double rbwHz,
      @Nullable Double fromDbc,
      @Nullable Double toDbc,
      @Nullable Double fromAbsolute,
      @Nullable Double toAbsolute) {}

  /** A number read at a marker. */
  @Schema(name = "MarkerReading")
  public record ReadDto(ViewPlan.ReadKind kind, double hertz, double widthHz) {}

  /** The second input: its window, its reference level at the probe's tip, its probe. */
  @Schema(name = "SecondInput")
  public record SecondDto(String window, double referenceLevelDbm, double probeRatio) {}

  /** Power density in the channel, with a limit or without. */
  @Schema(name = "DensityPlan")
  public record DensityDto(@Nullable Double highest) {}

  /** The same with other numbers read at markers. */
  ViewDto reading(List<ReadDto> otherReads) {
    return new ViewDto(
        traces,
        reducer,
        mostPoints,
        occupied,
        adjacent,
        mask,
        density,
        twoTones,
        amDepth,
        skirt,
        otherReads,
        unit,
        impedanceOhm,
        second);
  }

  public static ViewDto of(ViewPlan v) {
    return new ViewDto(
        v.traces().stream().map(t -> new RowDto(t.mode(), t.count(), t.a(), t.b())).toList(),
        v.reducer().name(),
        v.mostPoints(),
        v.occupied() == null
            ? null
            : new OccupiedDto(
                v.occupied().share(),
                Nulls.orNull(v.occupied().xDb()),
                Nulls.orNull(v.occupied().widestHz())),
        v.adjacent() == null ? null : of(v.adjacent()),
        v.mask() == null ? null : v.mask().segments().stream().map(ViewDto::of).toList(),
        v.highestDensity() == null ? null : new DensityDto(Nulls.orNull(v.highestDensity())),
        v.twoTones(),
        v.amDepth(),
        v.skirt(),
        v.reads().stream().map(r -> new ReadDto(r.kind(), r.hertz(), r.widthHz())).toList(),
        v.display().unit().name(),
        v.display().ohm(),
        v.second() == null
            ? null
            : new SecondDto(
                v.second().window().name(),
                v.second().referenceLevelDbm(),
                v.second().probeRatio()));
  }

  private static AdjacentDto of(AdjacentChannels a) {
    return new AdjacentDto(
        a.own().widthHz(),
        Nulls.orNull(a.own().rollOff()),
        a.channels().stream()
            .map(
                c ->
                    new ChannelDto(
                        c.offsetHz(),
                        c.filter().widthHz(),
                        Nulls.orNull(c.filter().rollOff()),
                        Nulls.orNull(c.highestDbc())))
            .toList());
  }

  private static SegmentDto of(EmissionMask.Segment s) {
    return new SegmentDto(
        s.fromHz(),
        s.toHz(),
        s.rbwHz(),
        Nulls.orNull(s.fromDbc()),
        Nulls.orNull(s.toDbc()),
        Nulls.orNull(s.fromAbsolute()),
        Nulls.orNull(s.toAbsolute()));
  }

  /** The plan as the core knows it; refuses what cannot be. */
  public ViewPlan toCore() {
    if (traces != null && traces.stream().anyMatch(t -> t == null)) {
      throw new Refusal("traces", "A trace in the list is empty. Take it out.");
    }
    return new ViewPlan(
        traces == null
            ? List.of()
            : traces.stream().map(t -> new TraceRow(t.mode(), t.count(), t.a(), t.b())).toList(),
        reducer == null
            ? PointReducer.PEAK
            : SettingsDto.byName(PointReducer.values(), "reducer", reducer),
        mostPoints == null ? ViewPlan.PLAIN.mostPoints() : mostPoints,
        occupied == null
            ? null
            : new ViewPlan.Occupied(
                occupied.share() == null ? 0.99 : occupied.share(),
                Nulls.orNan(occupied.xDb()),
                Nulls.orNan(occupied.widestHz())),
        adjacent == null ? null : adjacentToCore(),
        mask == null ? null : new EmissionMask(mask.stream().map(ViewDto::segmentToCore).toList()),
        density == null ? null : Nulls.orNan(density.highest()),
        Boolean.TRUE.equals(twoTones),
        Boolean.TRUE.equals(amDepth),
        Boolean.TRUE.equals(skirt),
        reads == null
            ? List.of()
            : reads.stream()
                .map(r -> new ViewPlan.ReadAt(r.kind(), r.hertz(), r.widthHz()))
                .toList(),
        new LevelDisplay(
            unit == null ? LevelUnit.DBM : SettingsDto.byName(LevelUnit.values(), "unit", unit),
            impedanceOhm == null ? LevelUnit.PORT_OHM : impedanceOhm),
        second == null
            ? null
            : new SecondInput(
                SettingsDto.parseWindow(second.window()),
                second.referenceLevelDbm(),
                second.probeRatio()));
  }

  private AdjacentChannels adjacentToCore() {
    List<ChannelDto> channels = adjacent.channels() == null ? List.of() : adjacent.channels();
    return new AdjacentChannels(
        new ChannelFilter(adjacent.ownWidthHz(), Nulls.orNan(adjacent.ownRollOff())),
        channels.stream()
            .map(
                c ->
                    new AdjacentChannels.Channel(
                        c.offsetHz(),
                        new ChannelFilter(c.widthHz(), Nulls.orNan(c.rollOff())),
                        Nulls.orNan(c.highestDbc())))
            .toList());
  }

  private static EmissionMask.Segment segmentToCore(SegmentDto s) {
    return new EmissionMask.Segment(
        s.fromHz(),
        s.toHz(),
        s.rbwHz(),
        Nulls.orNan(s.fromDbc()),
        Nulls.orNan(s.toDbc()),
        Nulls.orNan(s.fromAbsolute()),
        Nulls.orNan(s.toAbsolute()));
  }
}
