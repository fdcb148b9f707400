package rovnik.e2e;

import com.microsoft.playwright.Page;
import java.io.File;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Base64;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** Server and stand-ins as processes of their own, as the launcher starts them. */
final class Processes implements AutoCloseable {
  private static final String JAVA =
      Path.of(System.getProperty("java.home"), "bin", "java").toString();

  private static final Duration PATIENCE = Duration.ofMinutes(1);

  /** Ports that are kept for them; more than there are today. */
  private static final int STANDINS = 32;

  private static final int LOWEST_PORT = 15_000;
  private static final int HIGHEST_PORT = 32_000;

  private final HttpClient client = HttpClient.newHttpClient();
  private final int framesPerSecond;
  private final Path data;
  private final int port;
  private final int standinPort;
  private Process server;
  private Process standins;

  /**
   * For tests: drawing takes most of the processor, and all that is tested is there at this pace.
   */
  Processes() {
    this(6);
  }

  Processes(int framesPerSecond) {
    this.framesPerSecond = framesPerSecond;
    try {
      data = Files.createTempDirectory("rovnik-e2e");
      standinPort = freePorts(STANDINS + 1);
      port = standinPort + STANDINS;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    startStandins();
    startServer();
  }

  /**
   * First of so many free ports in a row, below those that a system gives to outgoing connections:
   * such a connection could take one before the server does.
   */
  private static int freePorts(int count) throws IOException {
    Random random = new Random();
    for (int attempt = 0; attempt < 200; attempt++) {
      int first = LOWEST_PORT + random.nextInt(HIGHEST_PORT - LOWEST_PORT);
      boolean free = true;
      for (int i = 0; i < count && free; i++) {
        try (ServerSocket s = new ServerSocket(first + i)) {
          free = s.isBound();
        } catch (IOException taken) {
          free = false;
        }
      }
      if (free) {
        return first;
      }
    }
    throw new IOException("no free ports in a row");
  }

  private static Path jar(String module, String suffix) {
    return Path.of("..", module, "target", module + "-0.1.0" + suffix + ".jar");
  }

  private Process launch(String log, List<String> command) {
    try {
      return new ProcessBuilder(command)
          .redirectErrorStream(true)
          .redirectOutput(ProcessBuilder.Redirect.appendTo(new File(data.toFile(), log)))
          .start();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  void startStandins() {
    standins =
        launch(
            "standins.log",
            List.of(
                JAVA,
                "-Xmx768m",
                "-jar",
                jar("standins", "").toString(),
                "--base-port",
                "" + standinPort));
    waitFor("stand-ins", () -> portAnswers(standinPort + 10));
  }

  void stopStandins() {
    standins.destroyForcibly().onExit().join();
  }

  void startServer() {
    server =
        launch(
            "server.log",
            List.of(
                JAVA,
                "-Xmx640m",
                "-XX:+UseSerialGC",
                "--add-modules",
                "jdk.incubator.vector",
                "-jar",
                jar("server", "-app").toString(),
                "--server.port=" + port,
                "--rovnik.data=" + data,
                "--rovnik.demo=true",
                "--rovnik.frames-per-second=" + framesPerSecond,
                "--rovnik.standin-base-port=" + standinPort));
    waitFor(
        "server",
        () -> {
          if (!server.isAlive()) {
            throw new AssertionError(
                "the server ended: " + Files.readString(data.resolve("server.log")));
          }
          return get("/api/health").contains("ok");
        });
    waitFor("bench", () -> get("/api/instruments").contains("CONNECTED"));
  }

  /** As kill -9 does. */
  void killServer() {
    server.destroyForcibly().onExit().join();
  }

  private static boolean portAnswers(int port) {
    try (java.net.Socket s = new java.net.Socket("127.0.0.1", port)) {
      return s.isConnected();
    } catch (IOException e) {
      return false;
    }
  }

  /** Something that must become true. */
  interface Condition {
    boolean holds() throws IOException, InterruptedException;
  }

  static void waitFor(String what, Condition condition) {
    long end = System.nanoTime() + 180_000_000_000L;
    while (System.nanoTime() < end) {
      try {
        if (condition.holds()) {
          return;
        }
        Thread.sleep(20);
      } catch (IOException | UncheckedIOException notYet) {
        sleep();
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
        throw new IllegalStateException(e);
      }
    }
    throw new AssertionError("waited three minutes in vain for: " + what);
  }

  private static void sleep() {
    java.util.concurrent.locks.LockSupport.parkNanos(50_000_000);
  }

  String url() {
    return "http://127.0.0.1:" + port;
  }

  int standinPort() {
    return standinPort;
  }

  String get(String path) {
    return send(HttpRequest.newBuilder(URI.create(url() + path)).timeout(PATIENCE).GET().build());
  }

  String send(String method, String path, String body) {
    return send(
        HttpRequest.newBuilder(URI.create(url() + path))
            .header("Content-Type", "application/json")
            .method(method, HttpRequest.BodyPublishers.ofString(body))
            .build());
  }

  /** Switches something of an instrument, as the window does that may hold it. */
  void control(Page window, long instrument, String control, String value) {
    String me =
        (String)
            window.evaluate(
                "() => { const w = JSON.parse(sessionStorage.getItem('rovnik-window'));"
                    + " return encodeURIComponent(`${w.id}|${w.name}`); }");
    HttpRequest request =
        HttpRequest.newBuilder(URI.create(url() + "/api/instruments/" + instrument + "/controls"))
            .header("Content-Type", "application/json")
            .header("X-Rovnik-Client", me)
            .method(
                "PUT",
                HttpRequest.BodyPublishers.ofString(
                    "{\"values\":{\"" + control + "\":\"" + value + "\"}}"))
            .build();
    // Another window that was closed lets go when the server has seen it.
    waitFor(control + " to be " + value, () -> !send(request).contains("is in use"));
  }

  /** Opens the door again, whatever accounts a test has left. */
  void removeAccounts(String chief, String password) {
    String basic =
        Base64.getEncoder()
            .encodeToString((chief + ":" + password).getBytes(StandardCharsets.UTF_8));
    HttpRequest.Builder request =
        HttpRequest.newBuilder().header("Authorization", "Basic " + basic);
    URI all = URI.create(url() + "/api/accounts");
    // The chief goes last: the one who administers cannot be removed before.
    for (int round = 0; round < 2; round++) {
      Matcher ids = Pattern.compile("\"id\":(\\d+)").matcher(send(request.uri(all).GET().build()));
      while (ids.find()) {
        send(request.uri(URI.create(all + "/" + ids.group(1))).DELETE().build());
      }
    }
  }

  private String send(HttpRequest request) {
    try {
      return client.send(request, HttpResponse.BodyHandlers.ofString()).body();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }

  /** A place for a file of a test; it goes with everything else. */
  Path scratch(String name) {
    try {
      return Files.createDirectories(data.resolve("scratch")).resolve(name);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  @Override
  public void close() {
    server.destroyForcibly().onExit().join();
    standins.destroyForcibly().onExit().join();
    try (Stream<Path> all = Files.walk(data)) {
      for (Path p : all.sorted(Comparator.reverseOrder()).toList()) {
        Files.delete(p);
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
