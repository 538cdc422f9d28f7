/**
 * Every write is an act: one transaction with its reason, its history and its undo. This feature
 * owns the transaction and knows no other feature.
 */
package mellowrota.server.acts;
