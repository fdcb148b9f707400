package rovnik.server.analyzer;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Service;
import rovnik.core.Refusal;
import rovnik.server.bench.BenchService;
import rovnik.server.jobs.JobService;
import rovnik.server.live.SourceHub;
import rovnik.server.networks.NetworkService;
import rovnik.server.networks.NetworkView;
import tools.jackson.databind.json.JsonMapper;

/** All network analyzers by source: "n8" is instrument 8. */
@Service
class AnalyzerHub implements SourceHub {
  private final BenchService bench;
  private final JobService jobs;
  private final NetworkService networks;
  private final NetworkView views;
  private final JsonMapper json;
  private final Map<String, AnalyzerSession> sessions = new ConcurrentHashMap<>();

  AnalyzerHub(
      BenchService bench,
      JobService jobs,
      NetworkService networks,
      NetworkView views,
      JsonMapper json) {
    this.bench = bench;
    this.jobs = jobs;
    this.networks = networks;
    this.views = views;
    this.json = json;
    jobs.onChange(
        id ->
            sessions.values().stream()
                .filter(s -> s.jobId() != null && s.jobId() == id)
                .forEach(AnalyzerSession::jobChanged));
  }

  @Override
  public boolean knows(String source) {
    return source != null && source.matches("n\\d{1,18}");
  }

  @Override
  public AnalyzerSession session(String source) {
    if (!knows(source)) {
      throw new Refusal("source", "A network analyzer's source is \"n\" and its id.");
    }
    return sessions.computeIfAbsent(
        source,
        s -> {
          long id = Long.parseLong(s.substring(1));
          bench.analyzer(id);
          return new AnalyzerSession(s, id, bench, jobs, networks, views, json);
        });
  }

  AnalyzerSession session(long id) {
    return session("n" + id);
  }
}
