package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.net.Socket;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.MessageDigest;
import java.security.cert.CertificateException;
import java.security.cert.X509Certificate;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLSocket;
import javax.net.ssl.TrustManager;
import javax.net.ssl.X509TrustManager;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Who may do what, and that nobody listens in. */
public class AccountsTest {
  private static final String LONG = "a long enough password";

  private Path data;

  @BeforeMethod
  public void folder() {
    data = Folders.temporary();
  }

  @AfterMethod
  public void away() {
    Folders.remove(data);
  }

  private static HttpResponse<String> as(
      RunningServer s, String who, String password, String method, String path, String body) {
    String basic =
        Base64.getEncoder().encodeToString((who + ":" + password).getBytes(StandardCharsets.UTF_8));
    return s.send(
        s.request(path)
            .header("Authorization", "Basic " + basic)
            .header("Content-Type", "application/json")
            .method(method, HttpRequest.BodyPublishers.ofString(body)));
  }

  private static String account(String name, String role) {
    return "{\"name\": \"%s\", \"role\": \"%s\", \"password\": \"%s\"}".formatted(name, role, LONG);
  }

  @Test
  public void eachRoleMayDoWhatItsNameSays() throws Exception {
    try (RunningServer s = RunningServer.start(data)) {
      JsonNode nobody = s.json(s.get("/api/accounts/me"), 200);
      assertEquals(nobody.get("name").asString(), "");
      s.json(s.send("POST", "/api/accounts", account("first", "MEASURE")), 400);
      s.json(s.send("POST", "/api/accounts", account("chief", "ADMINISTER")), 201);
      // From here on everybody signs in.
      assertEquals(s.get("/api/jobs").statusCode(), 401);
      assertEquals(s.get("/").statusCode(), 200, "the page asks for it");
      for (String role : List.of("VIEW", "MEASURE")) {
        s.json(as(s, "chief", LONG, "POST", "/api/accounts", account("the " + role, role)), 201);
      }
      String job = "{\"name\": \"Pads\", \"dut\": \"\"}";
      assertEquals(as(s, "the VIEW", LONG, "GET", "/api/jobs", "").statusCode(), 200);
      JsonNode refused = s.json(as(s, "the VIEW", LONG, "POST", "/api/jobs", job), 403);
      assertTrue(refused.get("detail").asString().contains("only looks"), refused.toString());
      s.json(as(s, "the MEASURE", LONG, "POST", "/api/jobs", job), 201);
      s.json(as(s, "the MEASURE", LONG, "GET", "/api/accounts", ""), 403);
      s.json(
          as(s, "the MEASURE", LONG, "POST", "/api/%61ccounts", account("other", "ADMINISTER")),
          403);
      assertEquals(
          s.json(as(s, "The View", LONG, "GET", "/api/accounts/me", ""), 200)
              .get("rights")
              .asString(),
          "looks");
      s.stopOnly();
    }
    String database = Files.readString(data.resolve("rovnik.mv.db"), StandardCharsets.ISO_8859_1);
    assertTrue(!database.contains(LONG), "the password lies in the database");
  }

  @Test
  public void aChangeHoldsAtOnceAndSomebodyAdministersAlways() {
    try (RunningServer s = RunningServer.start(data)) {
      long chief = made(s, s.send("POST", "/api/accounts", account("chief", "ADMINISTER")));
      long looker =
          made(s, as(s, "chief", LONG, "POST", "/api/accounts", account("looker", "VIEW")));
      s.json(as(s, "chief", LONG, "DELETE", "/api/accounts/" + chief, ""), 409);
      s.json(as(s, "chief", LONG, "PATCH", "/api/accounts/" + chief, "{\"role\": \"VIEW\"}"), 409);
      s.json(as(s, "chief", LONG, "POST", "/api/accounts", account("Looker", "VIEW")), 409);
      s.json(
          as(s, "chief", LONG, "PATCH", "/api/accounts/" + looker, "{\"password\": \"short\"}"),
          400);
      String own = "{\"present\": \"%s\", \"wanted\": \"another long one\"}";
      s.json(as(s, "looker", LONG, "PUT", "/api/accounts/me/password", own.formatted("x")), 400);
      s.json(as(s, "looker", LONG, "PUT", "/api/accounts/me/password", own.formatted(LONG)), 204);
      assertEquals(as(s, "looker", LONG, "GET", "/api/jobs", "").statusCode(), 401);
      assertEquals(as(s, "looker", "another long one", "GET", "/api/jobs", "").statusCode(), 200);
      s.json(as(s, "chief", LONG, "DELETE", "/api/accounts/" + looker, ""), 204);
      // With the last account the door is open again: this is loopback.
      s.json(as(s, "chief", LONG, "DELETE", "/api/accounts/" + chief, ""), 204);
      assertEquals(s.get("/api/jobs").statusCode(), 200);
    }
  }

  private static long made(RunningServer s, HttpResponse<String> reply) {
    return s.json(reply, 201).get("id").asLong();
  }

