package rovnik.server.jobs;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.path.ElementKind;
import rovnik.core.path.SignalPath;

/**
 * A path as stored and sent.
 *
 * @param revision grows with every change of an element; an override of the level plan holds for
 *     one revision only
 */
@Schema(name = "Path")
public record PathDto(List<PathElementDto> elements, int readingPlane, long revision) {
  public PathDto {
    if (elements == null) {
      throw new Refusal("elements", "Give the elements of the path, from source to port.");
    }
  }

  /** The path as the core knows it; refuses what cannot be. */
  public SignalPath toCore() {
    return new SignalPath(elements.stream().map(PathElementDto::toCore).toList(), readingPlane);
  }

  /** The same path read at another plane, held to the planes there are. */
  public PathDto atPlane(int plane) {
    return new PathDto(elements, Math.max(0, Math.min(plane, elements.size() - 2)), revision);
  }

  /** The instrument at the other input of the first combiner, or null. */
  public @Nullable Long sideInstrument() {
    return elements.stream()
        .filter(e -> e.kind() == ElementKind.COMBINER && e.instrumentId() != null)
        .map(PathElementDto::instrumentId)
        .findFirst()
        .orElse(null);
  }

  /**
   * The same path with what the instruments at its combiners send.
   *
   * @param level at an instrument's output in dBm, null for nothing
   */
  public PathDto withSides(Function<Long, @Nullable Double> level) {
    return new PathDto(
        elements.stream()
            .map(
                e ->
                    e.kind() == ElementKind.COMBINER && e.instrumentId() != null
                        ? e.sending(level.apply(e.instrumentId()))
                        : e)
            .toList(),
        readingPlane,
        revision);
  }

  /** The instrument behind the port, or null. */
  public @Nullable Long portInstrument() {
    return elements.get(elements.size() - 1).instrumentId();
  }

  /** The instrument behind the source, or null. */
  public @Nullable Long sourceInstrument() {
    return elements.get(0).instrumentId();
  }
}
