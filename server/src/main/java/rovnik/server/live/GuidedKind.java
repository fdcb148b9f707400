package rovnik.server.live;

/**
 * A kind of guided work.
 *
 * @param id stable key, such as "harmonics"
 * @param title as shown
 * @param about what it does, in a sentence
 * @param form what it is told, with the values to begin with
 */
public record GuidedKind(String id, String title, String about, GuidedForm form) {}
