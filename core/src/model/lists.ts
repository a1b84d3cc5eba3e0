/** What lists hold that hold nothing: one for all, so that trees of many items stay small. */
export const NONE: readonly never[] = [];

/** The same for attributes. */
export const NO_ATTRIBUTES: Readonly<Record<string, string>> = Object.freeze({});

/**
 * A list as it is to be kept: one that has grown by pushing holds room for more, which is most of what short ones
 * take.
 */
export const cutList = <T>(list: readonly T[]): readonly T[] => (list.length === 0 ? NONE : list.slice());
