package rovnik.server.analyzer;

import org.jspecify.annotations.Nullable;
import rovnik.core.network.NetworkChange;
import rovnik.core.network.NetworkData;
import rovnik.core.network.PortLevels;
import rovnik.core.network.SweepSettings;
import rovnik.core.path.ElementKind;
import rovnik.core.path.SignalPath;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.LevelPlanDto;
import rovnik.server.jobs.PathElementDto;
import rovnik.server.networks.NetworkService;

/**
 * The path of a job where it leads from a network analyzer through a part and back: its levels, and
 * what stands between the calibrated planes and the part.
 */
final class AnalyzerPath {
  private final JobDto job;
  private final SignalPath path;
  private final NetworkService networks;

  private AnalyzerPath(JobDto job, NetworkService networks) {
    this.job = job;
    this.path = job.path().toCore();
    this.networks = networks;
  }

  /** Null if the path does not begin and end at this analyzer. */
  static @Nullable AnalyzerPath of(JobDto job, long analyzer, NetworkService networks) {
    boolean own =
        Long.valueOf(analyzer).equals(job.path().sourceInstrument())
            && Long.valueOf(analyzer).equals(job.path().portInstrument());
    return own ? new AnalyzerPath(job, networks) : null;
  }

  JobDto.PathVersion version() {
    return job.pathVersion();
  }

  PortLevels levels(SweepSettings s) {
    return PortLevels.of(path, s);
  }

  LevelPlanDto plan(PortLevels levels) {
    return LevelPlanDto.of(path, levels.forward(), levels.atHz());
  }

  /** The place where the path's part is plugged in, null if the path does not say. */
  static @Nullable Long partHolder(JobDto job) {
    return job.path().elements().stream()
        .filter(e -> e.kind() == ElementKind.DUT && e.instrumentId() != null)
        .map(PathElementDto::instrumentId)
        .findFirst()
        .orElse(null);
  }

  private int part() {
    for (int i = 1; i < path.elements().size() - 1; i++) {
      if (path.elements().get(i).kind() == ElementKind.DUT) {
        return i;
      }
    }
    return -1;
  }

  /** Gain of all that stands around the part, dB: by how much its noise grows at the part. */
  double aroundDb(double hz) {
    int part = part();
    double gain = 0;
    for (int i = 1; part > 0 && i < path.elements().size() - 1; i++) {
      gain += i == part ? 0 : path.elements().get(i).gain().dbAt(hz);
    }
    return gain;
  }

  /** Expanded uncertainty (k = 2) of the gain around the part, from its tolerances; dB. */
  double aroundUncertaintyDb() {
    int part = part();
    UncertaintyBudget budget = new UncertaintyBudget();
    for (int i = 1; part > 0 && i < path.elements().size() - 1; i++) {
      if (i != part) {
        budget.rectangular(path.elements().get(i).name(), path.elements().get(i).toleranceDb());
      }
    }
    return budget.expanded();
  }

  /** What is left of a sweep when pads, cables and adapters around the part are taken off. */
  NetworkData atPart(NetworkData n) {
    int part = part();
    if (part < 0 || n.ports() != 2) {
      return n;
    }
    NetworkData out = n;
    for (int i = 1; i < part; i++) {
      out = NetworkChange.withoutFirst(out, network(i, n));
    }
    for (int i = path.elements().size() - 2; i > part; i--) {
      out = NetworkChange.withoutLast(out, network(i, n));
    }
    return out;
  }

  private NetworkData network(int i, NetworkData like) {
    PathElementDto e = job.path().elements().get(i);
    return "file".equals(e.gainKind()) && e.networkId() != null
        ? networks.data(e.networkId())
        : NetworkChange.matched(hz -> path.elements().get(i).gain().dbAt(hz), like);
  }

  /** "Shore preamplifier", or "" if the path has no part. */
  String partName() {
    int part = part();
    return part < 0 ? "" : path.elements().get(part).name();
  }
}
