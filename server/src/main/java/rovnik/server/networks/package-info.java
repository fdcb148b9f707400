/** Networks that are known by files, and the views of any network. */
package rovnik.server.networks;
