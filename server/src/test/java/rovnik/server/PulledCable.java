package rovnik.server;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/** A network cable to a stand-in that can be pulled and plugged in again. */
final class PulledCable implements AutoCloseable {
  private final int to;
  private final int port;
  private final Set<Socket> open = ConcurrentHashMap.newKeySet();
  private ServerSocket here;

  PulledCable(int to) throws IOException {
    this.to = to;
    here = new ServerSocket(0, 8, InetAddress.getLoopbackAddress());
    port = here.getLocalPort();
    listen(here);
  }

  int port() {
    return port;
  }

  private void listen(ServerSocket at) {
    start(
        () -> {
          while (!at.isClosed()) {
            Socket near = at.accept();
            Socket far = new Socket(InetAddress.getLoopbackAddress(), to);
            open.add(near);
            open.add(far);
            start(() -> pass(near, far));
            start(() -> pass(far, near));
          }
        });
  }

  private interface Work {
    void run() throws IOException;
  }

  private static void start(Work work) {
    Thread t =
        new Thread(
            () -> {
              try {
                work.run();
              } catch (IOException e) {
                // Pulled.
              }
            },
            "cable");
    t.setDaemon(true);
    t.start();
  }

  private static void pass(Socket from, Socket to) throws IOException {
    byte[] some = new byte[65_536];
    try (from;
        to) {
      InputStream in = from.getInputStream();
      OutputStream out = to.getOutputStream();
      for (int n = in.read(some); n >= 0; n = in.read(some)) {
        out.write(some, 0, n);
      }
    }
  }

  /** Breaks what is under way and answers nobody. */
  void pull() {
    try {
      here.close();
      for (Socket s : open) {
        s.close();
      }
      open.clear();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Answers again, at the same port. */
  void plug() {
    try {
      here = new ServerSocket();
      here.setReuseAddress(true);
      here.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), port));
      listen(here);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  @Override
  public void close() {
    pull();
  }
}
