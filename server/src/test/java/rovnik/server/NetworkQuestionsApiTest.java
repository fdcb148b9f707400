package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Locale;
import java.util.function.DoubleFunction;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What is asked of networks from files: limits, bands, stability, resonance, cables, changes. */
public class NetworkQuestionsApiTest {
  private RunningServer server;

  @BeforeClass
  public void setUp() {
    server = RunningServer.fresh();
  }

  private long open(String name, String text) {
    return server
        .json(server.upload("/api/networks", RunningServer.Part.of("file", name, text)), 201)
        .get("id")
        .asLong();
  }

  /** A two-port file with one line a frequency. */
  private static String twoPort(double from, double to, int n, DoubleFunction<String> line) {
    StringBuilder text = new StringBuilder("# HZ S RI R 50\n");
    for (int i = 0; i < n; i++) {
      double f = from + i * (to - from) / (n - 1);
      text.append(f).append(' ').append(line.apply(f)).append('\n');
    }
    return text.toString();
  }

  /** Resistance in series: S11 = z / (z + 2), S21 = 2 / (z + 2). */
  private static String series(double ohm) {
    double back = ohm / (ohm + 100);
    double through = 100 / (ohm + 100);
    return String.format(Locale.ROOT, "%.9f 0 %.9f 0 %.9f 0 %.9f 0", back, through, through, back);
  }

  private JsonNode view(long id, String more, int status) {
    return server.json(
        server.send(
            "POST",
            "/api/networks/view",
            "{\"networks\":["
                + id
                + "],\"panes\":[{\"row\":2,\"column\":1,\"format\":\"LOG_MAGNITUDE\"}]"
                + more
                + "}"),
        status);
  }

  private JsonNode one(long id, String more) {
    return view(id, more, 200).get("networks").get(0);
  }

  private static JsonNode reading(JsonNode network, int band, String id) {
    for (JsonNode r : network.get("bands").get(band).get("readings")) {
      if (r.get("id").asString().equals(id)) {
        return r;
      }
    }
    throw new AssertionError("no reading " + id);
  }

  /** 1.68 kohm in series is 25 dB (common practice): just enough, 1.5 kohm is not. */
  @Test
  public void limitsAndBandsAreAnswered() {
    long good = open("good.s2p", twoPort(1e6, 30e6, 30, f -> series(1690)));
    String limit =
        ",\"limits\":[{\"name\":\"enough\",\"row\":2,\"column\":1,\"format\":\"LOG_MAGNITUDE\","
            + "\"upper\":true,\"fromHz\":3e6,\"toHz\":30e6,\"fromValue\":-25,\"toValue\":-25}]";
    JsonNode n = one(good, limit + ",\"bands\":[{\"name\":\"low\",\"fromHz\":1e6,\"toHz\":2e6}]");
    assertEquals(n.get("verdict").asString(), "PASS");
    assertEquals(n.get("outcomes").get(0).get("margin").asDouble(), 0.05, 0.01);
    assertEquals(reading(n, 0, "seriesImpedance").get("value").asDouble(), 1690, 0.01);
    assertTrue(
        reading(n, 0, "gainLowest").get("uncertainty").isNull(), "of a file it is not known");
    long bad = open("bad.s2p", twoPort(1e6, 30e6, 30, f -> series(1500)));
    assertEquals(one(bad, limit).get("verdict").asString(), "FAIL");
    JsonNode none = one(bad, ",\"bands\":[{\"name\":\"far\",\"fromHz\":1e9,\"toHz\":2e9}]");
    assertEquals(none.get("bands").get(0).get("readings").size(), 0);
    assertTrue(none.get("notes").get(0).asString().contains("No point lies in"));
    JsonNode wrong = view(bad, limit.replace("\"toHz\":30e6", "\"toHz\":1e6"), 400);
    assertEquals(wrong.get("field").asString(), "toHz");
  }

