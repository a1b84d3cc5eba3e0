import { distanceBank, LIGHTS_BANK, ROUGH_BANK, TIDAL_EXAM, type ItemSpec } from '../demo/items.ts';
import { largeItems } from '../demo/large.ts';
import { logbookCsv, passagePlanCsv } from '../demo/rubricFiles.ts';
import type { QuizSpec } from '../demo/qti12.ts';

/** Made-up courses of a small maritime college, on two systems. */

export interface ThingSpec {
  readonly section: number | null;
  readonly hidden?: boolean;
  readonly opens?: string;
  readonly closes?: string;
  readonly review?: string;
  readonly openAttempts?: number;
}
interface QuizThing extends ThingSpec {
  readonly quiz: QuizSpec;
}
interface BankThing extends ThingSpec {
  readonly bank: { readonly id: string; readonly title: string; readonly items: readonly ItemSpec[] };
}
interface LinkThing extends ThingSpec {
  readonly link: { readonly title: string; readonly url: string };
}
/** A rubric as a table, and the title of the item or assignment that is graded by it. */
interface RubricThing {
  readonly rubric: string;
  readonly grades: string | null;
}
export interface CourseSpec {
  readonly id: string;
  readonly code: string;
  readonly title: string;
  readonly number: string;
  readonly term: string;
  readonly teacher: string;
  readonly shared?: boolean;
  readonly sections: readonly string[];
  readonly things?: readonly (QuizThing | BankThing | LinkThing)[];
  readonly assignments?: readonly { readonly title: string; readonly points: number }[];
  readonly rubrics?: readonly RubricThing[];
}

const lights = { id: 'lights', title: 'Ch. 6 Lights and shapes', items: LIGHTS_BANK };
const distance = { id: 'distance', title: 'Ch. 3 Speed, time and distance', items: distanceBank() };
const rough = { id: 'odds', title: '', items: ROUGH_BANK };
/** The exam of last term: own questions, and two draws. */
const finalExam: QuizSpec = {
  id: 'final',
  title: 'Final exam, tides and lights',
  // One and a half points, so that rounding shows.
  items: TIDAL_EXAM.map((i) => (i.id === 'tide-05' ? { ...i, points: 1.5 } : i)),
  fields: { qmd_timelimit: 90, cc_maxattempts: 1 },
  instructions: '<p>Work alone. Tide tables and a calculator are allowed. Give heights in metres.</p>',
  draws: [
    { title: 'Lights and shapes', bank: 'lights', pick: 5, pointsEach: 2 },
    { title: 'Distances', bank: 'distance', pick: 4, pointsEach: 1.5 },
  ],
};
const practice: QuizSpec = {
  id: 'practice',
  title: 'Lights practice',
  items: [],
  fields: { cc_maxattempts: 'unlimited' },
  draws: [{ title: 'Lights', bank: 'lights', pick: 6, pointsEach: 1 }],
};
/** Graded by hand, with the rubric of the passage plan. */
const passage: ItemSpec = {
  kind: 'essay',
  id: 'passage-01',
  title: 'Passage plan, harbour to harbour',
  points: 16.5,
  category: 'Passage',
  stem: '<p>Plan a passage of about 30 nautical miles between two harbours of your choice, and write it down so that somebody else could take the watch with it.</p>',
};
const coastal: ItemSpec = {
  ...passage,
  id: 'coastal-01',
  title: 'A coastal passage by night',
  stem: '<p>Plan a passage along the coast by night, from the leading lights of one harbour to those of the next.</p>',
};
const plan = (title: string, items: readonly ItemSpec[], id = 'plan'): QuizSpec => ({
  id,
  title,
  items,
  fields: { qmd_timelimit: 40, cc_maxattempts: 2 },
});
const renamed = (items: readonly ItemSpec[], prefix: string): ItemSpec[] =>
  items.map((i) => ({ ...i, id: `${prefix}-${i.id}` }));

