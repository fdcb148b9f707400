package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Locale;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.server.RunningServer.Part;
import tools.jackson.databind.JsonNode;

/** Files as the Network screen draws them, against closed forms. */
public class NetworkViewApiTest {
  private RunningServer server;
  private long line;
  private long one;

  @BeforeClass
  public void setUp() {
    server = RunningServer.fresh();
    // A matched line of 10 ns with a reflection of 0.2 behind it, and a short behind 2 ns.
    StringBuilder two = new StringBuilder("# MHz S RI R 50\n");
    StringBuilder single = new StringBuilder("# MHz S RI R 50\n");
    for (int i = 1; i <= 500; i++) {
      double a = -2 * Math.PI * i * 1e6 * 10e-9;
      two.append(
          String.format(
              Locale.ROOT,
              "%d %.9f %.9f %.9f %.9f %.9f %.9f 0 0%n",
              i,
              0.2 * Math.cos(2 * a),
              0.2 * Math.sin(2 * a),
              Math.cos(a),
              Math.sin(a),
              Math.cos(a),
              Math.sin(a)));
      double b = -4 * Math.PI * i * 1e6 * 2e-9;
      single.append(String.format(Locale.ROOT, "%d %.9f %.9f%n", i, -Math.cos(b), -Math.sin(b)));
    }
    line = open("line.s2p", two.toString());
    one = open("short.s1p", single.toString());
  }

  private long open(String name, String text) {
    return server
        .json(server.upload("/api/networks", Part.of("file", name, text)), 201)
        .get("id")
        .asLong();
  }

  private JsonNode view(String more, int status) {
    return server.json(
        server.send("POST", "/api/networks/view", "{\"networks\":[" + line + "]," + more + "}"),
        status);
  }

  private static JsonNode curve(JsonNode reply, int pane) {
    return reply.get("networks").get(0).get("curves").get(pane);
  }

  /** More points than any screen has are thinned for the picture, not for the numbers. */
  @Test
  public void aVeryLongFileIsThinnedForThePictureAlone() {
    StringBuilder text = new StringBuilder("# kHz S RI R 50\n");
    for (int i = 1; i <= 100_000; i++) {
      text.append(i).append(i == 77_777 ? " 0.5 0\n" : " 0.1 0\n");
    }
    long id = open("long.s1p", text.toString());
    JsonNode n =
        server
            .json(
                server.send(
                    "POST",
                    "/api/networks/view",
                    "{\"networks\":["
                        + id
                        + "],\"panes\":[{\"row\":1,\"column\":1,\"format\":\"VSWR\"}],"
                        + "\"bands\":[{\"name\":\"\",\"fromHz\":0,\"toHz\":1e12}]}"),
                200)
            .get("networks")
            .get(0);
    int drawn = n.get("frequencyHz").size();
    assertEquals(drawn, 33_334);
    assertEquals(n.get("curves").get(0).get("y").size(), drawn);
    assertEquals(n.get("frequencyHz").get(1).asDouble(), 4e3);
    assertTrue(n.get("notes").get(0).asString().contains("33334 are drawn"), n.get("notes") + "");
    JsonNode vswr = null;
    for (JsonNode r : n.get("bands").get(0).get("readings")) {
      vswr = r.get("id").asString().equals("vswr1") ? r : vswr;
    }
    assertEquals(vswr.get("value").asDouble(), 3.0, 1e-9);
    assertEquals(vswr.get("atHz").asDouble(), 77.777e6, 1);
  }

  @Test
  public void panesShowWhatTheyAreAskedFor() {
    JsonNode r =
        view(
            "\"panes\":[{\"row\":2,\"column\":1,\"format\":\"GROUP_DELAY\"},"
                + "{\"row\":1,\"column\":1,\"format\":\"VSWR\"},"
                + "{\"row\":1,\"column\":1,\"format\":\"COMPLEX\"}]",
            200);
    assertEquals(curve(r, 0).get("y").get(100).asDouble(), 10e-9, 1e-15);
    assertEquals(curve(r, 0).get("unit").asString(), "s");
    assertEquals(curve(r, 1).get("y").get(7).asDouble(), 1.5, 1e-6);
    double re = curve(r, 2).get("re").get(49).asDouble();
    double im = curve(r, 2).get("im").get(49).asDouble();
    assertEquals(Math.hypot(re, im), 0.2, 1e-6);
  }

