/** Case, accents and blanks aside, two names that people would call the same. */
export const foldName = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
