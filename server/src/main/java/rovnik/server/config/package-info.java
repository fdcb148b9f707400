/**
 * What all requests share: the one error shape, partial changes, refusal of unknown fields, the
 * description of the interface.
 */
package rovnik.server.config;
