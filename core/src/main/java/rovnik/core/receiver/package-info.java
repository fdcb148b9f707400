/** How weak a signal may get: level against quality, sensitivity, rejection of others. */
package rovnik.core.receiver;
