package rovnik.instruments;

import java.util.Map;

/**
 * Something about an instrument that the user should know, and what can be done about it.
 *
 * @param sentence what is so
 * @param offer what can be done, in a few words; "" for nothing
 * @param values controls to set for it
 */
public record Hint(String sentence, String offer, Map<String, String> values) {}
