import type { Chance } from './random.ts';
import type {
  Ask,
  Block,
  Choice,
  CourseSpec,
  Image,
  ItemSpec,
  Note,
  SectionSpec,
  Span,
  When,
} from './spec.ts';

/** Words of an invented survey school, in scripts with and without spaces, with and without marks. */
const SCRIPTS: readonly (readonly string[])[] = [
  'bearing fathom lantern current sounding compass harbour meridian shoal beacon anchor tide sextant buoy plumb reef'.split(
    ' ',
  ),
  'ángulo marea señal brújula océano línea carta rumbo náutico faro años bahía sonda pilón día acción'.split(
    ' ',
  ),
  'höhe größe maß küste über strömung pegel fähre brücke wärme läufer öl müll tür zähler süß'.split(' '),
  'πυξίδα θάλασσα ακτή άνεμος χάρτης βάθος ώρα φάρος ρεύμα λιμάνι κύμα μίλι σημείο γωνία ύψος νήσος'.split(
    ' ',
  ),
  'якорь маяк течение глубина карта ветер волна берег угол север прилив мель лоция румб дно йод'.split(' '),
  'בוצה מפרץ גל רוח עומק מפה חוף זווית צפון מגדלור עוגן נמל גאות סלע אי ים'.split(' '),
  '海 潮 灯台 方位 深 図 港 風 波 北 角 岸 錨 島 流 針'.split(' '),
];

export const round = (n: number): number => Number(n.toFixed(6));
export const around = (value: number, by: number): Span => ({
  low: round(value - by),
  high: round(value + by),
});

/** Everything random about one course comes from one source of chance. */
export class Maker {
  private readonly said = new Set<string>();
  private readonly words: readonly string[];
  private readonly between: string;

  constructor(readonly chance: Chance) {
    const script = chance.whole(0, SCRIPTS.length - 1);
    this.words = SCRIPTS[script]!;
    this.between = script === SCRIPTS.length - 1 ? '' : ' ';
  }

  /** Some words that this course has not said before. */
  phrase(low: number, high: number): string {
    const length = this.chance.whole(low, high);
    for (let tried = 0; ; tried++) {
      const words = length + Math.floor(tried / 8);
      const text = Array.from({ length: words }, () => this.chance.pick(this.words)).join(this.between);
      if (this.said.has(text.toLowerCase())) continue;
      this.said.add(text.toLowerCase());
      return text;
    }
  }

  image(): Image {
    return { drawing: this.phrase(2, 3), alt: this.chance.maybe(0.8) ? this.phrase(1, 3) : '' };
  }

  choice(id: string): Choice {
    const image = this.chance.maybe(0.12) ? this.image() : null;
    return {
      id,
      text: image && this.chance.maybe() ? '' : this.phrase(1, 4),
      image,
      fixed: this.chance.maybe(0.15),
    };
  }

  choices(low: number, high: number, letter = 'A'): Choice[] {
    const from = letter.charCodeAt(0);
    return Array.from({ length: this.chance.whole(low, high) }, (_, at) =>
      this.choice(String.fromCharCode(from + at)),
    );
  }

  stem(): Block[] {
    const blocks: Block[] = [{ kind: 'paragraph', text: this.phrase(4, 9), strong: '' }];
    if (this.chance.maybe(0.3))
      blocks.push({ kind: 'paragraph', text: this.phrase(3, 6), strong: this.phrase(1, 2) });
    if (this.chance.maybe(0.2))
      blocks.push({
        kind: 'formula',
        over: this.chance.pick(['a', 'x', '2', 'h']),
        under: this.chance.pick(['b', 'y', '7', 'k']),
      });
    if (this.chance.maybe(0.25)) blocks.push({ kind: 'image', image: this.image() });
    if (this.chance.maybe(0.15)) blocks.push({ kind: 'image', image: this.image() });
    if (this.chance.maybe(0.15))
      blocks.push({ kind: 'list', entries: [this.phrase(2, 3), this.phrase(2, 3)] });
    return blocks;
  }