  /** 20 ns there and back at a velocity factor of 0.85: 2.548 m. */
  @Test
  public void theReflectionIsFoundAtItsDistance() {
    JsonNode time =
        view(
                "\"time\":{\"row\":1,\"column\":1,\"mode\":\"IMPULSE\",\"shape\":\"BALANCED\",\"velocityFactor\":0.85}",
                200)
            .get("networks")
            .get(0)
            .get("time");
    assertEquals(time.get("faults").size(), 1);
    JsonNode fault = time.get("faults").get(0);
    assertEquals(fault.get("metres").asDouble(), 299792458 * 0.85 * 10e-9, 0.03);
    assertEquals(fault.get("reflection").asDouble(), 0.2, 0.005);
    assertEquals(fault.get("ohm").asDouble(), 75, 1);
    assertEquals(fault.get("kind").asString(), "higher impedance");
    assertEquals(time.get("rangeMetres").asDouble(), 299792458 * 0.85 / 2e6, 0.1);
  }

  /** A gate that leaves the reflection out leaves nothing of S11; S21 is not touched. */
  @Test
  public void theGateTakesTheReflectionAway() {
    String time =
        "\"time\":{\"row\":1,\"column\":1,\"mode\":\"BAND_PASS\",\"shape\":\"SHARP\",\"velocityFactor\":0.85,\"gate\":{\"fromMetres\":%s,\"toMetres\":%s}},";
    String panes =
        "\"panes\":[{\"row\":1,\"column\":1,\"format\":\"LINEAR\"},{\"row\":2,\"column\":1,\"format\":\"LINEAR\"}]";
    JsonNode out = view(time.formatted("6", "12") + panes, 200);
    assertTrue(curve(out, 0).get("y").get(250).asDouble() < 0.002);
    assertEquals(curve(out, 1).get("y").get(250).asDouble(), 1, 1e-6);
    JsonNode in = view(time.formatted("1", "5") + panes, 200);
    assertEquals(curve(in, 0).get("y").get(250).asDouble(), 0.2, 0.002);
  }

  /** The short's extension is found, and puts it back to its plane; the reference moves Z not. */
  @Test
  public void correctionsAreApplied() {
    JsonNode e = server.json(server.get("/api/networks/" + one + "/extension?port=1"), 200);
    assertEquals(e.get("delaySeconds").asDouble(), 2e-9, 1e-14);
    JsonNode r =
        server.json(
            server.send(
                "POST",
                "/api/networks/view",
                "{\"networks\":[%d],\"panes\":[{\"row\":1,\"column\":1,\"format\":\"COMPLEX\"}],\"change\":{\"extensions\":[%s]}}"
                    .formatted(one, e)),
            200);
    assertEquals(curve(r, 0).get("re").get(300).asDouble(), -1, 1e-5);
    JsonNode moved =
        view(
            "\"panes\":[{\"row\":1,\"column\":1,\"format\":\"RESISTANCE\"}],\"change\":{\"referenceOhm\":75}",
            200);
    JsonNode plain = view("\"panes\":[{\"row\":1,\"column\":1,\"format\":\"RESISTANCE\"}]", 200);
    // With port 2 closed by another resistance S11 changes; the matched side stays physical.
    assertTrue(moved.get("networks").get(0).get("z0").get(0).asDouble() == 75);
    assertTrue(plain.get("networks").get(0).get("z0").get(0).asDouble() == 50);
    JsonNode off =
        view(
            "\"panes\":[{\"row\":2,\"column\":1,\"format\":\"GROUP_DELAY\"}],\"change\":{\"extensions\":[{\"delaySeconds\":4e-9,\"lossDb\":0,\"atHz\":1e9},{\"delaySeconds\":1e-9,\"lossDb\":0,\"atHz\":1e9}]}",
            200);
    assertEquals(curve(off, 0).get("y").get(9).asDouble(), 5e-9, 1e-14);
  }

  @DataProvider
  public Object[][] wrong() {
    return new Object[][] {
      {"\"panes\":[{\"row\":2,\"column\":1,\"format\":\"VSWR\"}]", "format"},
      {"\"panes\":[{\"row\":1,\"column\":1,\"format\":\"WAVY\"}]", "format"},
      {"\"panes\":[{\"row\":0,\"column\":1,\"format\":\"REAL\"}]", "parameter"},
      {"\"smoothing\":0.9,\"panes\":[{\"row\":1,\"column\":1,\"format\":\"REAL\"}]", "smoothing"},
      {
        "\"time\":{\"row\":1,\"column\":1,\"mode\":\"STEP\",\"shape\":\"SHARP\",\"velocityFactor\":2}",
        "velocityFactor"
      },
      {"\"change\":{\"referenceOhm\":-1}", "z0"},
    };
  }

