package rovnik.server.analyzer;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rovnik.server.networks.NetworkViewDto;

/**
 * What a job asks of its networks.
 *
 * @param limits what a part must keep
 * @param bands where readings are wanted; empty for the whole sweep
 * @param fixtureEmpty file of the job's fixture with nothing in it, null if it was not measured
 * @param fixtureShorted the same, shorted
 */
@Schema(name = "JobNetwork")
public record JobNetwork(
    List<NetworkViewDto.LimitDto> limits,
    List<NetworkViewDto.Band> bands,
    @Nullable Long fixtureEmpty,
    @Nullable Long fixtureShorted) {
  static final JobNetwork NONE = new JobNetwork(List.of(), List.of(), null, null);

  public JobNetwork {
    limits = limits == null ? List.of() : List.copyOf(limits);
    bands = bands == null ? List.of() : List.copyOf(bands);
  }

  /** With one side of the fixture measured anew. */
  public JobNetwork withFixture(boolean empty, Long file) {
    return new JobNetwork(
        limits, bands, empty ? file : fixtureEmpty, empty ? fixtureShorted : file);
  }
}
