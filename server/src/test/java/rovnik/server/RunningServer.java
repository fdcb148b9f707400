package rovnik.server;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import rovnik.standins.Bench;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A whole server in this process on a free port, with stand-ins beside it. */
final class RunningServer implements AutoCloseable {
  static final JsonMapper JSON = JsonMapper.builder().build();
  private final ConfigurableApplicationContext context;
  private final Bench bench;
  private final HttpClient client = HttpClient.newHttpClient();
  private final String root;
  private final String address;
  private final int port;
  final Path data;
  private boolean own;
  private boolean closed;
  private boolean standinsLost;

  private RunningServer(ConfigurableApplicationContext context, Bench bench, Path data) {
    this.context = context;
    this.bench = bench;
    this.data = data;
    this.port = ((WebServerApplicationContext) context).getWebServer().getPort();
    this.address = context.getEnvironment().getProperty("server.address");
    this.root = "http://" + address + ":" + port;
  }

  private static RunningServer shared;

  /**
   * One server and one set of stand-ins for the whole suite, put back as if they were new: no
   * instrument, no job, no file, and a world at rest.
   */
  static synchronized RunningServer fresh() {
    if (shared != null && shared.standinsLost) {
      shared.close();
    }
    if (shared == null || shared.closed) {
      shared = start();
      Runtime.getRuntime().addShutdownHook(new Thread(shared::close));
    } else {
      shared.reset();
    }
    return shared;
  }

  private void reset() {
    for (String what :
        List.of("jobs", "instruments", "recordings", "waveforms", "calibrations", "networks")) {
      for (JsonNode one : json(get("/api/" + what), 200)) {
        String rest = what.equals("jobs") ? "?belongings=true" : "";
        json(send("DELETE", "/api/" + what + "/" + one.get("id").asLong() + rest, ""), 204);
      }
    }
    bench.ports().forEach(RunningServer::putBack);
    bench.world().setTransmitting(true);
  }

