/** The receiver area: what a receiver makes of what a generator sends it, level by level. */
@NullMarked
package rovnik.server.receiver;

import org.jspecify.annotations.NullMarked;