  /** Pozar's transistor (from memory, recomputed): K 0.607, load circle 1.363 / 46.7, 0.500. */
  @Test
  public void stabilityIsToldAtTheMarkers() {
    String line =
        String.join(
            " ", polar(0.894, -60.6), polar(3.122, 123.6), polar(0.020, 62.4), polar(0.781, -27.6));
    long id = open("transistor.s2p", twoPort(2e9, 2.1e9, 2, f -> line));
    JsonNode d = one(id, ",\"detailHz\":[2e9]").get("details").get(0);
    assertEquals(d.get("stabilityK").asDouble(), 0.607, 0.001);
    assertEquals(d.get("stabilityMu").asDouble(), 0.863, 0.001);
    assertEquals(d.get("loadRadius").asDouble(), 0.500, 0.002);
    double re = d.get("loadCircle").get("re").asDouble();
    double im = d.get("loadCircle").get("im").asDouble();
    assertEquals(Math.hypot(re, im), 1.363, 0.003);
    assertEquals(Math.toDegrees(Math.atan2(im, re)), 46.7, 0.2);
    assertTrue(d.get("maximumGainDb").isNull(), "there is none: it is not stable");
    assertTrue(d.get("matchedSource").isNull());
    assertEquals(d.get("stableGainDb").asDouble(), 20 * Math.log10(3.122 / 0.020), 0.01);
  }

  private static String polar(double size, double degrees) {
    double a = Math.toRadians(degrees);
    return String.format(Locale.ROOT, "%.9f %.9f", size * Math.cos(a), size * Math.sin(a));
  }

  @Test
  public void partsArePutOnReckonedWithAndMatched() {
    long a = open("a.s2p", twoPort(1e6, 3e6, 3, f -> series(50)));
    long b = open("b.s2p", twoPort(1e6, 3e6, 3, f -> series(25)));
    // 50 and 25 ohm in series are 75: 100 / 175.
    double both = 20 * Math.log10(100 / 175.0);
    JsonNode row = one(a, ",\"change\":{\"firstAdded\":" + b + "}");
    assertEquals(row.get("curves").get(0).get("y").get(1).asDouble(), both, 1e-6);
    JsonNode behind = one(a, ",\"change\":{\"lastAdded\":" + b + "}");
    assertEquals(behind.get("curves").get(0).get("y").get(1).asDouble(), both, 1e-6);
    JsonNode element =
        one(
            a,
            ",\"change\":{\"elements\":[{\"place\":\"SERIES\",\"part\":\"RESISTOR\",\"value\":25}]}");
    assertEquals(element.get("curves").get(0).get("y").get(1).asDouble(), both, 1e-6);
    JsonNode off = one(a, ",\"change\":{\"firstAdded\":" + b + ",\"firstPart\":" + a + "}");
    assertEquals(
        off.get("curves").get(0).get("y").get(1).asDouble(), 20 * Math.log10(100 / 125.0), 1e-6);
    JsonNode ratio = one(a, ",\"memory\":" + b + ",\"math\":\"OVER\"");
    assertEquals(
        ratio.get("curves").get(0).get("y").get(1).asDouble(), 20 * Math.log10(125 / 150.0), 1e-6);
    JsonNode wrong =
        view(
            a,
            ",\"change\":{\"elements\":[{\"place\":\"SERIES\",\"part\":\"RESISTOR\",\"value\":-1}]}",
            400);
    assertEquals(wrong.get("field").asString(), "element");
    JsonNode two = view(a, ",\"change\":{\"balanced\":[1,3,2,4]}", 400);
    assertEquals(two.get("field").asString(), "mixedMode");
  }

