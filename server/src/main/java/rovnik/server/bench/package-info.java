/**
 * Instruments and their loops: one thread owns each, everything else asks it. Kinds, controls and
 * addresses are offered from here.
 */
package rovnik.server.bench;
