/** People, teams, places and roles of the house. */
package mellowrota.server.crew;
