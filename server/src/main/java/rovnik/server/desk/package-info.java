/**
 * Arrangements of tiles, kept by name for an area of the desk. What a tile shows is a word between
 * the screen and its catalogue of views; the server keeps it and says nothing of it.
 */
@NullMarked
package rovnik.server.desk;

import org.jspecify.annotations.NullMarked;
