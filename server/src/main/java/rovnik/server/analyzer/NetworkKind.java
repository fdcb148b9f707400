package rovnik.server.analyzer;

import java.util.List;
import org.springframework.stereotype.Component;
import rovnik.instruments.InstrumentKind;
import rovnik.server.bench.BenchService;
import rovnik.server.live.LiveKind;
import rovnik.server.live.Measuring;
import rovnik.server.live.MeasuringSession;
import rovnik.server.live.Sources;
import rovnik.server.networks.NetworkOutcome;
import rovnik.server.networks.NetworkService;
import rovnik.server.networks.NetworkView;

/** Opens S-parameters of network analyzers. */
@Component
class NetworkKind implements LiveKind {
  private final BenchService bench;
  private final NetworkService networks;
  private final NetworkView views;
  private final JobNetworks jobNetworks;

  NetworkKind(
      BenchService bench, NetworkService networks, NetworkView views, JobNetworks jobNetworks) {
    this.bench = bench;
    this.networks = networks;
    this.views = views;
    this.jobNetworks = jobNetworks;
  }

  @Override
  public String kind() {
    return NetworkOutcome.KIND;
  }

  @Override
  public boolean fits(String source) {
    return Sources.isInstrument(source)
        && bench.kind(Sources.id(source)) == InstrumentKind.NETWORK_ANALYZER;
  }

  @Override
  public List<Class<?>> described() {
    return List.of(
        NetworkSettings.class, NetworkFacts.class, NetworkLook.View.class, ScatterWork.Form.class);
  }

  @Override
  public Measuring<?> open(String source) {
    return new NetworkMeasuring(Sources.id(source), bench, networks, views, jobNetworks);
  }

  @Override
  public void opened(MeasuringSession<?> session) {
    ((NetworkMeasuring) session.measuring()).opened(session);
  }
}
