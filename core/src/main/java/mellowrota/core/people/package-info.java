/** Who there is: people, nested teams, roles, and the capacities in which somebody reads. */
package mellowrota.core.people;
