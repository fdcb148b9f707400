package rovnik.server.bench;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Function;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rovnik.core.Refusal;
import rovnik.instruments.BackOff;
import rovnik.instruments.Instrument;
import rovnik.instruments.InstrumentFault;

/**
 * The one owner of one instrument: a thread that connects, reconnects with back-off, runs single
 * calls one after the other, and between them repeats continuous work, the pieces of it in turns.
 * No call to one instrument can hold up another.
 */
public final class InstrumentLoop implements AutoCloseable {
  private static final Logger LOG = LoggerFactory.getLogger(InstrumentLoop.class);
  private static final long HEARTBEAT_NANOS = Duration.ofMillis(1500).toNanos();
  private static final Duration CALL_LIMIT = Duration.ofSeconds(15);

  /** So long an exchange may go on after its instrument is to be disconnected. */
  private static final Duration GRACE = Duration.ofSeconds(1);

  private static final long IDLE_NANOS = Duration.ofMillis(50).toNanos();
  private static final int MOST_KEPT_ERRORS = 30;
  private static final String NOT_CONNECTED =
      "The instrument is not connected. Connect it at the Bench.";

  /** Work that is repeated as long as it returns true. All methods run on the loop's thread. */
  public interface Continuous {
    /** One turn; it must not wait, see {@link #dueNanos}. */
    boolean step(Instrument instrument);

    /** When the next turn is due, in terms of {@link System#nanoTime}; calls go on until then. */
    default long dueNanos() {
      return System.nanoTime();
    }

    /** The instrument failed; if the connection was lost, the loop reconnects by itself. */
    void failed(String sentence, boolean connectionLost);

    /** A number could not be used: the work ends. */
    void refused(Refusal refusal);
  }

  private record Task<T>(Function<Instrument, T> work, CompletableFuture<T> result) {
    /** Runs the work; its failure goes to the caller and comes back here too. */
    RuntimeException run(Instrument instrument) {
      try {
        result.complete(work.apply(instrument));
        return null;
      } catch (RuntimeException e) {
        result.completeExceptionally(e);
        return e;
      }
    }
  }

  private final Supplier<Instrument> connector;
  private final Function<Instrument, String> heartbeat;
  private final BlockingQueue<Task<?>> queue = new LinkedBlockingQueue<>();
  private final BackOff backOff = new BackOff();
  private final List<String> errors = new ArrayList<>();
  private final Thread thread;
  private volatile boolean closed;
  private volatile boolean wanted;
  private final CopyOnWriteArrayList<Continuous> works = new CopyOnWriteArrayList<>();
  private volatile ConnectionState state = ConnectionState.DISCONNECTED;
  private volatile String message = "";
  private volatile String identity = "";
  private volatile Instrument instrument;
  private String lastLogged = "";
  private long nextAttemptNanos;
  private long nextHeartbeatNanos;

  /**
   * @param name of the instrument, for the thread
   * @param connector makes a connected driver
   * @param heartbeat asks for the state at rest; its answer is not used
   */
  InstrumentLoop(
      String name,
      boolean wanted,
      Supplier<Instrument> connector,
      Function<Instrument, String> heartbeat) {
    this.wanted = wanted;
    this.connector = connector;
    this.heartbeat = heartbeat;
    this.thread = new Thread(this::run, "instrument " + name);
    thread.setDaemon(true);
    thread.start();
  }

  public ConnectionState state() {
    return state == ConnectionState.CONNECTED && !works.isEmpty() ? ConnectionState.BUSY : state;
  }

  public String message() {
    return message;
  }

  public String identity() {
    return identity;
  }

  /** The instrument's own words of late, newest last. */
  public List<String> errors() {
    synchronized (errors) {
      return List.copyOf(errors);
    }
  }

  void setWanted(boolean on) {
    wanted = on;
    Task<?> task = change(on);
    queue.add(task);
    if (!on) {
      cutIfBusy(task);
    }
    await(task);
  }

