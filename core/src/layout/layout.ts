import { z } from 'zod';
import { ROLES } from './words.ts';

/** Where keys stand. */
export type KeySource =
  | { readonly by: 'mark'; readonly mark: string }
  | { readonly by: 'line'; readonly name: string }
  | { readonly by: 'list' | 'file' | 'front' | 'hand' | 'none' };

/** How a document of questions is laid out, as people read and change it. */
export const Layout = z.object({
  /** The label of the first question, `1.` or `Question 1:`; `none` where questions have none. */
  question: z.string().max(60),
  /** The label of the first choice, `a.`, several with `|` between; `plain`: a line each without one; `none`. */
  choice: z.string().max(60),
  /** `mark bold`, `line Answer`, `list`, `file`, `front`, `none`. */
  key: z.string().max(80),
  /** What each labelled line means. */
  labels: z.record(z.string().max(120), z.enum(ROLES)),
  /** How points are said in the text: `points` with a word for them, `(`, `[`; null: they are not. */
  points: z.string().max(20).nullable().default(null),
  /** 0 to 1. */
  sure: z.number().min(0).max(1).default(1),
});
export type Layout = z.infer<typeof Layout>;

export const NONE = 'none';

export const sayKey = (source: KeySource): string =>
  source.by === 'mark' ? `mark ${source.mark}` : source.by === 'line' ? `line ${source.name}` : source.by;

/** The place of keys that a layout names; null where it names none that there is. */
export function keySourceOf(said: string): KeySource | null {
  const [by = '', ...rest] = said.trim().split(' ');
  const name = rest.join(' ');
  if (by === 'mark' && name !== '') return { by, mark: name };
  if (by === 'line' && name !== '') return { by, name };
  return by === 'list' || by === 'file' || by === 'front' || by === 'none' ? { by } : null;
}
