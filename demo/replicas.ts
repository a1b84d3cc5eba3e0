import type { ItemSpec } from './items.ts';
import { zip, type Files } from './zip.ts';
import { document, escape, itemXml, PLAIN } from './qti12.ts';

/** Seven exercises as a script makes them: three replicas each, with other numbers, names, choices and data. */

const NAMES = ['Anouk', 'Bela', 'Chidi', 'Dilek', 'Emre', 'Freja', 'Goran', 'Hana', 'Ilse'];
const TABLE_HEIGHTS = [0.8, 1.1, 1.9, 3.1, 4.2, 5.0, 5.3, 4.9, 4.0, 2.8, 1.7, 1.0];

interface Random {
  /** A whole number from `low` to `high`. */
  readonly whole: (low: number, high: number) => number;
  readonly shuffled: <T>(list: readonly T[]) => T[];
}

/** Park and Miller's generator: the same seed gives the same numbers. */
function randomOf(seed: number): Random {
  let state = ((seed * 7919) % 2147483646) + 1;
  const next = (): number => (state = (state * 48271) % 2147483647) / 2147483647;
  const whole = (low: number, high: number): number => low + Math.floor(next() * (high - low + 1));
  return {
    whole,
    shuffled: (list) =>
      list
        .map((one) => ({ one, at: next() }))
        .sort((a, b) => a.at - b.at)
        .map(({ one }) => one),
  };
}

const degrees = (n: number): string => `${String(((n % 360) + 360) % 360).padStart(3, '0')}°`;

interface Made {
  readonly item: ItemSpec;
  readonly files?: Files;
}
type Exercise = (common: { id: string; title: string; points: number }, name: string, random: Random) => Made;

const typed = (
  common: { id: string; title: string; points: number },
  stem: string,
  value: number,
  tolerance: number,
  unit: string,
): Made => ({ item: { ...common, kind: 'number', stem, value, tolerance, unit } });

const EXERCISES: readonly Exercise[] = [
  (common, name, random) => {
    const [knots, minutes] = [random.whole(4, 14), 6 * random.whole(4, 25)];
    return typed(
      common,
      `<p>${name} runs at ${knots} knots for ${minutes} minutes. How many nautical miles is that by log?</p>`,
      Number(((knots * minutes) / 60).toFixed(2)),
      0.05,
      'NM',
    );
  },
  (common, name, random) => {
    const [miles, hours] = [random.whole(9, 60), random.whole(2, 6)];
    return typed(
      common,
      `<p>In ${hours} hours ${name} has covered ${miles} nautical miles. What was the mean speed in knots?</p>`,
      Number((miles / hours).toFixed(2)),
      0.05,
      'kn',
    );
  },
  (common, _, random) => {
    const [course, variation] = [random.whole(20, 330), random.whole(3, 15)];
    const right = degrees(course + variation);
    return {
      item: {
        ...common,
        kind: 'single',
        stem: `<p>The true course is ${degrees(course)}, the variation ${variation}° west. What is the magnetic course?</p>`,
        choices: random.shuffled([
          { text: right, right: true },
          { text: degrees(course - variation) },
          { text: degrees(course) },
          { text: degrees(course + 2 * variation) },
        ]),
      },
    };
  },
  (common, _, random) => {
    const range = random.whole(12, 64) / 10;
    return typed(
      common,
      `<p>The range of the tide is ${range.toFixed(1)} m. By the rule of twelfths, how many metres has it risen two hours after low water?</p>`,
      Number(((range * 3) / 12).toFixed(3)),
      0.05,
      'm',
    );
  },
  (common, _, random) => ({
    item: {
      ...common,
      kind: 'single',
      stem: '<p>Which of these does the rule of twelfths leave out of account?</p>',
      choices: random.shuffled([
        { text: 'The weather', right: true },
        { text: 'The range of the tide' },
        { text: 'The time since low water' },
        { text: 'The duration of the rise' },
      ]),
    },
  }),
  (common, _, random) => {
    const more = random.whole(1, 9) / 10;
    const heights = TABLE_HEIGHTS.map((h) => Number((h + more).toFixed(1)));
    const path = `data/tide-${common.id}.csv`;
    const rows = heights.map((h, hour) => `${String(hour).padStart(2, '0')}:00,${h.toFixed(1)}`);
    return {
      item: {
        ...common,
        kind: 'number',
        stem: `<p>The file <a href="${path}">tide.csv</a> holds the heights of a day; it begins so:</p><pre>time,height_m\n${rows.slice(0, 5).join('\n')}\n…</pre><p>What is the greatest height in metres?</p>`,
        value: Math.max(...heights),
        tolerance: 0.01,
        unit: 'm',
      },
      files: { [path]: `time,height_m\r\n${rows.join('\r\n')}\r\n` },
    };
  },
  (common, name, random) => {
    const [heading, relative] = [random.whole(10, 170), random.whole(15, 170)];
    return typed(
      common,
      `<p>${name} steers ${degrees(heading)} true and sees a light ${degrees(relative)} relative. What does it bear, in degrees true?</p>`,
      (heading + relative) % 360,
      0.5,
      '°',
    );
  },
];

