package rovnik.core.watch;

/**
 * A time outside a limit.
 *
 * @param reading which of those that are followed
 * @param fromMillis milliseconds since 1970
 * @param toMillis {@link Long#MAX_VALUE} while it goes on
 * @param worst the value furthest outside, NaN if the number was not there
 * @param kept what was kept of it, in words
 */
public record WatchEvent(int reading, long fromMillis, long toMillis, double worst, String kept) {}
