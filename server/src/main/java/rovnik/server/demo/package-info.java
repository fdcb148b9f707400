/** Invented sample data, made through the same services as a user would. */
package rovnik.server.demo;
