/** Raised whenever the same bytes are read into another tree: what was read before is then read anew. */
export const READER_VERSION = 8;
