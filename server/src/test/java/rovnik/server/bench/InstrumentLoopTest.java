package rovnik.server.bench;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BooleanSupplier;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.instruments.Instrument;
import rovnik.instruments.InstrumentFault;
import rovnik.instruments.InstrumentFault.Kind;

public class InstrumentLoopTest {
  private static final class Fake implements Instrument {
    @Override
    public String identity() {
      return "fake";
    }

    @Override
    public void reset() {}

    @Override
    public List<String> errors() {
      return List.of();
    }

    @Override
    public void close() {}
  }

  private final AtomicBoolean there = new AtomicBoolean(true);
  private final AtomicInteger connections = new AtomicInteger();
  private InstrumentLoop loop;

  private void begin() {
    there.set(true);
    connections.set(0);
    loop = new InstrumentLoop("fake", true, this::connect, i -> "");
    await(() -> loop.state() == ConnectionState.CONNECTED);
  }

  private Instrument connect() {
    if (!there.get()) {
      throw new InstrumentFault(Kind.UNREACHABLE, "nobody there");
    }
    connections.incrementAndGet();
    return new Fake();
  }

  @AfterMethod
  public void end() {
    loop.close();
  }

  private static void await(BooleanSupplier condition) {
    long end = System.nanoTime() + 10_000_000_000L;
    while (!condition.getAsBoolean()) {
      assertTrue(System.nanoTime() < end, "waited in vain");
      java.util.concurrent.locks.LockSupport.parkNanos(5_000_000);
    }
  }

  @Test
  public void reconnectsByItselfAfterALoss() {
    begin();
    there.set(false);
    expectThrows(
        InstrumentFault.class,
        () ->
            loop.call(
                i -> {
                  throw new InstrumentFault(Kind.DISCONNECTED, "cable pulled");
                }));
    await(() -> loop.state() == ConnectionState.LOST);
    InstrumentFault meanwhile =
        expectThrows(InstrumentFault.class, () -> loop.call(Instrument::identity));
    assertTrue(!meanwhile.getMessage().isBlank());
    there.set(true);
    await(() -> loop.state() == ConnectionState.CONNECTED);
    assertEquals(connections.get(), 2);
    assertEquals(loop.errors(), List.of("cable pulled"));
  }

  @Test
  public void anErrorOfItsOwnKeepsTheConnection() {
    begin();
    expectThrows(
        InstrumentFault.class,
        () ->
            loop.call(
                i -> {
                  throw new InstrumentFault(Kind.REPORTED, "-222 out of range");
                }));
    await(() -> loop.state() == ConnectionState.ERROR);
    assertEquals(loop.call(Instrument::identity), "fake");
    assertEquals(connections.get(), 1);
  }

  @Test
  public void callsRunBetweenTheStepsOfContinuousWorkAndARefusalEndsIt() {
    begin();
    AtomicInteger steps = new AtomicInteger();
    AtomicInteger refusals = new AtomicInteger();
    loop.begin(
        new InstrumentLoop.Continuous() {
          @Override
          public boolean step(Instrument instrument) {
            if (steps.incrementAndGet() == 50) {
              throw new Refusal("spanHz", "no");
            }
            java.util.concurrent.locks.LockSupport.parkNanos(1_000_000);
            return true;
          }

          @Override
          public void failed(String sentence, boolean connectionLost) {}

          @Override
          public void refused(Refusal refusal) {
            refusals.incrementAndGet();
          }
        });
    assertEquals(loop.call(Instrument::identity), "fake");
    await(() -> refusals.get() == 1);
    await(() -> loop.state() == ConnectionState.CONNECTED);
    assertEquals(steps.get(), 50);
  }

  /** An instrument that never answers until somebody closes the connection. */
  private static final class Silent implements Instrument {
    private final CountDownLatch closed = new CountDownLatch(1);

    @Override
    public String identity() {
      return "silent";
    }

