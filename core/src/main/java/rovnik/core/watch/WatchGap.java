package rovnik.core.watch;

/**
 * A time in which nothing was seen.
 *
 * @param fromMillis milliseconds since 1970
 * @param toMillis {@link Long#MAX_VALUE} while it goes on
 * @param why in words
 */
public record WatchGap(long fromMillis, long toMillis, String why) {}
