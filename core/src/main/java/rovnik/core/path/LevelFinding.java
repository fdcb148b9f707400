package rovnik.core.path;

/**
 * One thing wrong with a level plan.
 *
 * @param element index of the element in the path
 * @param severity how bad
 * @param excessDb how far the expected level lies above the limit, or, for a narrow headroom, above
 *     the limit less the wanted headroom
 * @param padDb the standard pad to add before the element, or NaN if none helps
 * @param sentence what is wrong and what to do
 */
public record LevelFinding(
    int element, Severity severity, double excessDb, double padDb, String sentence) {
  /** How bad a finding is. */
  public enum Severity {
    /** Would destroy the element: no acquisition without an override. */
    DAMAGE,
    /** Would drive the element out of its linear range: no acquisition without an override. */
    OVERLOAD,
    /** Less headroom than wanted: only said. */
    NARROW
  }
}