  /** A stand-in's own reset, over its socket. */
  private static void putBack(int port) {
    try (Socket socket = new Socket("127.0.0.1", port)) {
      socket
          .getOutputStream()
          .write("*RST\nINP:PROT:CLE\n*CLS\n*OPC?\n".getBytes(StandardCharsets.US_ASCII));
      if (socket.getInputStream().read() < 0) {
        throw new AssertionError("the stand-in at " + port + " did not answer");
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  static RunningServer start(String... more) {
    Path data = Folders.temporary();
    try {
      RunningServer made = start(data, more);
      made.own = true;
      return made;
    } catch (RuntimeException refused) {
      Folders.remove(data);
      throw refused;
    }
  }

  static RunningServer start(Path data, String... more) {
    try {
      List<String> args = new ArrayList<>(List.of(more));
      for (String setting : List.of("--server.port=0", "--rovnik.data=" + data)) {
        String name = setting.substring(0, setting.indexOf('=') + 1);
        if (args.stream().noneMatch(a -> a.startsWith(name))) {
          args.add(setting);
        }
      }
      return new RunningServer(
          SpringApplication.run(RovnikApplication.class, args.toArray(String[]::new)),
          new Bench(0, 5, false),
          data);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  Bench bench() {
    return bench;
  }

  /** A part of the server, where what a test needs would take days over the interface. */
  <T> T part(Class<T> type) {
    return context.getBean(type);
  }

  HttpResponse<String> get(String path) {
    return send(HttpRequest.newBuilder(URI.create(root + path)).GET());
  }

  HttpResponse<String> send(String method, String path, String body) {
    return send(
        HttpRequest.newBuilder(URI.create(root + path))
            .header("Content-Type", "application/json")
            .method(method, HttpRequest.BodyPublishers.ofString(body)));
  }

  HttpResponse<String> send(HttpRequest.Builder request) {
    try {
      return client.send(request.build(), HttpResponse.BodyHandlers.ofString());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }

  /** A file that is fetched. */
  byte[] bytes(String path) {
    return bytes(HttpRequest.newBuilder(URI.create(root + path)).GET().build());
  }

  /** A file that is the answer to a request. */
  byte[] bytes(String path, String body) {
    return bytes(
        HttpRequest.newBuilder(URI.create(root + path))
            .header("Content-Type", "application/json")
            .POST(HttpRequest.BodyPublishers.ofString(body))
            .build());
  }

  byte[] bytes(HttpRequest request) {
    try {
      return client.send(request, HttpResponse.BodyHandlers.ofByteArray()).body();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }

  /** Status of the health page if it is asked for by this name. */
  int status(String host) {
    try (Socket socket = new Socket(address, port)) {
      socket
          .getOutputStream()
          .write(
              ("GET /api/health HTTP/1.1\r\nHost: " + host + "\r\nConnection: close\r\n\r\n")
                  .getBytes(StandardCharsets.US_ASCII));
      String reply =
          new String(socket.getInputStream().readAllBytes(), StandardCharsets.ISO_8859_1);
      return Integer.parseInt(reply.split(" ")[1]);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** A window that watches a look; close it to let go. */
  java.net.http.WebSocket window(String source, String measurement, String client) {
    return window(source, measurement, client, new CompletableFuture<>());
  }

  /** One that also says when the server has closed it. */
  java.net.http.WebSocket window(
      String source, String measurement, String client, CompletableFuture<Void> ended) {
    return window(
        source,
        measurement,
        client,
        new java.net.http.WebSocket.Listener() {
          @Override
          public java.util.concurrent.CompletionStage<?> onClose(
              java.net.http.WebSocket socket, int status, String reason) {
            ended.complete(null);
            return null;
          }
        });
  }

  /** One that says what comes. */
  java.net.http.WebSocket window(
      String source, String measurement, String client, java.net.http.WebSocket.Listener listener) {
    return this.client
        .newWebSocketBuilder()
        .buildAsync(
            URI.create(
                root.replace("http", "ws")
                    + "/api/frames?source="
                    + source
                    + "&measurement="
                    + measurement
                    + "&client="
                    + client),
            listener)
        .join();
  }

  int port() {
    return port;
  }

  HttpRequest.Builder request(String path) {
    return HttpRequest.newBuilder(URI.create(root + path));
  }

  /** Body of a reply that must have this status. */
  JsonNode json(HttpResponse<String> reply, int status) {
    if (reply.statusCode() != status) {
      throw new AssertionError(reply.statusCode() + " instead of " + status + ": " + reply.body());
    }
    return JSON.readTree(reply.body().isEmpty() ? "null" : reply.body());
  }

  /** One file of an upload. */
  record Part(String field, String fileName, byte[] content) {
    static Part of(String field, String fileName, String content) {
      return new Part(field, fileName, content.getBytes(StandardCharsets.UTF_8));
    }
  }

  /** Uploads a SigMF pair. */
  HttpResponse<String> upload(String meta, byte[] data) {
    return upload(
        "/api/recordings",
        Part.of("meta", "x.sigmf-meta", meta),
        new Part("data", "x.sigmf-data", data));
  }

  HttpResponse<String> upload(String path, Part... files) {
    String boundary = "rovnik-boundary";
    List<byte[]> pieces = new ArrayList<>();
    for (Part p : files) {
      pieces.add(
          "--%s\r\nContent-Disposition: form-data; name=\"%s\"; filename=\"%s\"\r\n\r\n"
              .formatted(boundary, p.field, p.fileName)
              .getBytes(StandardCharsets.UTF_8));
      pieces.add(p.content);
      pieces.add("\r\n".getBytes(StandardCharsets.UTF_8));
    }
    pieces.add(("--" + boundary + "--\r\n").getBytes(StandardCharsets.UTF_8));
    return send(
        request(path)
            .header("Content-Type", "multipart/form-data; boundary=" + boundary)
            .POST(HttpRequest.BodyPublishers.ofByteArrays(pieces)));
  }

  /** The database closes at once, as it does when its disk is full. */
  void loseDatabase() {
    try (var connection = context.getBean(javax.sql.DataSource.class).getConnection();
        var statement = connection.createStatement()) {
      statement.execute("SHUTDOWN IMMEDIATELY");
    } catch (java.sql.SQLException closed) {
      // that is what was asked for
    }
  }

  /** All stand-ins are gone at once; the next test gets others. */
  void loseStandins() {
    standinsLost = true;
    bench.close();
  }

  /** Stops, and leaves the data where it is. */
  void stopOnly() {
    own = false;
    close();
  }

  @Override
  public void close() {
    if (closed) {
      return;
    }
    closed = true;
    context.close();
    bench.close();
    if (own) {
      Folders.remove(data);
    }
  }
}