  ask(kinds: readonly Ask['kind'][]): Ask {
    const { chance } = this;
    const kind = chance.pick(kinds);
    switch (kind) {
      case 'choice': {
        const several = chance.maybe(0.45);
        const choices = this.choices(3, chance.maybe(0.1) ? 11 : 6);
        const mixed = chance.shuffled(choices.map((c) => c.id));
        const right = mixed.slice(0, several ? chance.whole(1, Math.min(3, mixed.length - 1)) : 1).sort();
        return {
          kind,
          several,
          shuffle: chance.maybe(),
          choices,
          right,
          each: chance.maybe(0.4) ? this.eachOf(choices, right, several) : null,
        };
      }
      case 'order': {
        const choices = this.choices(2, chance.maybe(0.3) ? 9 : 6);
        return { kind, choices, right: chance.shuffled(choices.map((c) => c.id)), places: chance.maybe(0.4) };
      }
      case 'match':
      case 'gaps': {
        const left = this.choices(2, 5);
        const right = this.choices(left.length, 7, 'P');
        const to = chance.shuffled(right);
        return {
          kind,
          left,
          right,
          pairs: left.map((l, at) => [l.id, to[at]!.id] as const),
          each: chance.maybe(0.6),
        };
      }
      case 'associate': {
        const all = this.choices(4, 6);
        const mixed = chance.shuffled(all);
        return {
          kind,
          left: all,
          right: [],
          pairs: [
            [mixed[0]!.id, mixed[1]!.id],
            [mixed[2]!.id, mixed[3]!.id],
          ],
          each: chance.maybe(0.6),
        };
      }
      case 'text': {
        const accepted = Array.from({ length: chance.whole(1, 3) }, (_, at) => ({
          text: this.phrase(1, 2),
          share: at === 0 ? 1 : chance.pick([1, 0.5, 0.25]),
          caseSensitive: chance.maybe(0.3),
        }));
        return { kind, accepted };
      }
      case 'part':
        return { kind, text: this.phrase(1, 1), caseSensitive: chance.maybe(0.4) };
      case 'number': {
        const value = round((chance.pick([1, 10, 100]) * chance.whole(1, 90)) / 10);
        const by = chance.maybe(0.3) ? 0 : chance.pick([0.5, 1, 0.25]);
        const wide = by + chance.pick([0.5, 2]);
        return {
          kind,
          value,
          full: around(value, by),
          half: chance.maybe(0.25) ? around(value, wide) : null,
        };
      }
      case 'blanks': {
        const blanks = Array.from({ length: chance.whole(2, 3) }, () => [
          this.phrase(1, 1),
          ...(chance.maybe(0.3) ? [this.phrase(1, 2)] : []),
        ]);
        return { kind, blanks, between: [this.phrase(2, 4), ...blanks.map(() => this.phrase(1, 3))] };
      }
      case 'spots': {
        const spots = ['A', 'B', 'C', 'D'].slice(0, chance.whole(2, 4));
        return { kind, image: this.image(), spots, right: chance.pick(spots) };
      }
      case 'essay':
        return { kind };
    }
  }

  /** What single choices add: the right ones all of it together, others nothing or less. */
  private eachOf(
    choices: readonly Choice[],
    right: readonly string[],
    several: boolean,
  ): Record<string, number> {
    return Object.fromEntries(
      choices.map(({ id }) => [
        id,
        right.includes(id)
          ? 1 / right.length
          : several
            ? this.chance.pick([0, -0.25, -0.5])
            : this.chance.pick([0, 0, 0.25, 0.5]),
      ]),
    );
  }

  notes(ask: Ask): Note[] {
    const whens: When[] = ['right', 'wrong'];
    if (ask.kind === 'choice') whens.push(...ask.choices.map((c) => ({ choice: c.id })));
    if (ask.kind === 'essay') return [];
    return this.chance
      .shuffled(whens)
      .slice(0, this.chance.maybe(0.4) ? 0 : this.chance.whole(1, 3))
      .map((when) => ({
        when,
        kind: this.chance.pick(['plain', 'plain', 'plain', 'hint', 'solution'] as const),
        text: this.phrase(2, 5),
      }));
  }

  item(id: string, kinds: readonly Ask['kind'][]): ItemSpec {
    const ask = this.ask(kinds);
    return {
      id,
      title: this.phrase(1, 3),
      category: this.chance.maybe(0.5) ? this.phrase(1, 2) : null,
      points: this.chance.pick([1, 2, 3, 5, 10, 2.5]),
      stem: this.stem(),
      ask,
      notes: this.notes(ask),
    };
  }

  /** Another item that asks the same in the same words; something else of it is its own. */
  private twin(of: ItemSpec, id: string): ItemSpec {
    const { ask } = of;
    const other = { ...of, id, title: this.phrase(2, 4), notes: [] };
    if (ask.kind !== 'choice' || ask.each) return other;
    const [right] = ask.right;
    const come = ask.choices.find((c) => !ask.right.includes(c.id))!;
    return { ...other, ask: { ...ask, right: [...ask.right.filter((r) => r !== right), come.id].sort() } };
  }

  course(items: number, kinds: readonly Ask['kind'][]): CourseSpec {
    const made = Array.from({ length: items }, (_, at) => this.item(`q${at + 1}`, kinds));
    for (let at = 1; at < items; at++)
      if (this.chance.maybe(0.1)) made[at] = this.twin(made[at - 1]!, `q${at + 1}`);
    const sections: SectionSpec[] = [];
    let from = 0;
    while (from < items) {
      const to = Math.min(items, from + this.chance.whole(1, 4));
      const inside = made.slice(from, to);
      const worth = inside[0]!.points;
      const pick =
        inside.length > 1 && this.chance.maybe(0.2) ? this.chance.whole(1, inside.length - 1) : null;
      // Within a draw all are worth the same.
      if (pick !== null) for (let at = from; at < to; at++) made[at] = { ...made[at]!, points: worth };
      sections.push({
        title: this.phrase(1, 3),
        shuffle: this.chance.maybe(0.3),
        items: inside.map((i) => i.id),
        pick,
      });
      from = to;
    }
    return {
      items: made,
      quiz: {
        id: 'quiz',
        title: this.phrase(2, 4),
        instructions: this.chance.maybe() ? this.phrase(4, 8) : '',
        attempts: this.chance.pick([null, 1, 2, 3]),
        minutes: this.chance.pick([null, 30, 45, 90]),
        sections,
      },
    };
  }
}
