/** Oscilloscopes that take voltages beside a receiver, on its trigger. */
package rovnik.instruments.scope;
