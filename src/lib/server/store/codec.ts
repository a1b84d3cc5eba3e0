import { z } from 'zod';

/** Turns the document of one version into that of the next. */
type Step = (old: unknown) => unknown;

/** A document that stands in a column as JSON. */
interface Codec<T> {
  /** @throws DocumentError where the text is no document of this kind */
  readonly read: (text: string) => T;
  readonly readOptional: (text: string | null) => T | null;
  readonly write: (value: T) => string;
}

export class DocumentError extends Error {
  constructor(kind: string, problem: string) {
    super(`A ${kind} in the database is not in the form expected: ${problem}`);
    this.name = 'DocumentError';
  }
}

/** Beside the fields of an object; a list is wrapped, so that it can carry its version too. */
const VERSION = '$v';
const LIST = '$list';

/**
 * The one way in and out of a column for a kind of document. What is written carries its version; what was
 * written by an older version goes up step by step before it is checked. Documents without a version are of
 * version 1.
 * @param ups the way up: the first step leads from version 1 to 2
 */
export function codec<T>(kind: string, schema: z.ZodType<T>, ups: readonly Step[] = []): Codec<T> {
  const current = ups.length + 1;
  const read = (text: string): T => {
    const { version, body } = opened(kind, text);
    if (version > current)
      throw new DocumentError(kind, `it is of version ${version}, this is version ${current}`);
    const parsed = schema.safeParse(ups.slice(version - 1).reduce((old, up) => up(old), body));
    if (!parsed.success) throw new DocumentError(kind, z.prettifyError(parsed.error).split('\n')[0] ?? '');
    return parsed.data;
  };
  return {
    read,
    readOptional: (text) => (text === null ? null : read(text)),
    write: (value) =>
      JSON.stringify(
        Array.isArray(value) ? { [VERSION]: current, [LIST]: value } : { [VERSION]: current, ...value },
      ),
  };
}

function opened(kind: string, text: string): { version: number; body: unknown } {
  let body: unknown;
  try {
    body = JSON.parse(text);
  } catch (error) {
    throw new DocumentError(kind, (error as Error).message);
  }
  if (typeof body !== 'object' || body === null || !Object.hasOwn(body, VERSION)) return { version: 1, body };
  const { [VERSION]: version, ...rest } = body as Record<string, unknown>;
  return { version: Number(version), body: Object.hasOwn(rest, LIST) ? rest[LIST] : rest };
}
