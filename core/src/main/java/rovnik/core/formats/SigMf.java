package rovnik.core.formats;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import rovnik.core.Refusal;
import rovnik.core.uncertainty.InstrumentAccuracy;

/**
 * The metadata of a SigMF recording (SigMF specification 1.x) that Rovnik uses. The JSON text is
 * read and written outside; here it is a tree of maps, lists, strings and numbers.
 *
 * @param format of the samples
 * @param sampleRateHz samples per second
 * @param centreHz centre frequency, 0 if the file does not say
 * @param fullScaleDbm level of a full-scale tone at the instrument's port, NaN without calibration
 * @param description free text, may be ""
 * @param recordedAt ISO 8601 time or ""
 * @param hardware what recorded it, may be ""
 * @param accuracy of level and frequency, as far as it is known
 */
public record SigMf(
    SampleFormat format,
    double sampleRateHz,
    double centreHz,
    double fullScaleDbm,
    String description,
    String recordedAt,
    String hardware,
    InstrumentAccuracy accuracy) {

  /** Highest believable rate. */
  public static final double HIGHEST_RATE_HZ = 1e12;

  private static final String FULL_SCALE = "rovnik:full_scale_dbm";
  private static final String LEVEL = "rovnik:level_accuracy_db";
  private static final String FREQUENCY = "rovnik:frequency_accuracy";
  private static final String LINEARITY = "rovnik:linearity_db";
  private static final String ERROR_FLOOR = "rovnik:error_floor_db";

  /**
   * Reads the metadata.
   *
   * @param tree the parsed JSON object
   * @throws Refusal naming the field
   */
  public static SigMf fromTree(Map<?, ?> tree) {
    if (!(tree.get("global") instanceof Map<?, ?> global)) {
      throw new Refusal(
          "global",
          "This is not SigMF metadata: there is no \"global\" object. Choose the .sigmf-meta file.");
    }
    if (global.get("core:num_channels") instanceof Number channels && channels.intValue() != 1) {
      throw new Refusal(
          "core:num_channels",
          "The recording holds " + channels + " channels; split it into one file a channel.");
    }
    if (!(global.get("core:datatype") instanceof String datatype)) {
      throw new Refusal(
          "core:datatype",
          "The metadata does not say the sample type. Add \"core:datatype\", such as \"cf32_le\".");
    }
    if (!(global.get("core:sample_rate") instanceof Number rate)) {
      throw new Refusal(
          "core:sample_rate",
          "The metadata does not give the sample rate as a number. Add \"core:sample_rate\" in Hz.");
    }
    double rateHz = rate.doubleValue();
    if (!(rateHz > 0) || rateHz > HIGHEST_RATE_HZ) {
      throw new Refusal(
          "core:sample_rate",
          "A sample rate of " + rate + " Hz cannot be right; it must be above 0 and at most 1e12.");
    }
    double centre = 0;
    String recordedAt = "";
    if (tree.get("captures") instanceof List<?> captures
        && !captures.isEmpty()
        && captures.get(0) instanceof Map<?, ?> first) {
      if (first.get("core:frequency") instanceof Number f) {
        centre = Refusal.finite("core:frequency", f.doubleValue());
      }
      if (first.get("core:datetime") instanceof String when) {
        recordedAt = when;
      }
      if (first.get("core:header_bytes") instanceof Number header && header.longValue() != 0) {
        throw new Refusal(
            "core:header_bytes", "Recordings with a header inside the data cannot be read.");
      }
    }
    double fullScale = Double.NaN;
    if (global.get(FULL_SCALE) instanceof Number level) {
      fullScale = Refusal.finite(FULL_SCALE, level.doubleValue());
    }
    return new SigMf(
        SampleFormat.parse(datatype),
        rateHz,
        centre,
        fullScale,
        text(global.get("core:description")),
        recordedAt,
        text(global.get("core:hw")),
        new InstrumentAccuracy(
            plusOrMinus(global, LEVEL),
            plusOrMinus(global, FREQUENCY),
            plusOrMinus(global, LINEARITY),
            errorFloor(global)));
  }

  /** Error vector magnitude that the receiver has by itself; NaN if it is not given. */
  private static double errorFloor(Map<?, ?> global) {
    if (!(global.get(ERROR_FLOOR) instanceof Number n)) {
      return Double.NaN;
    }
    double value = n.doubleValue();
    if (!(value >= -200 && value <= 0)) {
      throw new Refusal(
          ERROR_FLOOR, ERROR_FLOOR + " is how large it may be against the signal: -200 to 0 dB.");
    }
    return value;
  }

  /** How far off something may be, plus or minus; NaN if it is not given. */
  private static double plusOrMinus(Map<?, ?> global, String key) {
    if (!(global.get(key) instanceof Number n)) {
      return Double.NaN;
    }
    double value = Refusal.finite(key, n.doubleValue());
    if (!(value >= 0 && value <= 100)) {
      throw new Refusal(key, key + " is how far off it may be: 0 to 100.");
    }
    return value;
  }

  /** The metadata as a tree to be written as JSON. */
  public Map<String, Object> toTree() {
    Map<String, Object> global = new LinkedHashMap<>();
    global.put("core:datatype", format.datatype());
    global.put("core:sample_rate", sampleRateHz);
    global.put("core:version", "1.2.0");
    putText(global, "core:description", description);
    putText(global, "core:hw", hardware);
    global.put("core:recorder", "Rovnik");
    Map<String, Object> own = new LinkedHashMap<>();
    putNumber(own, FULL_SCALE, fullScaleDbm);
    putNumber(own, LEVEL, accuracy.levelDb());
    putNumber(own, FREQUENCY, accuracy.frequencyRelative());
    putNumber(own, LINEARITY, accuracy.linearityDb());
    putNumber(own, ERROR_FLOOR, accuracy.errorFloorDb());
    if (!own.isEmpty()) {
      global.put(
          "core:extensions",
          List.of(Map.of("name", "rovnik", "version", "1.0.0", "optional", true)));
      global.putAll(own);
    }
    Map<String, Object> capture = new LinkedHashMap<>();
    capture.put("core:sample_start", 0);
    capture.put("core:frequency", centreHz);
    putText(capture, "core:datetime", recordedAt);
    Map<String, Object> tree = new LinkedHashMap<>();
    tree.put("global", global);
    tree.put("captures", List.of(capture));
    tree.put("annotations", List.of());
    return tree;
  }

  /**
   * Number of samples in a data file of this length.
   *
   * @throws Refusal if the file is empty or ends inside a sample
   */
  public long samplesIn(long bytes) {
    if (bytes == 0) {
      throw new Refusal("data", "The data file is empty. Choose the .sigmf-data file.");
    }
    if (bytes % format.bytesPerSample() != 0) {
      throw new Refusal(
          "data",
          "The data file is cut off or of another type: "
              + bytes
              + " bytes is not a whole number of "
              + format.bytesPerSample()
              + "-byte "
              + format.datatype()
              + " samples.");
    }
    return bytes / format.bytesPerSample();
  }

  private static String text(Object value) {
    return value instanceof String s ? s : "";
  }

  private static void putNumber(Map<String, Object> map, String key, double value) {
    if (!Double.isNaN(value)) {
      map.put(key, value);
    }
  }

  private static void putText(Map<String, Object> map, String key, String value) {
    if (!value.isEmpty()) {
      map.put(key, value);
    }
  }
}