  @Test(dataProvider = "wrong")
  public void nonsenseIsRefusedWithItsField(String more, String field) {
    JsonNode problem = view(more, 400);
    assertEquals(problem.get("field").asString(), field, problem.toString());
  }

  @Test
  public void aParameterThatAFileLacksIsAnEmptyCurve() {
    JsonNode r =
        server.json(
            server.send(
                "POST",
                "/api/networks/view",
                "{\"networks\":[%d,%d],\"panes\":[{\"row\":2,\"column\":1,\"format\":\"LINEAR\"}]}"
                    .formatted(line, one)),
            200);
    assertEquals(curve(r, 0).get("y").size(), 500);
    assertEquals(r.get("networks").get(1).get("curves").get(0).get("y").size(), 0);
  }

  /** Two lines of 10 ns in a row are one of 20 ns; with one taken off, 10 ns are left. */
  @Test
  public void aPartIsTakenOffEitherPort() {
    StringBuilder one = new StringBuilder("# MHz S RI R 50\n");
    StringBuilder both = new StringBuilder("# MHz S RI R 50\n");
    for (int i = 1; i <= 200; i++) {
      double a = -2 * Math.PI * i * 1e6 * 10e-9;
      one.append(matched(i, a));
      both.append(matched(i, 2 * a));
    }
    long part = open("part.s2p", one.toString());
    long all = open("both.s2p", both.toString());
    for (String side : new String[] {"firstPart", "lastPart"}) {
      JsonNode r =
          server.json(
              server.send(
                  "POST",
                  "/api/networks/view",
                  "{\"networks\":[%d],\"panes\":[{\"row\":2,\"column\":1,\"format\":\"GROUP_DELAY\"},{\"row\":2,\"column\":1,\"format\":\"LOG_MAGNITUDE\"}],\"change\":{\"%s\":%d}}"
                      .formatted(all, side, part)),
              200);
      assertEquals(curve(r, 0).get("y").get(99).asDouble(), 10e-9, 1e-13, side);
      assertEquals(curve(r, 1).get("y").get(99).asDouble(), 0, 1e-5, side);
    }
    JsonNode tooNarrow =
        server.json(
            server.send(
                "POST",
                "/api/networks/view",
                "{\"networks\":[%d],\"panes\":[],\"change\":{\"firstPart\":%d}}"
                    .formatted(line, part)),
            400);
    assertEquals(tooNarrow.get("field").asString(), "part");
    assertTrue(tooNarrow.get("detail").asString().contains("200 MHz"), tooNarrow.toString());
  }

  private static String matched(int megahertz, double angle) {
    double c = Math.cos(angle);
    double s = Math.sin(angle);
    return String.format(Locale.ROOT, "%d 0 0 %.9f %.9f %.9f %.9f 0 0%n", megahertz, c, s, c, s);
  }

  /** Filters say their width, chokes their impedance, all from the one place of figures. */
  @Test
  public void figuresFollowTheKindOfPart() {
    StringBuilder choke = new StringBuilder("# MHz S RI R 50\n");
    double t = Math.pow(10, -25 / 20.0);
    for (int i = 1; i <= 30; i++) {
      choke.append(
          String.format(Locale.ROOT, "%d %.6f 0 %.6f 0 %.6f 0 %.6f 0%n", i, 1 - t, t, t, 1 - t));
    }
    long id = open("choke.s2p", choke.toString());
    JsonNode n = server.json(server.get("/api/networks/" + id + "?readings=true"), 200);
    boolean series = false;
    for (JsonNode r : n.get("readings")) {
      if (r.get("id").asString().equals("seriesImpedance")) {
        // Common practice: -25 dB in a series fixture of 50 ohm is 1.68 kohm.
        assertEquals(r.get("value").asDouble(), 1678, 2);
        series = true;
      }
      assertTrue(!r.get("id").asString().equals("bandwidth3"), "a choke has no pass band");
    }
    assertTrue(series, n.get("readings").toString());
  }
}
