/**
 * What lies between the device and the port: gains, planes, levels and the level plan. {@code
 * PathCorrection} is the only one who moves a level from plane to plane.
 */
package rovnik.core.path;
