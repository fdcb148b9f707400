/** Network analyzers: raw ratios of their receivers, sweeps that take their time. */
package rovnik.instruments.network;
