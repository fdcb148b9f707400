package rovnik.server.bench;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rovnik.core.Refusal;
import rovnik.core.signal.TracesBeside;
import rovnik.core.signal.VoltageRecord;
import rovnik.instruments.InstrumentFault;
import rovnik.instruments.InstrumentKind;
import rovnik.instruments.scope.Oscilloscope;
import rovnik.instruments.scope.ScopeCapabilities;

/** Oscilloscopes that take voltages beside a receiver's record, on its trigger. */
@Component
public class Oscilloscopes {
  private static final String FIELD = "oscilloscopeId";

  private final BenchService bench;

  Oscilloscopes(BenchService bench) {
    this.bench = bench;
  }

  /** Waits for its trigger. */
  @FunctionalInterface
  public interface Armed {
    /** What it took; nothing if no trigger came, and then it waits no longer. */
    Optional<TracesBeside> taken();
  }

  /**
   * Refuses what an oscilloscope cannot take.
   *
   * @param id null for the only one
   */
  public void require(@Nullable Long id, TracesBeside.Wanted wanted) {
    ScopeCapabilities able = able(chosen(id));
    if (able.channels() < wanted.channels()) {
      throw new Refusal(FIELD, "The oscilloscope has only " + able.channels() + " channels.");
    }
    able.lasting(wanted.seconds());
  }

  private ScopeCapabilities able(long id) {
    return ScopeCapabilities.of(bench.dialect(id));
  }

  private long chosen(@Nullable Long id) {
    List<Long> all = bench.ofKind(InstrumentKind.OSCILLOSCOPE);
    if (id != null && !all.contains(id)) {
      throw new Refusal(FIELD, bench.nameOf(id) + " is no oscilloscope. Choose one.");
    }
    if (all.isEmpty()) {
      throw new Refusal(FIELD, "There is no oscilloscope. Add one at the Bench.");
    }
    if (id == null && all.size() > 1) {
      throw new Refusal(FIELD, "There are several oscilloscopes. Choose one.");
    }
    return id == null ? all.get(0) : id;
  }

  /** From now on it waits for the trigger that comes with the next record of the receiver. */
  public Armed arm(@Nullable Long chosen, TracesBeside.Wanted wanted) {
    long id = chosen(chosen);
    ScopeCapabilities able = able(id);
    asked(
        id,
        scope -> {
          scope.arm(able.lasting(wanted.seconds()));
          return true;
        });
    return () -> {
      List<VoltageRecord> taken = asked(id, Oscilloscopes::takenOrDisarmed);
      return taken.isEmpty()
          ? Optional.empty()
          : Optional.of(
              new TracesBeside(taken, able.triggerDelayHalfWidth(), able.clockRelative()));
    };
  }

  private static List<VoltageRecord> takenOrDisarmed(Oscilloscope scope) {
    if (scope.waits()) {
      scope.disarm();
      return List.of();
    }
    return scope.taken();
  }

  /** Its fault is not that of the receiver, on whose thread this is asked. */
  private <T> T asked(long id, Function<Oscilloscope, T> work) {
    try {
      return bench.loop(id).call(i -> work.apply((Oscilloscope) i));
    } catch (InstrumentFault f) {
      throw new Refusal(FIELD, bench.nameOf(id) + ": " + f.getMessage(), f);
    }
  }
}
