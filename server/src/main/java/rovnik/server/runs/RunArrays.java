package rovnik.server.runs;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import rovnik.core.result.Outcome;
import rovnik.server.results.ArrayBlob;
import rovnik.server.results.OutcomeDto;
import rovnik.server.results.SeriesDto;

/** Arrays of a stored outcome, by name. */
final class RunArrays implements SeriesDto.Arrays {
  private final Map<String, ArrayBlob> blobs = new LinkedHashMap<>();

  /** Those of an outcome that is about to be stored. */
  static RunArrays of(Outcome outcome) {
    RunArrays all = new RunArrays();
    outcome
        .series()
        .forEach(
            s ->
                OutcomeDto.forEachArray(
                    s, (name, array) -> all.blobs.put(name, ArrayBlob.of(array))));
    return all;
  }

  static RunArrays of(List<RunMapper.ArrayRow> rows) {
    RunArrays all = new RunArrays();
    rows.forEach(
        r -> all.blobs.put(r.name(), new ArrayBlob(r.type(), r.points(), r.crc32(), r.deflated())));
    return all;
  }

  Map<String, ArrayBlob> blobs() {
    return blobs;
  }

  @Override
  public boolean has(String name) {
    return blobs.containsKey(name);
  }

  private ArrayBlob find(String name, int points) {
    ArrayBlob blob = blobs.get(name);
    if (blob == null || blob.points() != points) {
      throw new IllegalStateException("the stored run lacks the numbers of " + name);
    }
    return blob;
  }

  @Override
  public double[] doubles(String name, int points) {
    return find(name, points).doubles();
  }

  @Override
  public float[] floats(String name, int points) {
    return find(name, points).floats();
  }
}
