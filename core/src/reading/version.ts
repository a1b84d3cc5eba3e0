/**
 * Raised whenever the same bytes are read into another tree, or what is kept beside its items (fingerprints, kinds, keys,
 * what their scoring is recognised as) comes out otherwise: what was read before is then read anew.
 */
export const READER_VERSION = 8;
