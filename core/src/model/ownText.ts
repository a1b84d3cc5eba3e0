/** What is shorter is copied whenever it is cut out. */
const LEAST_CUT = 13;

/**
 * The same text in memory of its own: engines keep what was cut out of a document as a place in it, and the whole
 * document with it.
 */
export const ownText = (text: string): string => (text.length < LEAST_CUT ? text : structuredClone(text));
