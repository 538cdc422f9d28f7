/** Chains and methods of notice as they are kept. */
package mellowrota.server.deadlines.store;
