package rovnik.server.analyzer;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rovnik.core.result.Outcome;
import rovnik.server.jobs.JobDto;
import rovnik.server.measure.FileMeasurement;
import rovnik.server.networks.NetworkDto;
import rovnik.server.networks.NetworkOutcome;
import rovnik.server.networks.NetworkService;
import rovnik.server.networks.NetworkView;
import rovnik.server.networks.NetworkViewDto;
import rovnik.server.networks.NetworkViewDto.Shown;
import tools.jackson.databind.JsonNode;

/** S-parameters on file: views, worst values, limits of the job, time domain. */
@Component
class StoredNetwork implements FileMeasurement<NetworkViewDto.Request> {
  private final NetworkService networks;
  private final NetworkView views;
  private final JobNetworks jobNetworks;

  StoredNetwork(NetworkService networks, NetworkView views, JobNetworks jobNetworks) {
    this.networks = networks;
    this.views = views;
    this.jobNetworks = jobNetworks;
  }

  @Override
  public String kind() {
    return NetworkOutcome.KIND;
  }

  @Override
  public String title() {
    return NetworkOutcome.TITLE;
  }

  @Override
  public Set<Takes> takes() {
    return Set.of(Takes.NETWORK);
  }

  @Override
  public Class<NetworkViewDto.Request> settingsType() {
    return NetworkViewDto.Request.class;
  }

  @Override
  public NetworkViewDto.Request defaults() {
    return NetworkViewDto.Request.PLAIN;
  }

  /** All parameters in dB of a small network, and the worst values over all of it. */
  @Override
  public NetworkViewDto.Request defaultsFor(Subject subject) {
    NetworkDto file = networks.find(subject.networkId());
    JobDto job = subject.job();
    JobNetwork asked = job.id() == 0 ? JobNetwork.NONE : jobNetworks.find(job.id());
    List<NetworkViewDto.Band> bands = new ArrayList<>();
    bands.add(new NetworkViewDto.Band("", 0, Double.MAX_VALUE));
    bands.addAll(asked.bands());
    List<NetworkViewDto.Pane> panes = new ArrayList<>();
    int ports = Math.min(file.ports(), 2);
    for (int row = ports; row >= 1; row--) {
      for (int column = 1; column <= ports; column++) {
        panes.add(new NetworkViewDto.Pane(row, column, "LOG_MAGNITUDE"));
      }
    }
    return defaults().showing(panes).judging(asked.limits(), bands, job.dut());
  }

  /** A live look was of a sweep; what was shown of it is asked of the file. */
  @Override
  public @Nullable JsonNode ofLive(JsonNode kept) {
    return kept.get("view");
  }

  @Override
  public NetworkViewDto.Request withMarkers(NetworkViewDto.Request s, List<Double> hertz) {
    List<NetworkViewDto.Band> bands = new ArrayList<>(s.bands() == null ? List.of() : s.bands());
    for (int i = 0; i < hertz.size(); i++) {
      bands.add(new NetworkViewDto.Band("marker" + (i + 1), hertz.get(i), hertz.get(i)));
    }
    return s.judging(s.limits(), bands, s.dut()).detailing(hertz);
  }

  @Override
  public Outcome measure(Subject subject, NetworkViewDto.Request settings) {
    NetworkView.check(settings);
    String name = networks.find(subject.networkId()).name();
    Shown shown =
        views.shown(
            subject.networkId(),
            name,
            name,
            networks.data(subject.networkId()),
            settings,
            null,
            false);
    return NetworkOutcome.of(shown, "the file's ports", List.of(), List.of());
  }
}
