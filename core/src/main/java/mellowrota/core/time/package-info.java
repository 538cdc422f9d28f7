/**
 * Half-open spans of instants and of days, and how local times become instants. Nothing is null.
 */
package mellowrota.core.time;
