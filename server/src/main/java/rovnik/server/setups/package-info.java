/** Settings kept by name, and settings files, of any measurement. */
package rovnik.server.setups;
