package rovnik.standins.scpi;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.function.Supplier;

/**
 * The common part of a SCPI instrument: IEEE 488.2 common commands, status registers, error queue,
 * and a table of commands. One program message at a time: callers hold the instrument's lock.
 */
public abstract class ScpiInstrument {
  private static final int QUEUE_LENGTH = 20;

  private record Command(Header header, Consumer<String> set, Supplier<byte[]> query) {}

  private static final byte[] NO_BLOCK = {};
  private final List<Command> commands = new ArrayList<>();
  private final Deque<String> errors = new ArrayDeque<>();
  private final String identity;
  private int eventStatus = 128; // power on
  private int eventEnable;
  private int serviceEnable;
  private byte[] block = NO_BLOCK;

  protected ScpiInstrument(String identity) {
    this.identity = identity;
    query("*IDN", () -> identity);
    set("*RST", p -> reset());
    set("*CLS", p -> clearStatus());
    query("*ESR", this::takeEventStatus);
    both("*ESE", p -> eventEnable = integer(p, 0, 255), () -> "" + eventEnable);
    both("*SRE", p -> serviceEnable = integer(p, 0, 255), () -> "" + serviceEnable);
    query("*STB", () -> "" + statusByte());
    both("*OPC", p -> eventStatus |= 1, () -> "1");
    set("*WAI", p -> {});
    query("*TST", () -> "0");
    query("SYSTem:ERRor[:NEXT]", () -> errors.isEmpty() ? "0,\"No error\"" : errors.poll());
    query("SYSTem:ERRor:COUNt", () -> "" + errors.size());
    query("SYSTem:VERSion", () -> "1999.0");
    query("STATus:QUEStionable:CONDition", () -> "" + questionable());
    query("STATus:QUEStionable[:EVENt]", () -> "" + questionable());
    query("STATus:OPERation:CONDition", () -> "" + operation());
    set("STATus:PRESet", p -> {});
  }

  /** Back to the state after switching on, as *RST wants; not the error queue. */
  protected abstract void reset();

  /** The questionable-status condition register. */
  protected int questionable() {
    return 0;
  }

  /** The operation-status condition register. */
  protected int operation() {
    return 0;
  }

  /** The block that came with the command that is being run; empty if none did. */
  protected final byte[] block() {
    return block;
  }

  public String identity() {
    return identity;
  }

  protected final void set(String header, Consumer<String> action) {
    commands.add(new Command(new Header(header), action, null));
  }

  protected final void query(String header, Supplier<String> reply) {
    queryBytes(header, () -> reply.get().getBytes(StandardCharsets.ISO_8859_1));
  }

  protected final void queryBytes(String header, Supplier<byte[]> reply) {
    commands.add(new Command(new Header(header), null, reply));
  }

  protected final void both(String header, Consumer<String> action, Supplier<String> reply) {
    set(header, action);
    query(header, reply);
  }

  /**
   * Runs one program message: units split by semicolons, each header relative to the one before
   * unless it begins with a colon or a star.
   *
   * @return the response without its end of line, or null if there was no query
   */
  public final synchronized byte[] run(String message) {
    return run(message, NO_BLOCK);
  }

  /** The same with the block that stood in the message; "#" is left in its place. */
  final synchronized byte[] run(String message, byte[] with) {
    block = with;
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    boolean answered = false;
    String branch = "";
    for (String raw : message.split(";")) {
      String unit = raw.strip();
      if (unit.isEmpty()) {
        continue;
      }
      String[] parts = unit.split("\\s+", 2);
      String header = parts[0].toUpperCase(Locale.ROOT);
      String parameter = parts.length > 1 ? parts[1].strip() : "";
      boolean isQuery = header.endsWith("?");
      String name = isQuery ? header.substring(0, header.length() - 1) : header;
      boolean absolute = name.startsWith(":") || name.startsWith("*");
      name = name.startsWith(":") ? name.substring(1) : name;
      Command command = absolute ? null : find(branch + name, isQuery);
      String full = command == null ? name : branch + name;
      command = command == null ? find(name, isQuery) : command;
      if (!name.startsWith("*")) {
        branch = full.substring(0, full.lastIndexOf(':') + 1);
      }
      try {
        if (command == null) {
          throw new ScpiError(-113, "Undefined header; " + parts[0]);
        }
        if (isQuery) {
          byte[] reply = command.query().get();
          if (answered) {
            out.write(';');
          }
          out.writeBytes(reply);
          answered = true;
        } else {
          command.set().accept(parameter);
        }
      } catch (ScpiError e) {
        raise(e.code(), e.getMessage());
      }
    }
    return answered ? out.toByteArray() : null;
  }

