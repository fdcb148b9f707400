package rovnik.standins.scpi;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/** Serves one instrument on a TCP port: one program message a line, any number of connections. */
public final class ScpiServer implements AutoCloseable {
  private static final int LONGEST_LINE = 1 << 22;
  private static final long LONGEST_BLOCK = 1L << 29;
  private final ServerSocket listener;
  private final ScpiInstrument instrument;
  private final Set<Socket> connections = ConcurrentHashMap.newKeySet();

  /**
   * Starts to listen on loopback.
   *
   * @param port TCP port, 0 for any free one
   */
  public ScpiServer(ScpiInstrument instrument, int port) throws IOException {
    this.instrument = instrument;
    this.listener = new ServerSocket(port, 16, InetAddress.getByName("127.0.0.1"));
    daemon(this::accept, instrument.identity() + " listener").start();
  }

  public int port() {
    return listener.getLocalPort();
  }

  private static Thread daemon(Runnable task, String name) {
    Thread t = new Thread(task, name);
    t.setDaemon(true);
    return t;
  }

  private void accept() {
    while (!listener.isClosed()) {
      try {
        Socket socket = listener.accept();
        socket.setTcpNoDelay(true);
        connections.add(socket);
        daemon(() -> serve(socket), instrument.identity() + " connection").start();
      } catch (IOException closed) {
        return;
      }
    }
  }

  private void serve(Socket socket) {
    try (socket) {
      InputStream in = new BufferedInputStream(socket.getInputStream());
      OutputStream out = socket.getOutputStream();
      StringBuilder line = new StringBuilder();
      byte[] block = {};
      int c;
      while ((c = in.read()) >= 0) {
        if (c == '#') {
          block = block(in);
          line.append('#');
          continue;
        }
        if (c != '\n') {
          if (line.length() < LONGEST_LINE) {
            line.append((char) c);
          }
          continue;
        }
        if (line.length() >= LONGEST_LINE) {
          instrument.raise(-223, "Too much data; the message is longer than 4 MiB");
        } else {
          byte[] reply = instrument.run(line.toString(), block);
          if (reply != null) {
            out.write(reply);
            out.write("\n".getBytes(StandardCharsets.ISO_8859_1));
            out.flush();
          }
        }
        line.setLength(0);
        block = new byte[0];
      }
    } catch (IOException gone) {
      // The client went away: nothing to tell anyone.
    } finally {
      connections.remove(socket);
    }
  }

  /** The rest of an IEEE 488.2 definite-length block; a broken one ends the connection. */
  private static byte[] block(InputStream in) throws IOException {
    int digits = in.read() - '0';
    long length = 0;
    for (int i = 0; i < digits; i++) {
      length = 10 * length + in.read() - '0';
    }
    if (digits < 1 || digits > 9 || length < 0 || length > LONGEST_BLOCK) {
      throw new IOException("a block of " + length + " bytes");
    }
    return in.readNBytes((int) length);
  }

  @Override
  public void close() {
    try {
      listener.close();
      for (Socket s : connections) {
        s.close();
      }
    } catch (IOException ignored) {
      // closing anyway
    }
  }
}