export const QUAYSIDE: readonly CourseSpec[] = [
  {
    id: 'k-tides-s26',
    code: 'NAV 205',
    title: 'Tides and Tidal Streams',
    number: '01',
    term: 't-spring-26',
    teacher: 'ilan',
    shared: true,
    sections: ['Week 1: Tides', 'Week 2: Heights', 'Week 3: Lights', 'Week 4: Passage', 'Exam period'],
    things: [
      {
        quiz: finalExam,
        section: 4,
        opens: '2026-06-08T09:00:00+02:00',
        closes: '2026-06-08T12:00:00+02:00',
        review: 'after it closes',
      },
      { quiz: practice, section: 2 },
      { bank: lights, section: null },
      { bank: distance, section: null },
      { bank: rough, section: null },
      { link: { title: 'Tide tables', url: 'https://tables.example.org/harbour' }, section: 0 },
    ],
  },
  {
    id: 'k-tides-a26',
    code: 'NAV 205',
    title: 'Tides and Tidal Streams',
    number: '01',
    term: 't-autumn-26',
    teacher: 'ilan',
    sections: [
      'Exam period',
      'Week 1: Tides',
      'Week 2: Heights of tide',
      'Week 3: Lights',
      'Week 4: Passage',
    ],
    things: [
      {
        quiz: plan('Warm-up: tides', renamed(TIDAL_EXAM.slice(0, 3), 'warm'), 'warm'),
        section: 1,
        openAttempts: 7,
      },
      { link: { title: 'Tide tables', url: 'https://tables.example.org/harbour' }, section: 1 },
    ],
  },
  {
    id: 'k-tides-a26-02',
    code: 'NAV 205',
    title: 'Tides and Tidal Streams',
    number: '02',
    term: 't-autumn-26',
    teacher: 'odile',
    sections: ['Exam period', 'Week 1: Tides', 'Week 3: Lights'],
  },
  {
    id: 'k-coast-s26',
    code: 'NAV 101',
    title: 'Coastal Navigation',
    number: '01',
    term: 't-spring-26',
    teacher: 'odile',
    sections: ['Charts', 'Fixes', 'Lights'],
    things: [
      {
        quiz: plan('Chart quiz', renamed(TIDAL_EXAM.slice(5, 9), 'coast')),
        section: 0,
        opens: '2026-03-02T08:00:00+01:00',
        closes: '2026-03-02T08:00:00+01:00',
      },
      { quiz: plan('Passage plan', [passage], 'passage'), section: 1 },
      { bank: distance, section: null },
    ],
    rubrics: [{ rubric: passagePlanCsv(), grades: passage.title! }],
  },
  {
    id: 'k-coast-a26',
    code: 'NAV 101',
    title: 'Coastal Navigation',
    number: '01',
    term: 't-autumn-26',
    teacher: 'odile',
    sections: ['Charts', 'Fixes', 'Lights'],
  },
  {
    id: 'k-lights-a25',
    code: 'NAV 230',
    title: 'Lights, Shapes and Sounds',
    number: '03',
    term: 't-autumn-25',
    teacher: 'ilan',
    sections: ['Lights', 'Sounds'],
    things: [
      { quiz: practice, section: 0 },
      { bank: lights, section: null },
    ],
    assignments: [
      { title: 'Log of a night watch', points: 12 },
      { title: 'Sounds by ear', points: 5 },
    ],
    rubrics: [{ rubric: logbookCsv(), grades: 'Log of a night watch' }],
  },
  {
    id: 'k-lights-a26',
    code: 'NAV 230',
    title: 'Lights, Shapes and Sounds',
    number: '03',
    term: 't-autumn-26',
    teacher: 'ilan',
    sections: ['Lights', 'Sounds'],
    assignments: [{ title: 'Log of a night watch', points: 10 }],
  },
];

export const FORESHORE: readonly CourseSpec[] = [
  {
    id: 'f-pilot-s26',
    code: 'PIL 301',
    title: 'Pilotage',
    number: '01',
    term: 't-spring-26',
    teacher: 'tomo',
    shared: true,
    sections: ['Unit 1', 'Unit 2', 'Unit 3'],
    things: [
      {
        quiz: { ...finalExam, id: 'pilot', title: 'Pilotage exam' },
        section: 2,
        opens: '2026-06-10T13:00:00+02:00',
        closes: '2026-06-10T16:00:00+02:00',
      },
      { bank: lights, section: null },
      { bank: distance, section: null },
    ],
  },
  {
    id: 'f-pilot-a26',
    code: 'PIL 301',
    title: 'Pilotage',
    number: '01',
    term: 't-autumn-26',
    teacher: 'tomo',
    sections: ['Unit 3', 'Unit 2', 'Unit 1'],
  },
  {
    id: 'f-tides-a26',
    code: 'NAV 205',
    title: 'Tides and Tidal Streams (evening)',
    number: '11',
    term: 't-autumn-26',
    teacher: 'odile',
    sections: ['Week 1: Tides', 'Week 3: Lights', 'Exam period'],
  },
  {
    id: 'f-coast-a26',
    code: 'NAV 101',
    title: 'Coastal Navigation (evening)',
    number: '12',
    term: 't-autumn-26',
    teacher: 'odile',
    sections: ['Charts', 'Fixes', 'Lights'],
    things: [{ quiz: plan('Coastal passage', [coastal], 'coastal'), section: 1 }],
    assignments: [{ title: 'Evening watch', points: 12 }],
  },
  {
    id: 'f-weather-a26',
    code: 'MET 110',
    title: 'Marine Weather',
    number: '01',
    term: 't-autumn-26',
    teacher: 'odile',
    sections: ['Pressure', 'Fronts'],
  },
  {
    id: 'f-practice',
    code: 'PRACTICE',
    title: 'Practice course',
    number: '00',
    term: 't-autumn-26',
    teacher: 'odile',
    shared: true,
    sections: ['Week 1: Tides', 'Week 2: Heights', 'Week 3: Lights', 'Week 4: Passage', 'Exam period'],
  },
];

/** Pairs of an old and a new course with a bank each, for whole programmes. */
export function programme(pairs: number, items: number): CourseSpec[] {
  return Array.from({ length: pairs }, (_, at): CourseSpec[] => {
    const code = `PRG ${200 + at}`;
    const title = `Programme course ${at + 1}`;
    const common = { code, title, number: '01', teacher: 'odile', sections: ['Part A', 'Part B'] };
    const own = largeItems(items, at + 1).map((i) => ({ ...i, id: `p${at}-${i.id}` }));
    return [
      {
        ...common,
        id: `p${at}-old`,
        term: 't-spring-26',
        things: [
          {
            quiz: {
              id: `p${at}-quiz`,
              title: `Quiz ${at + 1}`,
              items: own.slice(0, 10),
              draws: [{ title: 'Drawn', bank: `p${at}-bank`, pick: 5, pointsEach: 1 }],
            },
            section: 1,
          },
          { bank: { id: `p${at}-bank`, title: `Bank ${at + 1}`, items: own.slice(10) }, section: null },
        ],
      },
      { ...common, id: `p${at}-new`, term: 't-autumn-26' },
    ];
  }).flat();
}
