/** What every feature may use: the clock, problem details, JSON, request ids, who asks. */
package mellowrota.server.platform;