  /** Whoever waits for an answer that does not come is cut off. */
  private void cutIfBusy(Task<?> task) {
    try {
      task.result().get(GRACE.toMillis(), TimeUnit.MILLISECONDS);
    } catch (TimeoutException busy) {
      Instrument there = instrument;
      if (there != null) {
        there.close();
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    } catch (ExecutionException e) {
      // told by await
    }
  }

  private Task<?> change(boolean on) {
    return new Task<>(
        i -> {
          backOff.reset();
          nextAttemptNanos = System.nanoTime();
          if (!on) {
            drop();
            state = ConnectionState.DISCONNECTED;
            message = "";
            works.forEach(this::missed);
          }
          return null;
        },
        new CompletableFuture<>());
  }

  /** Runs one call on the instrument and waits for its end. */
  public <T> T call(Function<Instrument, T> work) {
    Task<T> task =
        new Task<>(
            i -> {
              if (i == null) {
                throw new InstrumentFault(
                    InstrumentFault.Kind.UNREACHABLE, message.isEmpty() ? NOT_CONNECTED : message);
              }
              return work.apply(i);
            },
            new CompletableFuture<>());
    queue.add(task);
    return await(task);
  }

  private static <T> T await(Task<T> task) {
    try {
      return task.result().get(CALL_LIMIT.toMillis(), TimeUnit.MILLISECONDS);
    } catch (TimeoutException e) {
      task.result().cancel(false);
      throw new InstrumentFault(
          InstrumentFault.Kind.TIMEOUT, "The instrument is busy and did not answer in time.", e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new InstrumentFault(InstrumentFault.Kind.TIMEOUT, "Interrupted.", e);
    } catch (ExecutionException e) {
      if (e.getCause() instanceof RuntimeException r) {
        throw r;
      }
      throw new IllegalStateException(e.getCause());
    }
  }

  /**
   * Begins continuous work, or goes on with it; other work goes on beside it. It is told if there
   * is nobody to do it with.
   */
  public void begin(Continuous work) {
    works.addIfAbsent(work);
    queue.add(
        new Task<>( // wakes the loop as well
            i -> {
              if (i == null && works.contains(work)) {
                missed(work);
              }
              return null;
            },
            new CompletableFuture<>()));
  }

  /** Ends continuous work after its turn; nothing happens if it has ended already. */
  public void end(Continuous work) {
    remove(work);
  }

  private synchronized void remove(Continuous work) {
    works.remove(work);
  }

  private void missed(Continuous work) {
    work.failed(message.isEmpty() ? NOT_CONNECTED : message, true);
  }

  /**
   * Runs the calls that wait; for long work on this loop's own thread, between two of its parts.
   */
  public void serveCalls() {
    if (Thread.currentThread() != thread) {
      throw new IllegalStateException("only the work of this instrument may let others in");
    }
    Task<?> task;
    while ((task = queue.poll()) != null) {
      serve(task);
    }
  }

  private void run() {
    while (!closed) {
      try {
        turn();
      } catch (InterruptedException e) {
        break;
      } catch (RuntimeException e) {
        unexpected(e);
        nextHeartbeatNanos = System.nanoTime() + HEARTBEAT_NANOS;
      }
    }
    drop();
  }

  private void turn() throws InterruptedException {
    long now = System.nanoTime();
    if (wanted && instrument == null && now >= nextAttemptNanos) {
      connect();
    }
    Continuous work = instrument == null ? null : mostDue();
    long wait = work == null ? IDLE_NANOS : Math.min(IDLE_NANOS, work.dueNanos() - now);
    Task<?> task = wait <= 0 ? queue.poll() : queue.poll(wait, TimeUnit.NANOSECONDS);
    if (task != null) {
      serve(task);
    } else if (work != null) {
      if (work.dueNanos() <= System.nanoTime() && works.contains(work)) {
        step(work);
      }
    } else if (instrument != null && System.nanoTime() >= nextHeartbeatNanos) {
      nextHeartbeatNanos = System.nanoTime() + HEARTBEAT_NANOS;
      guarded(() -> heartbeat.apply(instrument));
    }
  }

  private void serve(Task<?> task) {
    if (!task.result().isCancelled()) {
      RuntimeException failure = task.run(instrument);
      if (failure instanceof InstrumentFault fault && instrument != null) {
        fault(fault);
      }
    }
  }

  /** The work whose turn it is; of those that are due alike, the one that waits longest. */
  private Continuous mostDue() {
    Continuous best = null;
    for (Continuous w : works) {
      if (best == null || w.dueNanos() < best.dueNanos()) {
        best = w;
      }
    }
    if (works.size() > 1 && best != null && best.dueNanos() <= System.nanoTime()) {
      best = works.get(0).dueNanos() <= System.nanoTime() ? works.get(0) : best;
      lastServed(best);
    }
    return best;
  }

  /** Who is served goes to the end of the row, unless it was ended meanwhile. */
  private synchronized void lastServed(Continuous work) {
    if (works.remove(work)) {
      works.addIfAbsent(work);
    }
  }

  private void step(Continuous work) {
    try {
      if (!work.step(instrument)) {
        works.remove(work);
      }
      if (state == ConnectionState.ERROR) {
        state = ConnectionState.CONNECTED;
        message = "";
      }
    } catch (InstrumentFault fault) {
      fault(fault);
      if (!fault.connectionLost()) {
        works.remove(work);
      }
      works.stream().filter(w -> w != work && fault.connectionLost()).forEach(this::missed);
      work.failed(fault.getMessage(), fault.connectionLost());
    } catch (Refusal refusal) {
      works.remove(work);
      work.refused(refusal);
    } catch (OutOfMemoryError tooLong) {
      works.remove(work);
      drop(); // what it still sends belongs to nobody
      work.refused(
          new Refusal(
              "seconds",
              "There is not enough memory for a record that long. Take a shorter result, or give the"
                  + " server more (ROVNIK_MEMORY)."));
    } catch (RuntimeException e) {
      works.remove(work);
      work.failed(unexpected(e), false);
    }
  }

  /** A mistake of ours: said where the instrument is shown, and logged once. */
  private String unexpected(RuntimeException e) {
    String what = String.valueOf(e);
    if (!closed && !what.equals(lastLogged)) { // what is removed may stumble over its own absence
      lastLogged = what;
      LOG.error("instrument loop", e);
    }
    message =
        "Something went wrong inside Rovnik with this instrument. The server's log says more.";
    state = instrument == null ? state : ConnectionState.ERROR;
    note(message);
    return message;
  }

  private void guarded(Runnable work) {
    try {
      work.run();
    } catch (InstrumentFault fault) {
      fault(fault);
    }
  }

  private void connect() {
    state = state == ConnectionState.LOST ? ConnectionState.LOST : ConnectionState.CONNECTING;
    try {
      instrument = connector.get();
      if (closed) {
        return; // removed while it connected
      }
      identity = instrument.identity();
      message = "";
      backOff.reset();
      // It counts as connected once its state is known: others ask for it at once.
      nextHeartbeatNanos = System.nanoTime() + HEARTBEAT_NANOS;
      heartbeat.apply(instrument);
      state = ConnectionState.CONNECTED;
    } catch (InstrumentFault | Refusal e) {
      drop();
      state = identity.isEmpty() ? ConnectionState.ERROR : ConnectionState.LOST;
      message = e.getMessage();
      nextAttemptNanos = System.nanoTime() + backOff.next().toNanos();
    }
  }

  private void fault(InstrumentFault fault) {
    if (!wanted) {
      drop(); // cut off: nobody wants to hear that the connection broke
      state = ConnectionState.DISCONNECTED;
      return;
    }
    note(fault.getMessage());
    message = fault.getMessage();
    if (fault.connectionLost()) {
      drop();
      state = ConnectionState.LOST;
      nextAttemptNanos = System.nanoTime() + backOff.next().toNanos();
    } else {
      state = ConnectionState.ERROR;
    }
  }

  private void note(String sentence) {
    synchronized (errors) {
      errors.add(sentence);
      if (errors.size() > MOST_KEPT_ERRORS) {
        errors.remove(0);
      }
    }
  }

  private void drop() {
    Instrument there = instrument;
    if (there != null) {
      there.close();
      instrument = null;
    }
  }

  @Override
  public void close() {
    closed = true;
    wanted = false;
    thread.interrupt();
    Instrument there = instrument;
    if (there != null) {
      there.close(); // ends an exchange that waits
    }
  }
}
