package rovnik.server.live;

/** What a kind of guided work is told: a record whose components are its fields. */
public interface GuidedForm {
  /** The work; a value that cannot be used is refused. */
  Guided<?> work();
}
