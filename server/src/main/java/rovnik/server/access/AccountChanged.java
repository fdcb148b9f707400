package rovnik.server.access;

/**
 * An account was changed or removed: whoever has signed in with it must do so again.
 *
 * @param name empty for all that did not have to sign in until now
 */
public record AccountChanged(String name) {}
