/** Is the crew covered: what has to be stood, by whom it is, and what falls short. */
package mellowrota.core.cover;
