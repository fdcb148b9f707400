package rovnik.server.runs;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.flywaydb.core.api.MigrationVersion;
import org.flywaydb.core.api.migration.Context;
import org.flywaydb.core.api.migration.JavaMigration;
import org.springframework.stereotype.Component;
import rovnik.core.emission.SpectrumOutcome;
import rovnik.core.result.Fact;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.Series;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.Trace;
import rovnik.core.spectrum.TraceSeries;
import rovnik.server.results.ArrayBlob;
import rovnik.server.results.OutcomeDto;
import rovnik.server.results.ReadingDto;
import rovnik.server.results.SeriesDto;
import rovnik.server.results.TableDto;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * Turns runs from before outcomes into runs with one: what lay in columns and traces of a spectrum
 * becomes an outcome of the kind that it really was. Limits of all kinds come to one place.
 */
@Component
class OutcomeMigration implements JavaMigration {
  private static final Map<String, String> KINDS =
      Map.of(
          "Auto frame", "auto-frame",
          "Whose line is it?", "whose-line",
          "Harmonics", "harmonics",
          "Drive against harmonics", "drive-sweep",
          "Phase noise", "phase-noise",
          "Spurious survey", "survey",
          "Quasi-peak and average", "weighted",
          "Noise figure by the Y factor", "noise-figure");

  private static final String FOUND_BY = "found by";
  private static final String SUMMARY = "summary";

  private final JsonMapper json;

  OutcomeMigration(JsonMapper json) {
    this.json = json;
  }

  @Override
  public MigrationVersion getVersion() {
    return MigrationVersion.fromVersion("7");
  }

  @Override
  public String getDescription() {
    return "runs with outcomes";
  }

  @Override
  public Integer getChecksum() {
    return null;
  }

  @Override
  public boolean canExecuteInTransaction() {
    return true;
  }

  /** A run as it was stored. */
  private record Old(
      long id,
      String settings,
      String conditions,
      String readings,
      String peaks,
      String extras,
      boolean network) {}

  /** A trace as it was stored. */
  private record OldTrace(String label, Trace trace) {}

  @Override
  public void migrate(Context context) throws SQLException {
    Connection c = context.getConnection();
    List<Old> runs = new ArrayList<>();
    try (PreparedStatement s =
            c.prepareStatement(
                "select id, settings_json, conditions_json, readings_json, peaks_json,"
                    + " extras_json, network_id from run order by id");
        ResultSet r = s.executeQuery()) {
      while (r.next()) {
        runs.add(
            new Old(
                r.getLong(1),
                r.getString(2),
                r.getString(3),
                r.getString(4),
                r.getString(5),
                r.getString(6),
                r.getObject(7) != null));
      }
    }
    for (Old run : runs) {
      move(c, run);
    }
    limits(c);
    setupNames(c);
  }

  /** A name was unique in a job; now it is in a job and a kind of measurement. */
  private static void setupNames(Connection c) throws SQLException {
    List<String> old = new ArrayList<>();
    try (PreparedStatement s =
            c.prepareStatement(
                "select constraint_name from information_schema.table_constraints where"
                    + " table_name = 'SETUP' and constraint_type = 'UNIQUE'"
                    + " and constraint_name <> 'SETUP_NAME'");
        ResultSet r = s.executeQuery()) {
      while (r.next()) {
        old.add(r.getString(1));
      }
    }
    for (String name : old) {
      try (PreparedStatement s =
          c.prepareStatement("alter table setup drop constraint \"" + name + "\"")) {
        s.execute();
      }
    }
  }

  private void move(Connection c, Old run) throws SQLException {
    ObjectNode conditions = (ObjectNode) json.readTree(run.conditions());
    ObjectNode settings = (ObjectNode) json.readTree(run.settings());
    List<OldTrace> traces = traces(c, run.id());
    Outcome outcome = outcome(run, conditions, traces);
    List<Fact> words = run.network() ? List.of() : words(settings);
    if (run.network()) {
      settings = sweep(traces.get(0).trace(), settings);
    }
    conditions.remove(List.of(FOUND_BY, SUMMARY));
    RunPicture picture = RunPicture.of(outcome);
    try (PreparedStatement s =
        c.prepareStatement(
            "update run set kind = ?, words_json = ?, settings_json = ?, conditions_json = ?,"
                + " outcome_json = ?, headline = ?, unit = ?, picture_json = ? where id = ?")) {
      s.setString(1, outcome.kind());
      s.setString(2, json.writeValueAsString(words.stream().map(SeriesDto.FactDto::of).toList()));
      s.setString(3, json.writeValueAsString(settings));
      s.setString(4, json.writeValueAsString(conditions));
      s.setString(5, json.writeValueAsString(OutcomeDto.head(outcome)));
      s.setString(6, picture.headline());
      s.setString(7, picture.unit());
      s.setString(8, json.writeValueAsString(picture.points()));
      s.setLong(9, run.id());
      s.executeUpdate();
    }
    try (PreparedStatement s =
        c.prepareStatement(
            "insert into run_array (run_id, name, type, points, crc32, deflated)"
                + " values (?, ?, ?, ?, ?, ?)")) {
      for (Map.Entry<String, ArrayBlob> e : RunArrays.of(outcome).blobs().entrySet()) {
        s.setLong(1, run.id());
        s.setString(2, e.getKey());
        s.setString(3, e.getValue().type());
        s.setInt(4, e.getValue().points());
        s.setLong(5, e.getValue().crc32());
        s.setBytes(6, e.getValue().deflated());
        s.executeUpdate();
      }
    }
  }

