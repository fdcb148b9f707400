package rovnik.instruments.scpi;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.instruments.InstrumentFault;
import rovnik.instruments.InstrumentFault.Kind;

/**
 * One TCP connection to a SCPI instrument. Every call ends within its time limit; after any fault
 * but a reported error the connection is closed, for the stream may be out of step. Not
 * thread-safe: the instrument's owner alone uses it.
 */
public final class ScpiConnection implements AutoCloseable {
  private static final int LONGEST_LINE = 1 << 16;
  private static final int LONGEST_BLOCK = 1 << 28;
  private static final int MOST_ERRORS = 50;
  private static final int LONGEST_SENTENCE = 400;

  private final String address;
  private final Timeouts timeouts;
  private final Socket socket;
  private final InputStream in;
  private final OutputStream out;
  private final byte[] buffer = new byte[1 << 16];
  private int bufferAt;
  private int bufferEnd;
  private long deadlineNanos;
  private Duration readLimit;

  private ScpiConnection(String address, Timeouts timeouts, Socket socket) throws IOException {
    this.address = address;
    this.timeouts = timeouts;
    this.socket = socket;
    this.in = socket.getInputStream();
    this.out = socket.getOutputStream();
  }

  /**
   * Connects.
   *
   * @throws InstrumentFault UNREACHABLE if nothing answers there in time
   */
  public static ScpiConnection open(String host, int port, Timeouts timeouts) {
    String address = host + ":" + port;
    Socket socket = new Socket();
    try {
      socket.setTcpNoDelay(true);
      socket.connect(new InetSocketAddress(host, port), (int) timeouts.connect().toMillis());
      return new ScpiConnection(address, timeouts, socket);
    } catch (IOException | IllegalArgumentException e) {
      try {
        socket.close();
      } catch (IOException ignored) {
        // never opened
      }
      throw new InstrumentFault(
          Kind.UNREACHABLE,
          "Nothing answers at " + address + ". Check that it is switched on and the address.",
          e);
    }
  }

  /** Sends a message and reads the error queue: IEEE 488.2 wants one to look after a change. */
  public void set(String message) {
    begin(timeouts);
    send(message + "\nSYST:ERR?");
    afterwards(message);
  }

  /**
   * Sends a message that ends with an IEEE 488.2 definite-length block of 32-bit floats, lowest
   * byte first, and reads the error queue.
   */
  public void setBlock(String message, float[] values) {
    long bytes = 4L * values.length;
    if (bytes > LONGEST_BLOCK) {
      throw new Refusal(
          "waveform", "At most " + LONGEST_BLOCK / 8 + " samples can be sent in one block.");
    }
    begin(timeouts.withExtra(Duration.ofMillis(bytes / 1000)));
    String length = Long.toString(bytes);
    try {
      out.write((message + "#" + length.length() + length).getBytes(StandardCharsets.ISO_8859_1));
      ByteBuffer part = ByteBuffer.allocate(1 << 18).order(ByteOrder.LITTLE_ENDIAN);
      for (int from = 0; from < values.length; from += part.capacity() / 4) {
        int count = Math.min(values.length - from, part.capacity() / 4);
        part.asFloatBuffer().put(values, from, count);
        out.write(part.array(), 0, 4 * count);
      }
    } catch (IOException e) {
      throw broken(e);
    }
    send("\nSYST:ERR?");
    afterwards(message);
  }

  private void afterwards(String message) {
    List<String> errors = new ArrayList<>();
    String error = line();
    while (!noError(error) && errors.size() < MOST_ERRORS) {
      errors.add(error);
      send("SYST:ERR?");
      error = line();
    }
    end();
    if (!errors.isEmpty()) {
      throw new InstrumentFault(
          Kind.REPORTED,
          cut("The instrument refused \"" + message + "\": " + String.join("; ", errors)));
    }
  }

  private static String cut(String sentence) {
    return sentence.length() > LONGEST_SENTENCE
        ? sentence.substring(0, LONGEST_SENTENCE) + " ..."
        : sentence;
  }

  /** Sends a query and reads one line. */
  public String ask(String message) {
    begin(timeouts);
    send(message);
    String answer = line();
    end();
    return answer;
  }

  /**
   * Sends a query whose answer takes longer than usual and may be a long line, as a trace in ASCII.
   *
   * @param extra more time than usual
   */
  public String ask(String message, Duration extra) {
    begin(timeouts.withExtra(extra));
    send(message);
    String answer = line(LONGEST_BLOCK);
    end();
    return answer;
  }

