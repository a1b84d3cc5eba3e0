/**
 * What a simulated system keeps of its quizzes, in a shape of its own: apart from the application's tree, so
 * that a standard both would read wrong in the same way shows in what comes back.
 */

/** One choice of a question; its text is mark-up as the system's format has it. */
export interface HeldChoice {
  readonly id: string;
  readonly text: string;
  readonly fixed: boolean;
}

/** All of the right choices or nothing, or so much for each. */
export type Marking =
  | { readonly by: 'all'; readonly right: readonly string[] }
  | {
      readonly by: 'each';
      readonly worth: Readonly<Record<string, number>>;
      readonly least: number | null;
      readonly most: number | null;
    };

export interface Accepted {
  readonly text: string;
  readonly caseSensitive: boolean;
  readonly worth: number;
}

/** A range of numbers with its ends; `exact` is the number that the range lies around. */
export interface AcceptedNumber {
  readonly exact: number | null;
  readonly low: number;
  readonly high: number;
  readonly includesLow: boolean;
  readonly includesHigh: boolean;
  readonly worth: number;
}

/** How a question is answered and marked. `kept` is what this system does not know: it stays as it came. */
export type Answer =
  | {
      readonly kind: 'choice';
      readonly prompt: string | null;
      /** 0 for any number. */
      readonly maxChoices: number;
      readonly shuffle: boolean;
      readonly choices: readonly HeldChoice[];
      readonly marking: Marking;
    }
  | { readonly kind: 'text'; readonly accepted: readonly Accepted[] }
  | { readonly kind: 'number'; readonly accepted: readonly AcceptedNumber[] }
  | { readonly kind: 'essay' }
  | { readonly kind: 'kept'; readonly xml: string; readonly points: number };

/** Shown always, or when this choice was taken. */
export interface HeldFeedback {
  readonly id: string;
  readonly on: string | null;
  readonly text: string;
}

export interface HeldItem {
  readonly id: string;
  readonly title: string;
  readonly category: string | null;
  readonly points: number;
  /** Mark-up; where `<answer/>` stands in it the answer is given, else at its end. Files are `held:` and their path. */
  readonly body: string;
  readonly answer: Answer;
  readonly feedback: readonly HeldFeedback[];
}

export interface HeldDraw {
  readonly pick: number;
  readonly pool: readonly string[];
  readonly bank: string | null;
  readonly pointsEach: number;
}

export interface HeldSection {
  readonly title: string;
  /** Mark-up. */
  readonly instructions: string | null;
  readonly shuffle: boolean;
  readonly items: readonly Placed[];
  readonly draw: HeldDraw | null;
}

/** An item in a quiz, which may count there more or less than it does by itself. */
export interface Placed {
  readonly item: string;
  readonly weight: number;
}

export interface HeldQuiz {
  readonly id: string;
  readonly title: string;
  readonly attempts: number | 'unlimited' | null;
  readonly timeLimitMinutes: number | null;
  readonly passMark: number | null;
  /** Mark-up. */
  readonly instructions: string | null;
  readonly sections: readonly HeldSection[];
}

export interface HeldBank {
  readonly id: string;
  readonly title: string;
  readonly items: readonly string[];
}

export interface HeldLink {
  readonly id: string;
  readonly title: string;
  readonly url: string;
  /** It opens a tool by LTI; otherwise it is a page. */
  readonly tool?: boolean;
}

/** Quizzes, banks, their items and links: of a course, or of a package. */
export interface Held {
  readonly quizzes: readonly HeldQuiz[];
  readonly banks: readonly HeldBank[];
  readonly items: readonly HeldItem[];
  readonly links: readonly HeldLink[];
}

/** Every item of a quiz, drawn ones included. */
export const itemsOf = (quiz: HeldQuiz): string[] => [
  ...new Set(quiz.sections.flatMap((s) => [...s.items.map((p) => p.item), ...(s.draw?.pool ?? [])])),
];

/** How many items one student is set. */
export const setOf = (quiz: HeldQuiz): number =>
  quiz.sections.reduce((sum, s) => sum + s.items.length + (s.draw?.pick ?? 0), 0);

