/**
 * What of a record an audience is shown: wordings, and the one definition of who may see what. Only
 * a {@link mellowrota.core.sight.Face} may leave for other eyes.
 */
package mellowrota.core.sight;