  private static List<OldTrace> traces(Connection c, long run) throws SQLException {
    List<OldTrace> traces = new ArrayList<>();
    try (PreparedStatement s =
        c.prepareStatement(
            "select label, start_hz, step_hz, unit, plane, rbw_hz, enbw_hz, segments, window_name,"
                + " detector, points, crc32, level_deflated from run_trace where run_id = ?"
                + " order by position")) {
      s.setLong(1, run);
      try (ResultSet r = s.executeQuery()) {
        while (r.next()) {
          traces.add(
              new OldTrace(
                  r.getString(1),
                  new Trace(
                      r.getDouble(2),
                      r.getDouble(3),
                      new ArrayBlob("f32", r.getInt(11), r.getLong(12), r.getBytes(13)).floats(),
                      r.getString(4),
                      r.getString(5),
                      r.getDouble(6),
                      r.getDouble(7),
                      r.getInt(8),
                      r.getString(9),
                      r.getString(10),
                      !r.getString(4).equals("dBFS"))));
        }
      }
    }
    return traces;
  }

  private Outcome outcome(Old run, JsonNode conditions, List<OldTrace> traces) {
    JsonNode extras = json.readTree(run.extras());
    List<Reading> readings = new ArrayList<>();
    for (JsonNode r : json.readTree(run.readings())) {
      readings.add(json.treeToValue(r, ReadingDto.class).toCore());
    }
    List<ResultTable> tables = new ArrayList<>();
    for (JsonNode t : extras.path("tables")) {
      tables.add(json.treeToValue(t, TableDto.class).toCore());
    }
    List<Series> curves = new ArrayList<>();
    for (JsonNode line : extras.path("limitLines")) {
      curves.add(curve(line, curves.size()));
    }
    Trace main = traces.get(0).trace();
    List<Series> series = new ArrayList<>();
    if (run.network()) {
      for (OldTrace t : traces) {
        series.add(networkSeries(t.trace()));
      }
      return new Outcome(
          "network", "S-parameters", "", series, tables, readings, List.of(), List.of());
    }
    String found = conditions.path(FOUND_BY).asString("");
    if (!found.isEmpty()) {
      series.addAll(curves);
      if (curves.stream().noneMatch(s -> s.x().unit().equals("Hz") && s.unit().equals("dBm"))) {
        series.add(TraceSeries.of("trace", "the spectrum it goes back to", main));
      }
      return new Outcome(
          KINDS.getOrDefault(found, "finding"),
          found,
          conditions.path(SUMMARY).asString(""),
          series,
          tables,
          readings,
          List.of(),
          List.of());
    }
    series.add(TraceSeries.of("trace", "", main));
    for (int i = 1; i < traces.size(); i++) {
      series.add(TraceSeries.of("row" + (i - 1), traces.get(i).label(), traces.get(i).trace()));
    }
    series.addAll(curves);
    tables.add(0, TraceSeries.lines(peaks(run), main.unit()));
    return new Outcome(
        SpectrumOutcome.KIND,
        SpectrumOutcome.TITLE,
        "",
        series,
        tables,
        readings,
        List.of(),
        List.of());
  }

  private List<Peak> peaks(Old run) {
    List<Peak> peaks = new ArrayList<>();
    for (JsonNode p : json.readTree(run.peaks())) {
      peaks.add(new Peak(p.path("frequencyHz").asDouble(), p.path("level").asDouble()));
    }
    return peaks;
  }

  private static Series networkSeries(Trace t) {
    return TraceSeries.of(t.detector(), t.detector() + " magnitude", t).of("Magnitude");
  }