  @Test
  public void whoKeptArunStandsInIt() {
    try (RunningServer s = RunningServer.start(data)) {
      s.json(s.send("POST", "/api/accounts", account("Ines", "ADMINISTER")), 201);
      JsonNode job =
          s.json(as(s, "Ines", LONG, "POST", "/api/jobs", "{\"name\": \"J\", \"dut\": \"\"}"), 201);
      JsonNode recording = s.json(uploadAs(s), 201);
      String live = "/api/live/r" + recording.get("id").asLong() + "/spectrum";
      s.json(as(s, "Ines", LONG, "POST", live + "/start", "{}"), 200);
      s.json(as(s, "Ines", LONG, "GET", live + "/outcome?settled=true", ""), 200);
      String keep = "{\"name\": \"noon\", \"jobId\": %d}".formatted(job.get("id").asLong());
      JsonNode run = s.json(as(s, "Ines", LONG, "POST", live + "/keep", keep), 201);
      assertEquals(run.get("keptBy").asString(), "Ines");
      String report = "/api/runs/" + run.get("id").asLong() + "/report.html";
      String page = as(s, "Ines", LONG, "GET", report, "").body();
      assertTrue(page.contains("UTC by Ines from"), page);
    }
  }

  private static HttpResponse<String> uploadAs(RunningServer s) {
    String basic = Base64.getEncoder().encodeToString(("Ines:" + LONG).getBytes());
    String part =
        "--b\r\nContent-Disposition: form-data; name=\"%s\"; filename=\"x\"\r\n\r\n%s\r\n";
    String meta =
        """
        {"global":{"core:datatype":"ci16_le","core:version":"1.2.0","core:sample_rate":1e6},
         "captures":[{"core:sample_start":0,"core:frequency":1e8}],"annotations":[]}""";
    String body = part.formatted("meta", meta) + part.formatted("data", "abcd".repeat(4096));
    return s.send(
        s.request("/api/recordings")
            .header("Authorization", "Basic " + basic)
            .header("Content-Type", "multipart/form-data; boundary=b")
            .POST(HttpRequest.BodyPublishers.ofString(body + "--b--\r\n")));
  }

  @Test
  public void whoeverWatchedWithoutSigningInMustSignIn() throws Exception {
    try (RunningServer s = RunningServer.start(data)) {
      String meta =
          "{\"global\":{\"core:datatype\":\"ci16_le\",\"core:version\":\"1.2.0\",\"core:sample_rate\":1e6},"
              + "\"captures\":[{\"core:sample_start\":0}],\"annotations\":[]}";
      JsonNode recording = s.json(s.upload(meta, new byte[16384]), 201);
      CompletableFuture<Void> closed = new CompletableFuture<>();
      s.window("r" + recording.get("id").asLong(), "spectrum", "w", closed);
      s.json(s.send("POST", "/api/accounts", account("chief", "ADMINISTER")), 201);
      closed.get(30, TimeUnit.SECONDS);
    }
  }

  @Test
  public void anetworkIsAnsweredWithTlsAlone() throws Exception {
    Path password = data.resolve("password");
    Files.writeString(password, LONG);
    Files.setPosixFilePermissions(password, PosixFilePermissions.fromString("rw-------"));
    String[] settings = {
      "--server.address=0.0.0.0", "--rovnik.password-file=" + password, "--rovnik.hosts=bench-pc"
    };
    String before;
    try (RunningServer s = RunningServer.start(data, settings)) {
      X509Certificate shown = certificate(s.port());
      before = fingerprint(shown);
      assertTrue(
          shown.getSubjectAlternativeNames().toString().contains("bench-pc"), shown.toString());
      assertEquals(
          Files.getPosixFilePermissions(data.resolve("certificate.p12")),
          PosixFilePermissions.fromString("rw-------"));
      // Plain http gets no page.
      try (Socket plain = new Socket("127.0.0.1", s.port())) {
        plain
            .getOutputStream()
            .write("GET /api/health HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n".getBytes());
        String reply =
            new String(plain.getInputStream().readAllBytes(), StandardCharsets.ISO_8859_1);
        assertTrue(reply.startsWith("HTTP/1.1 400"), reply);
      }
    }
    try (RunningServer again = RunningServer.start(data, settings)) {
      assertEquals(fingerprint(certificate(again.port())), before, "it was made anew");
    }
  }

  private static String fingerprint(X509Certificate c) throws Exception {
    return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(c.getEncoded()));
  }

  private static X509Certificate certificate(int port) throws Exception {
    SSLContext any = SSLContext.getInstance("TLS");
    any.init(null, new TrustManager[] {new Anybody()}, null);
    try (SSLSocket socket = (SSLSocket) any.getSocketFactory().createSocket("127.0.0.1", port)) {
      socket.startHandshake();
      socket
          .getOutputStream()
          .write(
              "GET /api/health HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n"
                  .getBytes());
      String reply = new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
      assertTrue(reply.startsWith("HTTP/1.1 200"), reply);
      return (X509Certificate) socket.getSession().getPeerCertificates()[0];
    } catch (IOException e) {
      throw new AssertionError(e);
    }
  }

  /** The certificate is looked at by the test itself. */
  private static final class Anybody implements X509TrustManager {
    @Override
    public void checkClientTrusted(X509Certificate[] chain, String type)
        throws CertificateException {
      throw new CertificateException("no client has one");
    }

    @Override
    public void checkServerTrusted(X509Certificate[] chain, String type) {}

    @Override
    public X509Certificate[] getAcceptedIssuers() {
      return new X509Certificate[0];
    }
  }
}
