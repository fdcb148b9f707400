package rovnik.core.path;

import java.util.List;
import rovnik.core.Refusal;

/**
 * A chain of elements from a source to an instrument port. Plane i is the output of element i, so a
 * path of n elements has n-1 planes; the last plane is the instrument's port.
 *
 * @param elements at least a source and a port
 * @param readingPlane index of the plane that every number is referred to
 */
public record SignalPath(List<PathElement> elements, int readingPlane) {

  public SignalPath {
    elements = List.copyOf(elements);
    if (elements.size() < 2
        || elements.get(elements.size() - 1).kind() != ElementKind.PORT
        || elements.stream().filter(e -> e.kind() == ElementKind.PORT).count() != 1) {
      throw new Refusal(
          "elements",
          "The path must end at one instrument port. Add the port of the receiver as last element.");
    }
    if (elements.get(0).kind() != ElementKind.SOURCE
        || elements.stream().filter(e -> e.kind() == ElementKind.SOURCE).count() != 1) {
      throw new Refusal(
          "elements", "The path must begin at one source. Add the transmitter as first element.");
    }
    if (readingPlane < 0 || readingPlane > elements.size() - 2) {
      throw new Refusal(
          "readingPlane",
          "The reading plane must be 0 to " + (elements.size() - 2) + "; it is " + readingPlane);
    }
  }

  /** Number of planes. */
  public int planes() {
    return elements.size() - 1;
  }

  public String planeName(int plane) {
    return plane == planes() - 1
        ? elements.get(plane + 1).name()
        : elements.get(plane).name() + " OUT";
  }

  public SignalPath withReadingPlane(int plane) {
    return new SignalPath(elements, plane);
  }

  /** The instrument's port. */
  public PathElement port() {
    return elements.get(elements.size() - 1);
  }

  public PathElement source() {
    return elements.get(0);
  }

  /** Frequency at plane {@code to} of a signal that has {@code hz} at plane {@code from}. */
  public double frequencyBetween(int from, int to, double hz) {
    double f = hz;
    for (int i = from + 1; i <= to; i++) {
      f = elements.get(i).frequencyMap().toOutputHz(f);
    }
    for (int i = from; i > to; i--) {
      f = elements.get(i).frequencyMap().toInputHz(f);
    }
    return f;
  }

  /**
   * Gain in dB from plane {@code from} to plane {@code to}, for a signal that has {@code hz} at
   * plane {@code from}. Negative of the gain back if {@code to} lies before {@code from}.
   */
  public double gainBetweenDb(int from, int to, double hz) {
    double f = hz;
    double gain = 0;
    for (int i = from + 1; i <= to; i++) {
      gain += elements.get(i).gain().dbAt(f);
      f = elements.get(i).frequencyMap().toOutputHz(f);
    }
    for (int i = from; i > to; i--) {
      f = elements.get(i).frequencyMap().toInputHz(f);
      gain -= elements.get(i).gain().dbAt(f);
    }
    return gain;
  }

  /** True if the gain between two planes is the same at all frequencies. */
  boolean flatBetween(int from, int to) {
    return elements.subList(Math.min(from, to) + 1, Math.max(from, to) + 1).stream()
        .allMatch(e -> e.gain() instanceof Gain.Fixed);
  }

  /** Name of the first element whose gain table ends before {@code hz} (at plane from), or "". */
  public String uncovered(int from, int to, double hz) {
    if (to < from) {
      return uncovered(to, from, frequencyBetween(from, to, hz));
    }
    double f = hz;
    for (int i = from + 1; i <= to; i++) {
      if (!elements.get(i).gain().covers(f)) {
        return elements.get(i).name();
      }
      f = elements.get(i).frequencyMap().toOutputHz(f);
    }
    return "";
  }
}
