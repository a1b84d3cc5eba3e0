import { block as blockOf, tag as tagOf, type Attributes } from '../../xml/write.ts';
import { hyphens, type Dialect } from './names.ts';

/**
 * Writes elements under their QTI 2 names in the dialect asked for; names of HTML and MathML go as they are.
 */
export interface Markup {
  readonly dialect: Dialect;
  /** QTI's own element on one line. */
  readonly tag: (name: string, attrs?: Attributes, content?: string | readonly string[]) => string;
  /** QTI's own element with its children on lines of their own. */
  readonly block: (name: string, attrs: Attributes, children: readonly string[]) => string;
}

const KEEP = /^(?:data-|aria-|xml|xsi:)/u;

export function markupFor(dialect: Dialect): Markup {
  if (!dialect.hyphenated) return { dialect, tag: tagOf, block: blockOf };
  const element = (name: string): string => `qti-${hyphens(name)}`;
  const named = (attrs: Attributes): Attributes =>
    Object.fromEntries(Object.entries(attrs).map(([key, v]) => [KEEP.test(key) ? key : hyphens(key), v]));
  return {
    dialect,
    tag: (name, attrs = {}, content = '') => tagOf(element(name), named(attrs), content),
    block: (name, attrs, children) => blockOf(element(name), named(attrs), children),
  };
}
