package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.net.ServerSocket;
import java.net.http.HttpRequest;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.Connection;
import java.sql.DriverManager;
import java.util.Base64;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.server.RunningServer.Part;
import tools.jackson.databind.JsonNode;

/** What Rovnik finds when it starts, and with what it does not. */
public class StartTest {
  private static final String META =
      """
      {"global":{"core:datatype":"ci16_le","core:version":"1.2.0","core:sample_rate":1000000,
       "core:description":"harbour at noon","rovnik:full_scale_dbm":-7.5},
       "captures":[{"core:sample_start":0,"core:frequency":458525000}],"annotations":[]}""";

  private Path data;

  @BeforeMethod
  public void folder() {
    data = Folders.temporary();
  }

  @AfterMethod
  public void away() {
    Folders.remove(data);
  }

  private static void refused(String words, Path data, String... settings) {
    Throwable cause =
        expectThrows(Exception.class, () -> RunningServer.start(data, settings).close());
    while (cause.getCause() != null) {
      cause = cause.getCause();
    }
    assertTrue(cause.getMessage().contains(words), cause.getMessage());
  }

  @DataProvider
  public Object[][] refusedStarts() {
    return new Object[][] {
      {"--server.address=0.0.0.0", "needs a password"},
      {"--server.address=300.1.1.1", "Correct --listen"},
      {"--rovnik.frames-per-second=0", "use 1 to 60"},
      {"--rovnik.frames-per-second=61", "use 1 to 60"},
      {"--rovnik.password-file=/nowhere/at-all", "cannot be read"},
      {"--rovnik.data=/tmp/a;b", "has a ; in its name"},
      {"--rovnik.data=/dev/null/x", "cannot be written"},
    };
  }

  @Test(dataProvider = "refusedStarts")
  public void whatItMustNotStartWithIsSaid(String setting, String words) {
    refused(words, data, setting);
    assertFalse(Files.exists(data.resolve("rovnik.mv.db")), "something was touched");
  }

  @Test
  public void aTakenPortIsSaid() throws IOException {
    try (ServerSocket taken = new ServerSocket(0)) {
      refused("cannot be used", data, "--server.port=" + taken.getLocalPort());
    }
    assertFalse(Files.exists(data.resolve("rovnik.mv.db")), "something was touched");
  }

  @Test
  public void aFolderInUseIsLeftAloneEvenByAFreshStart() {
    try (RunningServer first = RunningServer.start(data)) {
      first.json(first.send("POST", "/api/jobs", "{\"name\":\"kept\",\"dut\":\"x\"}"), 201);
      refused("in use by another Rovnik", data, "--rovnik.fresh=true");
      assertEquals(first.json(first.get("/api/jobs"), 200).size(), 1);
    }
    try (RunningServer again = RunningServer.start(data)) {
      assertEquals(again.json(again.get("/api/jobs"), 200).size(), 1);
    }
    try (RunningServer fresh = RunningServer.start(data, "--rovnik.fresh=true")) {
      assertEquals(fresh.json(fresh.get("/api/jobs"), 200).size(), 0);
    }
  }

  @Test
  public void theFolderIsForItsOwnerAlone() throws IOException {
    Files.setPosixFilePermissions(data, PosixFilePermissions.fromString("rwxr-xr-x"));
    RunningServer.start(data).close();
    assertEquals(PosixFilePermissions.toString(Files.getPosixFilePermissions(data)), "rwx------");
  }

  @Test
  public void whatIsNoDatabaseIsSaid() throws IOException {
    byte[] noise = new byte[20_000];
    new Random(3).nextBytes(noise);
    Files.write(data.resolve("rovnik.mv.db"), noise);
    assertTrue(sentenceOfStart().contains("cannot be opened"));
    assertEquals(Files.readAllBytes(data.resolve("rovnik.mv.db")), noise);
  }

