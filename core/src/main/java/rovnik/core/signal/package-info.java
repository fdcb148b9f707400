/** Windows, transforms and records of samples, over plain arrays. */
package rovnik.core.signal;
