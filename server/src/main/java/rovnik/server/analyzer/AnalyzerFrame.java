package rovnik.server.analyzer;

import io.swagger.v3.oas.annotations.media.Schema;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.List;
import rovnik.core.network.KeptCalibration;
import rovnik.server.networks.NetworkViewDto.Curve;
import rovnik.server.networks.NetworkViewDto.Shown;
import tools.jackson.databind.json.JsonMapper;

/**
 * Header of one frame of a network analyzer. What follows it, little-endian: the frequencies as
 * float64; then as float32 each curve's values (NaN where there is none), or its real and then its
 * imaginary parts; then distances and values of the response over distance, if there is one.
 *
 * @param network as the view is sent for files, its arrays empty
 * @param complex of each curve, whether it comes as real and imaginary parts
 * @param plane that the numbers are referred to
 */
@Schema(name = "AnalyzerFrame")
record AnalyzerFrame(
    String source,
    long sequence,
    long acquiredAtMillis,
    int points,
    List<Integer> curvePoints,
    List<Boolean> complex,
    int timePoints,
    Shown network,
    KeptCalibration.Trust trust,
    String plane,
    List<String> marks) {

  static byte[] bytes(
      JsonMapper json,
      String source,
      long sequence,
      Shown shown,
      KeptCalibration.Trust trust,
      String plane,
      List<String> marks) {
    List<Integer> points = new ArrayList<>();
    List<Boolean> complex = new ArrayList<>();
    int floats = 0;
    for (Curve c : shown.curves()) {
      boolean pair = c.re().length > 0;
      points.add(pair ? c.re().length : c.y().length);
      complex.add(pair);
      floats += pair ? 2 * c.re().length : c.y().length;
    }
    int timePoints = shown.time() == null ? 0 : shown.time().metres().length;
    floats += 2 * timePoints;
    AnalyzerFrame header =
        new AnalyzerFrame(
            source,
            sequence,
            System.currentTimeMillis(),
            shown.frequencyHz().length,
            points,
            complex,
            timePoints,
            shown.withoutArrays(),
            trust,
            plane,
            marks);
    byte[] text = json.writeValueAsBytes(header);
    int padded = (text.length + 4 + 7) / 8 * 8 - 4; // doubles begin at a multiple of eight
    ByteBuffer b =
        ByteBuffer.allocate(4 + padded + 8 * shown.frequencyHz().length + 4 * floats)
            .order(ByteOrder.LITTLE_ENDIAN);
    b.putInt(padded).put(text);
    while (b.position() < 4 + padded) {
      b.put((byte) ' ');
    }
    for (double hz : shown.frequencyHz()) {
      b.putDouble(hz);
    }
    for (Curve c : shown.curves()) {
      for (Double v : c.y()) {
        b.putFloat(v == null ? Float.NaN : v.floatValue());
      }
      put(b, c.re());
      put(b, c.im());
    }
    if (shown.time() != null) {
      put(b, shown.time().metres());
      put(b, shown.time().value());
    }
    return b.array();
  }

  private static void put(ByteBuffer b, double[] values) {
    for (double v : values) {
      b.putFloat((float) v);
    }
  }
}
