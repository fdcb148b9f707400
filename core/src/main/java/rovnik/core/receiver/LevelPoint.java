package rovnik.core.receiver;

/** How well a receiver did at a level. */
public record LevelPoint(double dbm, Quality quality) {
  /** The same level with what was seen of it later. */
  LevelPoint plus(Quality more) {
    return new LevelPoint(dbm, quality.plus(more));
  }
}
