package rovnik.core.nets;

/** What a net has to do with emissions, the likeliest cause first. */
public enum Relation {
  COINCIDENT("coincident"),
  IN_STEP("in step"),
  OPEN("too few bursts to tell"),
  UNRELATED("not related"),
  NO_EDGES("without edges");

  private final String words;

  Relation(String words) {
    this.words = words;
  }

  public String words() {
    return words;
  }
}
