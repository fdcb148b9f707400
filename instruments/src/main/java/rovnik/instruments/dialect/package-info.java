/**
 * How an instrument words its commands: YAML, one file a dialect, chosen by what the instrument
 * answers when asked who it is.
 */
package rovnik.instruments.dialect;