/** What a quiz is worth to one student. */
export const worthOf = (quiz: HeldQuiz, points: ReadonlyMap<string, number>): number =>
  quiz.sections.reduce(
    (sum, s) =>
      sum +
      s.items.reduce((all, p) => all + p.weight * (points.get(p.item) ?? 0), 0) +
      (s.draw ? s.draw.pick * s.draw.pointsEach : 0),
    0,
  );

const NAMED: Readonly<Record<string, string>> = {
  amp: '&',
  lt: '<',
  gt: '>',
  quot: '"',
  apos: "'",
  nbsp: ' ',
};

/** What a person reads of mark-up, white space made one. */
export const plain = (markup: string): string =>
  markup
    .replace(/<(?:\/p|br|\/div|\/li)\b[^>]*>/giu, ' ')
    .replace(/<[^<>]*>/gu, '')
    .replace(/&(?:#(\d+)|#x([\da-f]+)|(\w+));/giu, (whole, ten?: string, hex?: string, name?: string) =>
      name === undefined
        ? String.fromCodePoint(ten === undefined ? parseInt(hex!, 16) : Number(ten))
        : (NAMED[name] ?? whole),
    )
    .replace(/[\s\u00a0]+/gu, ' ')
    .trim();

/** What makes a question the same as another here: what is read and how it is marked, not its name. */
export const likeness = ({ body, answer }: HeldItem): string =>
  JSON.stringify([
    plain(body),
    JSON.stringify(answer, (key, value: unknown) =>
      ['text', 'prompt', 'xml'].includes(key) && typeof value === 'string' ? plain(value) : value,
    ),
  ]);

/** Gives an item another worth; what part of an answer gives keeps its share. */
export function setPoints(item: HeldItem, points: number): HeldItem {
  const factor = item.points > 0 ? points / item.points : 1;
  const answer = scaled(item.answer, (worth) => Number((worth * factor).toPrecision(12)));
  return { ...item, points, answer };
}

/** The same answer with every mark changed in one way. */
export function scaled<A extends Answer>(answer: A, mark: (worth: number) => number): A {
  const marks = <T extends { readonly worth: number }>(list: readonly T[]): T[] =>
    list.map((a) => ({ ...a, worth: mark(a.worth) }));
  switch (answer.kind) {
    case 'choice':
      return answer.marking.by === 'all' ? answer : { ...answer, marking: eachScaled(answer.marking, mark) };
    case 'text':
      return { ...answer, accepted: marks(answer.accepted) };
    case 'number':
      return { ...answer, accepted: marks(answer.accepted) };
    default:
      return answer;
  }
}

/** Small letters, in one spelling: some letters fall apart where they are made small. */
const folded = (text: string): string => text.toLowerCase().normalize('NFC');

const eachScaled = (marking: Extract<Marking, { by: 'each' }>, mark: (worth: number) => number): Marking => ({
  by: 'each',
  worth: Object.fromEntries(Object.entries(marking.worth).map(([id, worth]) => [id, mark(worth)])),
  least: marking.least === null ? null : mark(marking.least),
  most: marking.most === null ? null : mark(marking.most),
});

/**
 * What an answer is given, in points: choice ids, a text or a number. Null where a person marks it, or where
 * the system does not know the item.
 */
export function scoreOf(item: HeldItem, given: readonly string[]): number | null {
  const { answer } = item;
  switch (answer.kind) {
    case 'choice': {
      const taken = new Set(given);
      if (answer.marking.by === 'all') {
        const right = new Set(answer.marking.right);
        const all = right.size > 0 && taken.size === right.size && [...right].every((id) => taken.has(id));
        return all ? item.points : 0;
      }
      const { worth, least, most } = answer.marking;
      const sum = [...taken].reduce((all, id) => all + (worth[id] ?? 0), 0);
      return Math.min(most ?? Infinity, Math.max(least ?? -Infinity, sum));
    }
    case 'text': {
      const same = (a: Accepted): boolean =>
        a.caseSensitive ? a.text === given[0] : folded(a.text) === folded(given[0] ?? '');
      return answer.accepted.find(same)?.worth ?? 0;
    }
    case 'number': {
      const said = given[0] === undefined ? NaN : Number(given[0]);
      const inside = (a: AcceptedNumber): boolean =>
        (a.includesLow ? said >= a.low : said > a.low) && (a.includesHigh ? said <= a.high : said < a.high);
      return answer.accepted.find(inside)?.worth ?? 0;
    }
    default:
      return null;
  }
}