  /** Reads the error queue until it is empty. */
  public List<String> errors() {
    List<String> errors = new ArrayList<>();
    String error = ask("SYST:ERR?");
    while (!noError(error) && errors.size() < MOST_ERRORS) {
      errors.add(cut(error));
      error = ask("SYST:ERR?");
    }
    return errors;
  }

  /**
   * Sends a query that is answered by an IEEE 488.2 definite-length block.
   *
   * @param expectedBytes length that the block must have
   * @param into receives the block; at least expectedBytes long
   * @param extra more time than usual, for an acquisition that lasts
   */
  public void askBlock(String message, int expectedBytes, byte[] into, Duration extra) {
    begin(timeouts.withExtra(extra));
    send(message);
    int hash = readByte();
    if (hash != '#') {
      throw bad("a data block was expected, but the answer begins with " + printable(hash));
    }
    int digits = readByte() - '0';
    if (digits < 1 || digits > 9) {
      throw bad("the data block does not give its length");
    }
    long length = 0;
    for (int i = 0; i < digits; i++) {
      int d = readByte() - '0';
      if (d < 0 || d > 9) {
        throw bad("the length of the data block is not a number");
      }
      length = 10 * length + d;
    }
    if (length != expectedBytes || length > LONGEST_BLOCK) {
      throw bad(
          "the data block holds " + length + " bytes where " + expectedBytes + " were expected");
    }
    int got = 0;
    while (got < expectedBytes) {
      if (bufferAt == bufferEnd) {
        fill();
      }
      int run = Math.min(expectedBytes - got, bufferEnd - bufferAt);
      System.arraycopy(buffer, bufferAt, into, got, run);
      bufferAt += run;
      got += run;
    }
    int end = readByte();
    if (end == '\r') {
      end = readByte();
    }
    if (end != '\n') {
      throw bad("the data block is not followed by an end of line");
    }
    end();
  }

  private static boolean noError(String reply) {
    String number = reply.split(",", 2)[0].strip();
    return number.equals("0") || number.equals("+0");
  }

  private void begin(Timeouts limits) {
    deadlineNanos = System.nanoTime() + limits.call().toNanos();
    readLimit = limits.read();
    end();
  }

  /** Between two exchanges nothing may be under way: it would be taken for the next answer. */
  private void end() {
    try {
      if (bufferAt != bufferEnd || in.available() > 0) {
        throw bad("it sent more than it was asked for");
      }
    } catch (IOException e) {
      throw broken(e);
    }
  }

  private void send(String message) {
    try {
      out.write((message + "\n").getBytes(StandardCharsets.ISO_8859_1));
      out.flush();
    } catch (IOException e) {
      throw broken(e);
    }
  }

  private String line() {
    return line(LONGEST_LINE);
  }

  private String line(long longest) {
    StringBuilder text = new StringBuilder();
    while (true) {
      int c = readByte();
      if (c == '\n') {
        return text.toString().strip();
      }
      if (text.length() >= longest) {
        throw bad("its answer goes on without an end of line");
      }
      text.append((char) c);
    }
  }

  private int readByte() {
    if (bufferAt == bufferEnd) {
      fill();
    }
    return buffer[bufferAt++] & 0xff;
  }

  private void fill() {
    try {
      long leftMillis =
          Math.min(readLimit.toMillis(), (deadlineNanos - System.nanoTime()) / 1_000_000);
      if (leftMillis <= 0) {
        throw new SocketTimeoutException();
      }
      socket.setSoTimeout((int) leftMillis);
      int got = in.read(buffer, 0, buffer.length);
      if (got < 0) {
        throw new IOException("end of stream");
      }
      bufferAt = 0;
      bufferEnd = got;
    } catch (SocketTimeoutException e) {
      close();
      throw new InstrumentFault(
          Kind.TIMEOUT, "The instrument at " + address + " did not finish its answer in time.", e);
    } catch (IOException e) {
      throw broken(e);
    }
  }

  private InstrumentFault broken(IOException cause) {
    close();
    return new InstrumentFault(
        Kind.DISCONNECTED, "The connection to " + address + " broke.", cause);
  }

  private InstrumentFault bad(String what) {
    close();
    return new InstrumentFault(
        Kind.BAD_REPLY,
        "The answer of " + address + " makes no sense: " + what + ". Check kind and dialect.");
  }

  private static String printable(int c) {
    return c >= 32 && c < 127 ? "\"" + (char) c + "\"" : "byte " + c;
  }

  @Override
  public void close() {
    try {
      socket.close();
    } catch (IOException ignored) {
      // closing anyway
    }
  }
}
