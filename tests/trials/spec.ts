/**
 * What a trial carries, said without any format: the writers beside this file write it down, the changes
 * change it, and `scoreOf` says what an answer is worth. Nothing here knows how the application does it.
 */

export interface Image {
  /** What tells its bytes from those of others. */
  readonly drawing: string;
  readonly alt: string;
}

export interface Choice {
  readonly id: string;
  readonly text: string;
  readonly image: Image | null;
  readonly fixed: boolean;
}

export type Block =
  | { readonly kind: 'paragraph'; readonly text: string; readonly strong: string }
  | { readonly kind: 'formula'; readonly over: string; readonly under: string }
  | { readonly kind: 'image'; readonly image: Image }
  | { readonly kind: 'list'; readonly entries: readonly string[] };

/** When a note is shown: the whole answer right, not right, or one choice among those picked. */
export type When = 'right' | 'wrong' | { readonly choice: string };
export interface Note {
  readonly when: When;
  readonly kind: 'plain' | 'hint' | 'solution';
  readonly text: string;
}

export interface Accepted {
  readonly text: string;
  /** Share of the points. */
  readonly share: number;
  readonly caseSensitive: boolean;
}

export interface Span {
  readonly low: number;
  readonly high: number;
}

export type Ask =
  | {
      readonly kind: 'choice';
      readonly several: boolean;
      readonly shuffle: boolean;
      readonly choices: readonly Choice[];
      /** The right ones; or, with `each`, what every one of them adds, never below nothing in all. */
      readonly right: readonly string[];
      readonly each: Readonly<Record<string, number>> | null;
    }
  | {
      readonly kind: 'order';
      readonly choices: readonly Choice[];
      readonly right: readonly string[];
      /** Every step in its place gives its part. */
      readonly places: boolean;
    }
  | {
      readonly kind: 'match' | 'associate' | 'gaps';
      readonly left: readonly Choice[];
      readonly right: readonly Choice[];
      readonly pairs: readonly (readonly [string, string])[];
      readonly each: boolean;
    }
  | { readonly kind: 'text'; readonly accepted: readonly Accepted[] }
  | { readonly kind: 'part'; readonly text: string; readonly caseSensitive: boolean }
  | { readonly kind: 'number'; readonly value: number; readonly full: Span; readonly half: Span | null }
  | { readonly kind: 'blanks'; readonly between: readonly string[]; readonly blanks: readonly string[][] }
  | {
      readonly kind: 'spots';
      readonly image: Image;
      readonly spots: readonly string[];
      readonly right: string;
    }
  | { readonly kind: 'essay' };

export interface ItemSpec {
  readonly id: string;
  readonly title: string;
  readonly category: string | null;
  readonly points: number;
  readonly stem: readonly Block[];
  readonly ask: Ask;
  readonly notes: readonly Note[];
}

export interface SectionSpec {
  readonly title: string;
  readonly shuffle: boolean;
  readonly items: readonly string[];
  /** How many of its items one student is set; null: all. */
  readonly pick: number | null;
}

export interface QuizSpec {
  readonly id: string;
  readonly title: string;
  readonly instructions: string;
  readonly attempts: number | null;
  readonly minutes: number | null;
  readonly sections: readonly SectionSpec[];
}

export interface CourseSpec {
  readonly quiz: QuizSpec;
  readonly items: readonly ItemSpec[];
}

export type Given = Readonly<Record<string, readonly (string | number | boolean)[]>>;

/** Every choice an ask offers, whichever side it stands on. */
export function offered(ask: Ask): readonly Choice[] {
  if (ask.kind === 'choice' || ask.kind === 'order') return ask.choices;
  if (ask.kind === 'match' || ask.kind === 'associate' || ask.kind === 'gaps')
    return [...ask.left, ...ask.right];
  return [];
}

/** Points that an answer gets; responses are named by their place among the item's, "0", "1" … */
export function scoreOf(item: ItemSpec, given: Given): number {
  return item.points * shareOf(item.ask, given);
}

const sameSet = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && [...a].sort().join('\n') === [...b].sort().join('\n');

export function shareOf(ask: Ask, given: Given): number {
  const first = (given['0'] ?? []).map(String);
  switch (ask.kind) {
    case 'choice': {
      if (ask.each === null) return sameSet(first, ask.right) ? 1 : 0;
      return Math.max(
        0,
        [...new Set(first)].reduce((sum, id) => sum + (ask.each![id] ?? 0), 0),
      );
    }
    case 'order':
      return ask.places
        ? ask.right.filter((id, at) => first[at] === id).length / ask.right.length
        : first.join('\n') === ask.right.join('\n')
          ? 1
          : 0;
    case 'match':
    case 'associate':
    case 'gaps': {
      const undirected = ask.kind === 'associate';
      const said = (a: string, b: string): string => (undirected ? [a, b].sort() : [a, b]).join(' ');
      const wanted = ask.pairs.map(([a, b]) => said(a, b));
      const got = [...new Set(first.map((p) => said(...(p.split(' ') as [string, string]))))];
      if (!ask.each) return sameSet(got, wanted) ? 1 : 0;
      return got.filter((p) => wanted.includes(p)).length / wanted.length;
    }
    case 'text':
      return acceptedShare(ask.accepted, first[0]);
    case 'part': {
      const [answer = ''] = first;
      const fold = (s: string): string => (ask.caseSensitive ? s : s.toLowerCase()).normalize('NFC');
      return fold(answer).includes(fold(ask.text)) ? 1 : 0;
    }
    case 'number': {
      const [answer] = given['0'] ?? [];
      if (typeof answer !== 'number') return 0;
      const inside = (s: Span): boolean => answer >= s.low && answer <= s.high;
      return inside(ask.full) ? 1 : ask.half && inside(ask.half) ? 0.5 : 0;
    }
    case 'blanks':
      return (
        ask.blanks.filter((accepted, at) =>
          acceptedShare(
            accepted.map((text) => ({ text, share: 1, caseSensitive: false })),
            String(given[String(at)]?.[0] ?? ''),
          ),
        ).length / ask.blanks.length
      );
    case 'spots':
      return first[0] === ask.right ? 1 : 0;
    case 'essay':
      return 0;
  }
}

function acceptedShare(accepted: readonly Accepted[], answer: string | undefined): number {
  if (answer === undefined) return 0;
  const found = accepted.find((a) =>
    a.caseSensitive
      ? a.text.normalize('NFC') === answer.normalize('NFC')
      : a.text.normalize('NFC').toLowerCase() === answer.normalize('NFC').toLowerCase(),
  );
  return found?.share ?? 0;
}

/** What notes an answer is shown, as their texts. */
export function shownNotes(item: ItemSpec, given: Given): string[] {
  const right = isRight(item.ask, given);
  const picked = (given['0'] ?? []).map(String);
  return item.notes
    .filter(({ when }) =>
      when === 'right' ? right : when === 'wrong' ? !right : picked.includes(when.choice),
    )
    .map((n) => `${n.kind} ${n.text}`);
}

/** Whether an answer is the whole right one: of choices and pairs, those and no others. */
function isRight(ask: Ask, given: Given): boolean {
  const first = (given['0'] ?? []).map(String);
  if (ask.kind === 'choice') return sameSet(first, ask.right);
  if (ask.kind === 'order') return first.join('\n') === ask.right.join('\n');
  if (ask.kind === 'match' || ask.kind === 'gaps' || ask.kind === 'associate')
    return shareOf({ ...ask, each: false }, given) === 1;
  return shareOf(ask, given) >= 1 - 1e-9;
}
