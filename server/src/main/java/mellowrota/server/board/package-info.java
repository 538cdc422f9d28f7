/**
 * What lies on the board in a range of days: work, hours and absences, as one asker may see them.
 */
package mellowrota.server.board;
