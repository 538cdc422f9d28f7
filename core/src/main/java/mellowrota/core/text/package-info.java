/** Words as people type them. */
package mellowrota.core.text;
