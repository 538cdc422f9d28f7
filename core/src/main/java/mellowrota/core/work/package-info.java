/** What there is to do: records with their visits, people, details, and their shapes of time. */
package mellowrota.core.work;