export interface ReplicaOptions {
  /** Exercises, from 0, whose numbers are drawn with another seed. */
  readonly reseeded?: readonly number[];
  /** An exercise, from 0, whose second replica has new numbers under its old key. */
  readonly stale?: number;
}

const REPLICAS = 3;

/** The exercises with their replicas, and the data files they come with. */
export function replicaExercises(
  seed = 1,
  options: ReplicaOptions = {},
): { items: ItemSpec[]; files: Files }[] {
  return EXERCISES.map((exercise, at) => {
    const own = options.reseeded?.includes(at) ? seed + 100 : seed;
    const make = (replica: number, from: number): Made =>
      exercise(
        {
          id: `ex${at + 1}-r${replica + 1}`,
          title: `Exercise ${at + 1}, replica ${replica + 1}`,
          points: 2,
        },
        NAMES[(from * 3 + at + replica) % NAMES.length]!,
        randomOf(from * 100 + at * 10 + replica),
      );
    const made = Array.from({ length: REPLICAS }, (_, replica) => {
      const planned = make(replica, own);
      if (options.stale !== at || replica !== 1) return planned;
      const anew = make(replica, own + 500);
      return planned.item.kind === 'number' && anew.item.kind === 'number'
        ? { ...anew, item: { ...anew.item, value: planned.item.value } }
        : planned;
    });
    return {
      items: made.map((m) => m.item),
      files: Object.assign({}, ...made.map((m) => m.files ?? {})) as Files,
    };
  });
}

/** A package of seven sections, each of which draws one of three replicas. */
export function replicaPackage(seed = 1, options: ReplicaOptions = {}): Uint8Array {
  const exercises = replicaExercises(seed, options);
  const sections = exercises.map(
    ({ items }, at) =>
      `<section ident="exercise-${at + 1}" title="Exercise ${at + 1}"><selection_ordering><selection><selection_number>1</selection_number></selection></selection_ordering>${items.map((i) => itemXml(i, PLAIN)).join('\n')}</section>`,
  );
  const files = Object.assign({}, ...exercises.map((e) => e.files)) as Files;
  const listed = Object.keys(files).map((path) => `<file href="${escape(path)}"/>`);
  return zip({
    'imsmanifest.xml': `<?xml version="1.0"?><manifest identifier="M" xmlns="http://www.imsglobal.org/xsd/imscp_v1p1"><organizations/><resources>
<resource identifier="exercises" type="imsqti_xmlv1p2" href="exercises.xml"><file href="exercises.xml"/>${listed.join('')}</resource></resources></manifest>`,
    'exercises.xml': document(
      `<assessment ident="exercises-week6" title="Exercises of week 6">${sections.join('\n')}</assessment>`,
    ),
    ...files,
  });
}