  private Command find(String name, boolean isQuery) {
    for (Command c : commands) {
      if ((c.query() != null) == isQuery && c.header().matches(name)) {
        return c;
      }
    }
    return null;
  }

  /** Puts an error in the queue and in the event status register (SCPI-99 volume 2, 21.8). */
  public final synchronized void raise(int code, String text) {
    if (errors.size() >= QUEUE_LENGTH) {
      errors.pollLast();
      errors.add("-350,\"Queue overflow\"");
    } else {
      errors.add(code + ",\"" + text.replace('"', '\'') + "\"");
    }
    if (code <= -400) {
      eventStatus |= 4;
    } else if (code > -200 && code < 0) {
      eventStatus |= 32;
    } else if (code > -300 && code < 0) {
      eventStatus |= 16;
    } else {
      eventStatus |= 8;
    }
  }

  private String takeEventStatus() {
    int value = eventStatus;
    eventStatus = 0;
    return "" + value;
  }

  private int statusByte() {
    int status = errors.isEmpty() ? 0 : 4;
    status |= questionable() == 0 ? 0 : 8;
    status |= (eventStatus & eventEnable) == 0 ? 0 : 32;
    return status | ((status & serviceEnable) == 0 ? 0 : 64);
  }

  private void clearStatus() {
    errors.clear();
    eventStatus = 0;
  }

  /** A number with an optional unit, or MINimum / MAXimum. */
  protected static double number(String parameter, double min, double max) {
    if (parameter.isEmpty()) {
      throw new ScpiError(-109, "Missing parameter");
    }
    String p = parameter.toUpperCase(Locale.ROOT);
    if (p.equals("MIN") || p.equals("MINIMUM")) {
      return min;
    }
    if (p.equals("MAX") || p.equals("MAXIMUM")) {
      return max;
    }
    var m =
        java.util.regex.Pattern.compile(
                "([+-]?(?:\\d+\\.?\\d*|\\.\\d+)(?:E[+-]?\\d+)?)\\s*(GHZ|MHZ|KHZ|HZ|DB|DBM|V|NS|US|MS|S)?")
            .matcher(p);
    if (!m.matches()) {
      throw new ScpiError(-104, "Data type error; " + parameter);
    }
    double scale =
        switch (m.group(2) == null ? "" : m.group(2)) {
          case "GHZ" -> 1e9;
          case "MHZ" -> 1e6;
          case "KHZ" -> 1e3;
          case "MS" -> 1e-3;
          case "US" -> 1e-6;
          case "NS" -> 1e-9;
          default -> 1;
        };
    double value = Double.parseDouble(m.group(1)) * scale;
    if (!(value >= min && value <= max)) {
      throw ScpiError.outOfRange(parameter + " is not in " + min + " to " + max);
    }
    return value;
  }

  protected static int integer(String parameter, int min, int max) {
    return (int) Math.round(number(parameter, min, max));
  }

  protected static boolean onOff(String parameter) {
    return switch (parameter.toUpperCase(Locale.ROOT)) {
      case "ON", "1" -> true;
      case "OFF", "0" -> false;
      default -> throw ScpiError.illegalValue(parameter);
    };
  }
}
