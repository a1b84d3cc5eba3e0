import type { Answers, Item } from '@alforja/core';

type Value = string | number | boolean;

/** The answers a person gives while trying an item. */
export class AnswerSheet {
  /** By response; a map, since a response may bear any name. Replaced, never changed in place. */
  #values = $state.raw<ReadonlyMap<string, readonly Value[]>>(new Map());
  live = $state(false);

  of(response: string): readonly Value[] {
    return this.#values.get(response) ?? [];
  }

  set(response: string, values: readonly Value[]): void {
    const next = new Map(this.#values);
    if (values.length === 0) next.delete(response);
    else next.set(response, [...values]);
    this.#values = next;
  }

  /** Answers that were given before. */
  restore(answers: Answers): void {
    this.#values = new Map(Object.entries(answers).filter(([, values]) => values.length > 0));
  }

  toggle(response: string, choice: string, single: boolean): void {
    const had = this.of(response);
    if (single) this.set(response, [choice]);
    else this.set(response, had.includes(choice) ? had.filter((v) => v !== choice) : [...had, choice]);
  }

  /** One pair of a response: what stands at one end replaces what stood there. '' takes it away. */
  pair(response: string, end: string, other: string, side: 'left' | 'right'): void {
    const rest = this.of(response).filter((v) => String(v).split(' ')[side === 'left' ? 0 : 1] !== end);
    const made = side === 'left' ? `${end} ${other}` : `${other} ${end}`;
    this.set(response, other === '' ? rest : [...rest, made]);
  }

  /** Text as typed; where the response is a number, a decimal comma counts as a point. */
  type(response: string, text: string, numeric: boolean): void {
    const trimmed = text.trim();
    if (trimmed === '') this.set(response, []);
    else if (numeric && Number.isFinite(Number(trimmed.replace(',', '.'))))
      this.set(response, [Number(trimmed.replace(',', '.'))]);
    else this.set(response, [text]);
  }

  get answers(): Answers {
    return Object.fromEntries(this.#values);
  }
}

/** What showing an item needs beside its content. */
export interface Showing {
  /** Where files of the package are served from. */
  readonly files: string;
  readonly sheet: AnswerSheet | null;
  /** Identifiers of what is right, marked while nobody tries. */
  readonly keyed: ReadonlySet<string>;
  /** Responses that are numbers, and responses of several values. */
  readonly numeric: ReadonlySet<string>;
  readonly several: ReadonlySet<string>;
  /** Values of template and outcome variables that the text prints. */
  readonly printed: Readonly<Record<string, string>>;
}

/** Which responses of an item are numbers, and which take several values. */
export const typesOf = (responses: Item['responses']): Pick<Showing, 'numeric' | 'several'> => ({
  numeric: new Set(
    responses.filter((r) => r.baseType === 'float' || r.baseType === 'integer').map((r) => r.id),
  ),
  several: new Set(responses.filter((r) => r.cardinality !== 'single').map((r) => r.id)),
});

export const plainShowing = (files: string): Showing => ({
  files,
  sheet: null,
  keyed: new Set(),
  numeric: new Set(),
  several: new Set(),
  printed: {},
});

/** The address of a package file, for the page. */
export const fileAddress = (files: string, path: string): string =>
  path.startsWith('data:') ? path : `${files}?path=${encodeURIComponent(path)}`;
