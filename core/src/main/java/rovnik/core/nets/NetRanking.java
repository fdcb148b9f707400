package rovnik.core.nets;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import rovnik.core.Refusal;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.TracesBeside;
import rovnik.core.signal.VoltageRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.time.Burst;
import rovnik.core.time.BurstMeasurement;
import rovnik.core.time.FoundBursts;

/**
 * The nets that were probed, one after the other: what is probed now is begun anew, the others keep
 * what was seen of them.
 */
final class NetRanking implements RecordMeasurement.Gathering {
  /** Looks at one net that count together, the newest. */
  private static final int MOST_LOOKS = 16;

  /**
   * An edge of a burst lies between two samples of the band as well as this share of their time.
   */
  private static final double BETWEEN = 0.02;

  private final NetSettings settings;
  private final Map<String, List<NetLook>> looks = new LinkedHashMap<>();
  private TracesBeside beside;
  private double alignment;
  private double clocks;

  NetRanking(NetSettings settings, NetRanking before) {
    this.settings = settings;
    if (before != null && settings.rankedWith(before.settings)) {
      looks.putAll(before.looks);
      alignment = before.alignment;
      clocks = before.clocks;
    }
    settings.nets().forEach(looks::remove);
  }

  @Override
  public void beside(TracesBeside traces) {
    beside = traces;
  }

  @Override
  public Outcome add(IqRecord record, MeasurementContext context) {
    TracesBeside traces = beside;
    beside = null;
    if (traces == null) {
      throw new Refusal(
          "oscilloscopeId",
          "The oscilloscope got no trigger. Connect the receiver's trigger output to the"
              + " oscilloscope's trigger input.");
    }
    alignment = traces.alignmentHalfWidth();
    clocks = traces.clocksRelative();
    FoundBursts found = new BurstMeasurement(settings.bursts()).found(record, context);
    List<VoltageRecord> channels = new ArrayList<>();
    List<Activity> activities = new ArrayList<>();
    for (VoltageRecord r : traces.channels()) {
      VoltageRecord aligned =
          new VoltageRecord(
              r.volts(), r.sampleRateHz(), r.startSeconds() - settings.laterSeconds());
      channels.add(aligned);
      activities.add(new Activity(aligned, settings.restSeconds()));
    }
    for (int i = 0; i < Math.min(settings.nets().size(), channels.size()); i++) {
      String name = settings.nets().get(i);
      if (!name.isEmpty()) {
        List<NetLook> of = looks.computeIfAbsent(name, n -> new ArrayList<>());
        of.add(look(found, channels.get(i), activities.get(i)));
        if (of.size() > MOST_LOOKS) {
          of.remove(0);
        }
      }
    }
    return new NetOutcome(settings, record, context, found, channels, activities, ranked())
        .outcome();
  }

  /** Bursts that the ends of the record cut are not known: it is looked between those. */
  private NetLook look(FoundBursts found, VoltageRecord channel, Activity net) {
    double begins = found.startSeconds();
    double blind = 1 / settings.bandHz();
    double length = found.bursts().stream().mapToDouble(Burst::length).max().orElse(0);
    return new NetLook(
        begins + blind,
        begins + found.power().length / found.rateHz() - length - blind,
        found.bursts().stream().mapToDouble(Burst::startSeconds).map(t -> begins + t).toArray(),
        found.edgeStandard(),
        0.5 / channel.sampleRateHz() + BETWEEN / found.rateHz(),
        net);
  }

  private List<RankedNet> ranked() {
    List<RankedNet> out = new ArrayList<>();
    looks.forEach(
        (name, of) ->
            out.add(
                new RankedNet(
                    name,
                    of.size(),
                    NetScore.of(
                        of,
                        settings.restSeconds(),
                        settings.togetherSeconds(),
                        settings.coincidentSeconds(),
                        clocks),
                    alignment,
                    clocks,
                    of.get(of.size() - 1))));
    out.sort(RankedNet.LIKELIEST_FIRST);
    return out;
  }
}