    @Override
    public void reset() {
      try {
        closed.await();
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
      }
      throw new InstrumentFault(Kind.DISCONNECTED, "the connection broke");
    }

    @Override
    public List<String> errors() {
      return List.of();
    }

    @Override
    public void close() {
      closed.countDown();
    }
  }

  private Thread waitInSilence() {
    loop = new InstrumentLoop("silent", true, Silent::new, i -> "");
    await(() -> loop.state() == ConnectionState.CONNECTED);
    AtomicReference<Thread> owner = new AtomicReference<>();
    loop.begin(
        new Ignoring() {
          @Override
          public boolean step(Instrument instrument) {
            owner.set(Thread.currentThread());
            instrument.reset();
            return true;
          }
        });
    await(() -> owner.get() != null);
    return owner.get();
  }

  /** Work that does not mind what happens to it. */
  private abstract static class Ignoring implements InstrumentLoop.Continuous {
    @Override
    public void failed(String sentence, boolean connectionLost) {}

    @Override
    public void refused(Refusal refusal) {}
  }

  /** A record that the memory does not hold ends its work with a sentence; the loop lives on. */
  @Test
  public void tooLittleMemoryIsARefusal() {
    begin();
    AtomicReference<Refusal> told = new AtomicReference<>();
    loop.begin(
        new Ignoring() {
          @Override
          public boolean step(Instrument instrument) {
            throw new OutOfMemoryError("a record");
          }

          @Override
          public void refused(Refusal refusal) {
            told.set(refusal);
          }
        });
    await(() -> told.get() != null);
    assertEquals(told.get().field(), "seconds");
    await(() -> connections.get() == 2 && loop.state() == ConnectionState.CONNECTED);
    assertEquals(loop.call(Instrument::identity), "fake");
  }

  @Test(timeOut = 10_000)
  public void disconnectingCutsAWaitThatHasNoEnd() {
    waitInSilence();
    loop.setWanted(false);
    assertEquals(loop.state(), ConnectionState.DISCONNECTED);
    assertEquals(loop.errors(), List.of());
  }

  @Test(timeOut = 10_000)
  public void theThreadEndsWithItsInstrument() throws InterruptedException {
    Thread owner = waitInSilence();
    loop.close();
    owner.join(5000);
    assertTrue(!owner.isAlive(), "the thread outlives its instrument");
  }

  @Test
  public void aMistakeOfOursEndsTheWorkAndIsSaidOnce() {
    begin();
    AtomicInteger turns = new AtomicInteger();
    AtomicReference<String> said = new AtomicReference<>();
    loop.begin(
        new Ignoring() {
          @Override
          public boolean step(Instrument instrument) {
            turns.incrementAndGet();
            throw new ArithmeticException("overflow");
          }

          @Override
          public void failed(String sentence, boolean connectionLost) {
            said.set(sentence);
          }
        });
    await(() -> said.get() != null);
    assertEquals(turns.get(), 1);
    assertTrue(said.get().contains("inside Rovnik"), said.get());
    assertEquals(loop.call(Instrument::identity), "fake");
  }

  /** Two works take turns while one of them ends and begins anew: it stands in the row once. */
  @Test
  public void whatEndedStaysEndedWhileAnotherGoesOn() {
    begin();
    Counting other = new Counting();
    Counting one = new Counting();
    loop.begin(other);
    for (int round = 0; round < 300; round++) {
      loop.begin(one);
      loop.begin(one);
      int before = one.steps.get();
      await(() -> one.steps.get() > before);
      loop.end(one);
      loop.call(Instrument::identity); // what was under way has ended
      int ended = one.steps.get();
      int others = other.steps.get();
      await(() -> other.steps.get() > others + 2);
      assertEquals(one.steps.get(), ended, "round " + round);
    }
  }

  private static final class Counting extends Ignoring {
    private final AtomicInteger steps = new AtomicInteger();

    @Override
    public boolean step(Instrument instrument) {
      steps.incrementAndGet();
      return true;
    }
  }
}
