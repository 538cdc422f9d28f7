/**
 * How looks, changes of the rules and what records read are kept; each table is named here alone.
 */
package mellowrota.server.rules.store;