  /** A curve of before; several of a mask had one id. */
  private static Series curve(JsonNode c, int number) {
    String id = c.path("id").asString();
    boolean limit = id.equals("mask") || id.equals("limit");
    boolean edge = id.startsWith("occupied");
    double[] x = numbers(c.path("x"));
    String unit = c.path("xUnit").asString();
    rovnik.core.result.Axis axis =
        rovnik.core.result.Axis.own(
            unit.equals("Hz") ? rovnik.core.result.Axis.FREQUENCY : "", unit, x);
    return Series.curve(
            limit || id.startsWith("range") ? id + "-" + number : id,
            c.path("label").asString(),
            id.equals("phaseNoise") ? axis.overDecades() : axis,
            numbers(c.path("y")),
            c.path("yUnit").asString())
        .as(limit ? Series.Role.LIMIT : edge ? Series.Role.EDGE : Series.Role.DATA);
  }

  private static double[] numbers(JsonNode array) {
    double[] all = new double[array.size()];
    for (int i = 0; i < all.length; i++) {
      // What was not known was written as the word "NaN".
      all[i] = array.get(i).isNumber() ? array.get(i).asDouble() : Double.NaN;
    }
    return all;
  }

  private static List<Fact> words(JsonNode s) {
    return List.of(
        Fact.of("centre", s.path("centreHz").asDouble(), "Hz"),
        Fact.of("span", s.path("spanHz").asDouble(), "Hz"),
        s.path("rbwHz").asDouble() > 0
            ? Fact.of("RBW asked for", s.path("rbwHz").asDouble(), "Hz")
            : Fact.of("RBW asked for", "automatic"),
        Fact.of("window", label(s.path("window").asString())),
        Fact.of("detector", label(s.path("detector").asString())),
        Fact.of("averages", s.path("averages").asDouble(), ""),
        Fact.of("reference level", s.path("referenceLevelDbm").asDouble(), "dBm"),
        Fact.of("channel width", s.path("channelWidthHz").asDouble(), "Hz"));
  }

  private static String label(String name) {
    for (rovnik.core.signal.Window w : rovnik.core.signal.Window.values()) {
      if (w.name().equals(name)) {
        return w.label();
      }
    }
    for (rovnik.core.spectrum.Detector d : rovnik.core.spectrum.Detector.values()) {
      if (d.name().equals(name)) {
        return d.label();
      }
    }
    return name;
  }

  /** The sweep of a network, as far as its trace still knows. */
  private ObjectNode sweep(Trace t, JsonNode old) {
    Map<String, Object> sweep = new LinkedHashMap<>();
    sweep.put("startHz", t.startHz());
    sweep.put("stopHz", t.stopHz());
    sweep.put("points", t.points());
    sweep.put("type", "LINEAR");
    sweep.put("segments", List.of());
    sweep.put("bandwidthHz", t.rbwHz());
    sweep.put("averages", Math.max(1, t.segments()));
    sweep.put("powerDbm", old.path("referenceLevelDbm").asDouble());
    sweep.put("bothPorts", true);
    return json.valueToTree(Map.of("sweep", sweep));
  }

  private void limits(Connection c) throws SQLException {
    List<Object[]> rows = new ArrayList<>();
    try (PreparedStatement s =
            c.prepareStatement(
                "select job_id, nominal_hz, frequency_tolerance_ppm, nominal_level_dbm,"
                    + " level_minus_db, level_plus_db from limit_set");
        ResultSet r = s.executeQuery()) {
      while (r.next()) {
        Map<String, Object> carrier = new LinkedHashMap<>();
        carrier.put("nominalHz", r.getObject(2));
        carrier.put("frequencyTolerancePpm", r.getObject(3));
        carrier.put("nominalLevelDbm", r.getObject(4));
        carrier.put("levelMinusDb", r.getObject(5));
        carrier.put("levelPlusDb", r.getObject(6));
        rows.add(new Object[] {r.getLong(1), "carrier", json.writeValueAsString(carrier)});
      }
    }
    try (PreparedStatement s = c.prepareStatement("select job_id, settings_json from job_network");
        ResultSet r = s.executeQuery()) {
      while (r.next()) {
        rows.add(new Object[] {r.getLong(1), "network", r.getString(2)});
      }
    }
    try (PreparedStatement s =
        c.prepareStatement("insert into job_limits (job_id, kind, json) values (?, ?, ?)")) {
      for (Object[] row : rows) {
        s.setLong(1, (Long) row[0]);
        s.setString(2, (String) row[1]);
        s.setString(3, (String) row[2]);
        s.executeUpdate();
      }
    }
  }
}
