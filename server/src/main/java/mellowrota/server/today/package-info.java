/** What wants somebody today: the office's list, and each one's own day. */
package mellowrota.server.today;
