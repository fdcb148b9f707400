/** The rules and the computation of the job: plain Java, no Spring, database, socket or screen. */
package rovnik.core;
