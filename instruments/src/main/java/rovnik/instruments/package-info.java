/**
 * What can be done with an instrument of each kind, over sockets. An instrument offers {@code
 * Control}s, which the Bench draws and switches without knowing its kind.
 */
package rovnik.instruments;
