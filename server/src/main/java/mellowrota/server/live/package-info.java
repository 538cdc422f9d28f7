/** Live events: what changed, as numbers, to whoever may open it. */
package mellowrota.server.live;