  @Test
  public void aDatabaseOfANewerRovnikIsLeftAlone() throws Exception {
    RunningServer.start(data).close();
    try (Connection c = DriverManager.getConnection("jdbc:h2:file:" + data + "/rovnik", "sa", "");
        var s = c.createStatement()) {
      s.execute(
          "insert into \"flyway_schema_history\" select max(\"installed_rank\") + 1, '999',"
              + " 'of a newer one', 'SQL', 'V999__x.sql', 1, 'sa', now(), 1, true from"
              + " \"flyway_schema_history\"");
    }
    assertTrue(sentenceOfStart().contains("newer Rovnik"));
  }

  /** What the framework's reporters are given. */
  private String sentenceOfStart() {
    Throwable failure = expectThrows(Exception.class, () -> RunningServer.start(data).close());
    return rovnik.server.config.StartSentence.of(failure);
  }

  @Test
  public void aLostDatabaseTakesNoSamplesWithIt() throws IOException {
    byte[] samples = new byte[4000];
    new Random(1).nextBytes(samples);
    try (RunningServer s = RunningServer.start(data)) {
      JsonNode made = s.json(s.upload(META, samples), 201);
      s.json(
          s.send(
              "PUT",
              "/api/recordings/" + made.get("id").asLong() + "/calibration",
              "{\"fullScaleDbm\": -3.25}"),
          200);
      s.json(
          s.upload(
              "/api/networks",
              Part.of("file", "feeder.s1p", "# MHz S RI R 50\n100 0.5 0\n200 0.4 0\n")),
          201);
    }
    Files.delete(data.resolve("rovnik.mv.db"));
    // A part that was never whole, as after a crash in an upload, was never kept.
    Files.write(data.resolve("acquisitions/x.sigmf-data.part"), samples);
    try (RunningServer s = RunningServer.start(data)) {
      assertEquals(s.json(s.get("/api/recordings"), 200).size(), 0);
      JsonNode found = s.json(s.get("/api/found"), 200);
      assertEquals(found.size(), 2, found.toString());
      for (JsonNode f : found) {
        s.json(s.send("POST", "/api/found/" + f.get("name").asString() + "/read", ""), 204);
      }
      JsonNode recording = s.json(s.get("/api/recordings"), 200).get(0);
      assertEquals(recording.get("samples").asInt(), 1000);
      assertEquals(recording.get("fullScaleDbm").asDouble(), -3.25, 1e-9);
      assertEquals(recording.get("centreHz").asDouble(), 458.525e6, 1e-3);
      assertEquals(s.json(s.get("/api/networks"), 200).get(0).get("points").asInt(), 2);
      assertEquals(s.json(s.get("/api/found"), 200).size(), 0);
    }
    try (Stream<Path> left = Files.list(data.resolve("found"))) {
      assertEquals(left.toList(), List.of());
    }
  }

  @Test
  public void samplesWithoutTheirMetadataStay() throws IOException {
    Files.createDirectories(data.resolve("acquisitions"));
    Files.write(data.resolve("acquisitions/old.sigmf-data"), new byte[800]);
    try (RunningServer s = RunningServer.start(data)) {
      assertFalse(s.json(s.get("/api/found"), 200).get(0).get("readable").asBoolean());
      String said =
          s.json(s.send("POST", "/api/found/old.sigmf-data/read", ""), 400)
              .get("detail")
              .asString();
      assertTrue(said.contains("metadata file of your own"), said);
      assertEquals(s.send("POST", "/api/found/..%2Frovnik.mv.db/read", "").statusCode(), 400);
      assertTrue(Files.exists(data.resolve("found/old.sigmf-data")));
      s.json(s.send("DELETE", "/api/found/old.sigmf-data", ""), 204);
      assertEquals(s.json(s.get("/api/found"), 200).size(), 0);
    }
  }

