/** Files of the data folder that the database does not know, and how they are read in again. */
@org.jspecify.annotations.NullMarked
package rovnik.server.found;
