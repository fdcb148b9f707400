/** What comes and goes: live, on file, and by name. */
@org.jspecify.annotations.NullMarked
package rovnik.server.time;
