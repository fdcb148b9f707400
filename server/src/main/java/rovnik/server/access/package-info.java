/**
 * Who may do what: accounts with one of three roles, signing in, the password of the start, the
 * certificate of a server that listens on a network. Without an account and a password, on
 * loopback, everybody may do everything.
 */
package rovnik.server.access;
