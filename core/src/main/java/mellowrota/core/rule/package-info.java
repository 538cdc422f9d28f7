/** Which records land on which calendars, in which shape, and why or why not. */
package mellowrota.core.rule;