  /** A series circuit between the ports, in closed form: 1 uH, 1 nF, 5 ohm. */
  @Test
  public void resonancesAndCablesAreRead() {
    double l = 1e-6;
    double c = 1e-9;
    double f0 = 1 / (2 * Math.PI * Math.sqrt(l * c));
    DoubleFunction<String> line =
        f -> {
          double x = 2 * Math.PI * f * l - 1 / (2 * Math.PI * f * c);
          double below = 105 * 105 + x * x;
          double re = (5 * 105 + x * x) / below;
          double im = (x * 105 - 5 * x) / below;
          return String.format(
              Locale.ROOT,
              "%.12f %.12f %.12f %.12f %.12f %.12f %.12f %.12f",
              re,
              im,
              1 - re,
              -im,
              1 - re,
              -im,
              re,
              im);
        };
    long id = open("circuit.s2p", twoPort(0.9 * f0, 1.1 * f0, 801, line));
    String ask =
        ",\"resonance\":{\"connection\":\"BETWEEN_PORTS\",\"series\":true,\"fromHz\":1,\"toHz\":1e12}";
    JsonNode r = one(id, ask).get("resonance");
    assertEquals(r.get("hertz").asDouble(), f0, 1e-5 * f0);
    assertEquals(r.get("henry").asDouble(), l, 1e-4 * l);
    assertEquals(r.get("farad").asDouble(), c, 1e-4 * c);
    assertEquals(r.get("ohm").asDouble(), 5, 1e-3);
    JsonNode none = one(id, ask.replace("\"series\":true", "\"series\":false"));
    assertTrue(none.get("resonance").isNull());
    assertTrue(none.get("notes").get(0).asString().contains("No resonance"));
    double seconds = 10 / (0.66 * 299_792_458);
    long cable =
        open(
            "cable.s2p",
            twoPort(
                1e6,
                100e6,
                100,
                f -> {
                  double a = -2 * Math.PI * f * seconds;
                  String t =
                      String.format(
                          Locale.ROOT, "%.12f %.12f", 0.9 * Math.cos(a), 0.9 * Math.sin(a));
                  return "0 0 " + t + " " + t + " 0 0";
                }));
    JsonNode figures = one(cable, ",\"cableMetres\":10").get("cable");
    assertEquals(figures.get("velocityFactor").asDouble(), 0.66, 1e-6);
    assertEquals(figures.get("lossDbPerMetre").asDouble(), -2 * Math.log10(0.9), 1e-6);
  }

  /** An element of a path takes its gain from S21 and its match from S11. */
  @Test
  public void aFileGivesAnElementItsMatch() {
    long id = open("pad.s2p", twoPort(1e6, 200e6, 5, f -> "0.05 0 0.3 0 0.3 0 0.05 0"));
    JsonNode job =
        server.json(server.send("POST", "/api/jobs", "{\"name\":\"j\",\"dut\":\"d\"}"), 201);
    String element =
        "{\"name\":\"%s\",\"kind\":\"%s\",\"gainKind\":\"%s\",\"gainDb\":0,\"gainTable\":\"\","
            + "\"toleranceDb\":0,\"dcAllowed\":true%s}";
    String elements =
        String.format(element, "TX", "SOURCE", "number", ",\"outputLevelDbm\":0")
            + ","
            + String.format(element, "Pad", "PAD", "file", ",\"networkId\":" + id)
            + ","
            + String.format(element, "RX", "PORT", "number", "");
    JsonNode saved =
        server.json(
            server.send(
                "PUT",
                "/api/jobs/" + job.get("id").asLong() + "/path",
                "{\"elements\":[" + elements + "],\"readingPlane\":0,\"revision\":0}"),
            200);
    JsonNode pad = saved.get("path").get("elements").get(1);
    assertEquals(pad.get("returnLossDb").asDouble(), -20 * Math.log10(0.05), 1e-6);
    String url = "/api/jobs/" + job.get("id").asLong() + "/network";
    assertEquals(server.json(server.get(url), 200).get("limits").size(), 0);
    JsonNode bad =
        server.json(
            server.send("PUT", url, "{\"bands\":[{\"name\":\"\",\"fromHz\":1,\"toHz\":2}]}"), 400);
    assertEquals(bad.get("field").asString(), "bands");
    assertEquals(server.get("/api/jobs/999/network").statusCode(), 200, "nothing asked yet");
    server.json(server.send("PUT", "/api/jobs/999/network", "{}"), 404);
  }
}