  @Test
  public void nothingIsKeptIntoTheLastOfTheDisk() throws IOException {
    try (RunningServer s =
        RunningServer.start(data, "--rovnik.keep-free-bytes=" + Long.MAX_VALUE / 2)) {
      JsonNode said = s.json(s.upload(META, new byte[4000]), 507);
      assertTrue(said.get("detail").asString().contains("nothing was kept"), said.toString());
      assertEquals(s.json(s.get("/api/recordings"), 200).size(), 0);
      assertEquals(s.json(s.get("/api/health"), 200).get("status").asString(), "disk-low");
    }
    try (Stream<Path> left = Files.list(data.resolve("acquisitions"))) {
      assertEquals(left.toList(), List.of());
    }
  }

  /**
   * A database that closed by itself is opened again by the next who asks; what was kept is there.
   */
  @Test
  public void aDatabaseThatClosedOpensAgain() {
    try (RunningServer s = RunningServer.start(data)) {
      s.json(s.send("POST", "/api/jobs", "{\"name\":\"kept\",\"dut\":\"x\"}"), 201);
      s.loseDatabase();
      int asked = 0;
      while (s.get("/api/jobs").statusCode() != 200) {
        int status = s.get("/api/jobs").statusCode();
        assertTrue(status == 503 || status == 200, "answered " + status);
        assertTrue(asked++ < 20, "it stays closed");
      }
      assertEquals(s.json(s.get("/api/jobs"), 200).get(0).get("name").asString(), "kept");
      assertEquals(s.json(s.get("/api/health"), 200).get("status").asString(), "ok");
      s.json(s.send("POST", "/api/jobs", "{\"name\":\"after\",\"dut\":\"x\"}"), 201);
    }
  }

  private String passwordFile(String password) throws IOException {
    Path file = data.resolve("password");
    Files.writeString(file, password + "\n");
    Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-------"));
    return "--rovnik.password-file=" + file;
  }

  private static HttpRequest.Builder as(RunningServer s, String password) {
    String basic = Base64.getEncoder().encodeToString(("rovnik:" + password).getBytes());
    return s.request("/api/jobs").header("Authorization", "Basic " + basic).GET();
  }

  @Test
  public void whoHasThePasswordGetsIn() throws IOException {
    String password = "correct ${horse} #1";
    try (RunningServer guarded = RunningServer.start(data, passwordFile(password))) {
      assertEquals(guarded.get("/api/jobs").statusCode(), 401);
      assertEquals(guarded.send(as(guarded, password)).statusCode(), 200);
      // A page of another site could post this form: without the token of ours it is refused.
      HttpRequest.Builder login =
          guarded
              .request("/login")
              .header("Content-Type", "application/x-www-form-urlencoded")
              .POST(HttpRequest.BodyPublishers.ofString("username=rovnik&password=" + password));
      assertEquals(guarded.send(login).statusCode(), 403);
      for (int i = 0; i < 3; i++) {
        assertEquals(guarded.send(as(guarded, "guess " + i)).statusCode(), 401);
      }
      var slowed = guarded.send(as(guarded, password));
      assertEquals(slowed.statusCode(), 429);
      assertEquals(slowed.headers().firstValue("Retry-After").orElse(""), "1");
    }
  }

  @Test
  public void apasswordMustBeLongAndItsFileOnesOwn() throws IOException {
    refused("use at least 10", data, passwordFile("ninechars"));
    String file = passwordFile("long enough it is");
    Files.setPosixFilePermissions(
        data.resolve("password"), PosixFilePermissions.fromString("rw-r-----"));
    refused("chmod 600", data, file);
  }

  @Test
  public void otherNamesAreAnsweredIfTheyAreNamed() {
    try (RunningServer s =
        RunningServer.start(data, "--server.address=127.0.0.2", "--rovnik.hosts=bench-pc,lab")) {
      for (String host : List.of("127.0.0.2", "localhost:80", "bench-pc", "LAB:8080")) {
        assertEquals(s.status(host), 200, host);
      }
      for (String host : List.of("evil.example", "127.0.0.2.evil.example", "127.0.0.3")) {
        assertEquals(s.status(host), 403, host);
      }
    }
  }
}
