/** The questions of the demo: coastal navigation at a small, invented training college. */

interface ChoiceSpec {
  readonly text: string;
  readonly right?: boolean;
  readonly pinned?: boolean;
  readonly feedback?: string;
}

interface Common {
  readonly id: string;
  readonly title?: string;
  /** HTML. */
  readonly stem: string;
  readonly points: number;
  readonly category?: string;
  readonly feedback?: string;
  readonly images?: readonly string[];
}

export type ItemSpec =
  | (Common & {
      readonly kind: 'single' | 'multiple';
      readonly choices: readonly ChoiceSpec[];
      readonly shuffle?: boolean;
      readonly perChoice?: boolean;
    })
  | (Common & {
      readonly kind: 'text';
      readonly answers: readonly string[];
      readonly caseSensitive?: boolean;
    })
  | (Common & {
      readonly kind: 'number';
      readonly value: number;
      readonly tolerance?: number;
      readonly unit: string;
    })
  | (Common & { readonly kind: 'essay' });

const single = (id: string, stem: string, points: number, right: string, ...wrong: string[]): ItemSpec => ({
  kind: 'single',
  id,
  stem: `<p>${stem}</p>`,
  points,
  shuffle: true,
  choices: [{ text: right, right: true }, ...wrong.map((text) => ({ text }))],
});

const yesNo = (id: string, stem: string, truth: boolean): ItemSpec => ({
  kind: 'single',
  id,
  stem: `<p>${stem}</p>`,
  points: 1,
  choices: [
    { text: 'True', right: truth },
    { text: 'False', right: !truth },
  ],
});

const number = (
  id: string,
  stem: string,
  points: number,
  value: number,
  tolerance: number,
  unit: string,
): ItemSpec => ({
  kind: 'number',
  id,
  stem: `<p>${stem}</p>`,
  points,
  value,
  tolerance,
  unit,
});

/** Tides and heights: the exam that travels in the demo. */
export const TIDAL_EXAM: readonly ItemSpec[] = [
  {
    ...single(
      'tide-01',
      'Spring tides come about when the sun and the moon …',
      2,
      'pull along the same line',
      'stand at right angles',
      'are both below the horizon',
      'are farthest from the earth',
    ),
    category: 'Tides',
    feedback: 'Springs follow new and full moon by a day or two.',
  },
  {
    kind: 'number',
    id: 'tide-02',
    points: 3,
    value: 3.3,
    tolerance: 0.1,
    unit: 'm',
    category: 'Tides',
    stem: '<p>Low water is 2.1&nbsp;m and the range 4.8&nbsp;m. What is the height of tide two hours after low water, by the rule of twelfths?</p>',
    feedback: 'One twelfth in the first hour, two in the second: 3/12 of 4.8 m is 1.2 m.',
  },
  {
    kind: 'multiple',
    id: 'tide-03',
    points: 2,
    category: 'Lights',
    shuffle: true,
    perChoice: true,
    stem: '<p>Which lights does a power-driven vessel of under 12&nbsp;m show under way at night?</p>',
    choices: [
      { text: 'White all-round light', right: true },
      { text: 'Red over green at the masthead' },
      { text: 'Sidelights', right: true },
      { text: 'Yellow towing light' },
      { text: 'All of the above', pinned: false },
    ],
  },
  {
    ...single(
      'tide-04',
      'The chart shows a harbour and two marks. Which mark do you leave to port when you come in from seaward (buoyage region A)?',
      2,
      'The red can',
      'The green cone',
      'Either',
      'Neither',
    ),
    stem: '<p>The chart shows a harbour and two marks.</p><p><img src="images/harbour chart.png" alt="Chart of a harbour mouth with a red can to the west and a green cone to the east" width="480" height="300"></p><p>Which mark do you leave to port when you come in from seaward (buoyage region A)?</p>',
    images: ['images/harbour chart.png'],
    category: 'Buoyage',
  },
  {
    kind: 'text',
    id: 'tide-05',
    points: 1,
    answers: ['isogonal', 'isogonic line', 'isogonal line'],
    stem: '<p>Name the line on a chart that joins points of equal magnetic variation.</p>',
    category: 'Compass',
  },
  number(
    'tide-06',
    'The compass course is 214°, the variation 6°&nbsp;W and there is no deviation. What is the true course, in degrees?',
    2,
    208,
    0,
    '°',
  ),
  yesNo('tide-07', 'One nautical mile is exactly 1852 metres.', true),
  single(
    'tide-08',
    'By the rule of twelfths, how much of the range does the tide rise in the third hour?',
    1,
    'Three twelfths',
    'One twelfth',
    'Two twelfths',
    'Six twelfths',
  ),
  number(
    'tide-09',
    'A vessel makes 12.5 knots for 3 hours 24 minutes. How far does she go, in nautical miles?',
    3,
    42.5,
    0.5,
    'NM',
  ),
  {
    kind: 'essay',
    id: 'tide-10',
    points: 6,
    stem: '<p>Explain why a fix from two bearings alone is weaker than one from three, and how the angle between them matters.</p>',
    category: 'Position',
  },
  {
    kind: 'multiple',
    id: 'tide-11',
    points: 3,
    category: 'Position',
    stem: '<p>Which of these give a position line?</p>',
    choices: [
      { text: 'A visual bearing of a charted tower', right: true },
      { text: 'A transit of two leading marks', right: true },
      { text: 'The speed through the water' },
      { text: 'A depth contour, where the bottom shelves evenly', right: true },
      { text: 'The barometer' },
    ],
  },
  {
    kind: 'text',
    id: 'tide-12',
    points: 1,
    answers: ['MHWS'],
    caseSensitive: true,
    stem: '<p>Write the abbreviation of <em>mean high water springs</em>, in capitals.</p>',
    category: 'Tides',
  },
];

/** Lights and shapes: a bank of its own. */
export const LIGHTS_BANK: readonly ItemSpec[] = [
  single(
    'lts-01',
    'A vessel shows two black balls, one above the other, by day. She is …',
    2,
    'not under command',
    'at anchor',
    'aground',
    'towing',
  ),
  single(
    'lts-02',
    'Three black balls in a vertical line mean that a vessel is …',
    2,
    'aground',
    'at anchor',
    'fishing',
    'under pilotage',
  ),
  single(
    'lts-03',
    'A single black ball forward means that a vessel is …',
    2,
    'at anchor',
    'aground',
    'under sail',
    'restricted in her ability to manoeuvre',
  ),
  single(
    'lts-04',
    'Red over white, all-round, at night: a vessel …',
    2,
    'fishing, other than trawling',
    'trawling',
    'under pilotage',
    'not under command',
  ),
  single(
    'lts-05',
    'White over red, all-round, at night: a vessel …',
    2,
    'on pilotage duty',
    'fishing',
    'aground',
    'at anchor',
  ),
  single(
    'lts-06',
    'Green over white, all-round, at night: a vessel …',
    2,
    'trawling',
    'minesweeping',
    'under sail',
    'on pilotage duty',
  ),
  single(
    'lts-07',
    'You see a green sidelight only, on your own port bow. Who keeps clear?',
    2,
    'The other vessel',
    'You do',
    'Both turn to port',
    'Nobody',
  ),
  yesNo('lts-08', 'A stern light shows over an arc of 135 degrees.', true),
  yesNo('lts-09', 'A masthead light shows all round the horizon.', false),
  {
    ...single(
      'lts-10',
      'A cone, point downwards, is shown by a vessel …',
      3,
      'under sail and power at once',
      'under sail alone',
      'at anchor',
      'constrained by her draught',
    ),
  },
  {
    kind: 'text',
    id: 'lts-11',
    points: 2,
    answers: ['cylinder', 'a cylinder'],
    stem: '<p>Which day shape does a vessel constrained by her draught show?</p>',
  },
  single(
    'lts-12',
    'An isophase light has …',
    2,
    'equal periods of light and dark',
    'longer light than dark',
    'longer dark than light',
    'a fixed light with flashes',
  ),
];

/** Speed, time and distance, three seeded replicas of each: D = S x T. */
export function distanceBank(): ItemSpec[] {
  const rows: readonly [number, number][] = [
    [6, 90],
    [7.5, 40],
    [8, 135],
    [10.5, 64],
    [12, 25],
    [14.2, 150],
    [5.4, 200],
    [18, 50],
    [9, 20],
    [11, 132],
    [16.5, 48],
    [4.8, 75],
    [20, 9],
    [13, 84],
    [7, 60],
  ];
  return rows.map(([knots, minutes], at) => {
    const distance = Number(((knots * minutes) / 60).toFixed(2));
    const stem = `At ${knots} knots for ${minutes} minutes, how many nautical miles do you cover?`;
    return {
      ...number(`std-${String(at + 1).padStart(2, '0')}`, stem, 2, distance, 0.1, 'NM'),
      title: `Distance, exercise ${Math.floor(at / 3) + 1}, version ${(at % 3) + 1}`,
    };
  });
}

/** A bank nobody has looked at: the mistakes that checks are for. */
export const ROUGH_BANK: readonly ItemSpec[] = [
  {
    kind: 'single',
    id: 'r-01',
    points: 1,
    stem: '<p>What does “HW” stand for in a tide table?</p>',
    choices: [{ text: 'High water' }, { text: 'Head wind' }, { text: 'Heavy weather' }],
  },
  {
    kind: 'single',
    id: 'r-02',
    points: 0,
    stem: '<p>Which pole does a compass needle seek?</p>',
    choices: [{ text: 'The magnetic north pole', right: true }, { text: 'The geographic north pole' }],
  },
  {
    kind: 'single',
    id: 'r-03',
    points: 1,
    stem: '',
    choices: [{ text: 'Port', right: true }, { text: 'Starboard' }],
  },
  {
    kind: 'single',
    id: 'r-04',
    points: 1,
    stem: '<p>Which is farthest from the keel?</p>',
    choices: [{ text: 'Truck', right: true }, { text: 'Bilge' }, { text: 'Bilge' }, { text: 'Garboard' }],
  },
  {
    kind: 'single',
    id: 'r-05',
    points: 5,
    stem: '<p>Which side is port, facing forward?</p>',
    shuffle: true,
    choices: [
      { text: 'Left', right: true },
      { text: 'Right' },
      { text: 'Both A and B' },
      { text: 'None of the above' },
    ],
  },
  {
    ...single('r-06', 'What does this buoy mark?', 1, 'A wreck', 'A fairway', 'An anchorage'),
    stem: '<p><img src="images/buoy.png" alt="A blue and yellow buoy">What does this buoy mark?</p>',
    images: ['images/buoy.png'],
  },
];

/** Other scripts and signs travel too. */
export const SCRIPTS: readonly ItemSpec[] = [
  {
    kind: 'text',
    id: 'スクリプト-1',
    title: '海図',
    points: 1,
    answers: ['緯度'],
    stem: '<p>赤道からの角距離を何といいますか。</p>',
  },
  {
    kind: 'single',
    id: 'rtl-1',
    title: 'اتجاه',
    points: 1,
    stem: '<p dir="rtl" lang="ar">ما هو الاتجاه المقابل للشمال؟</p>',
    choices: [{ text: 'الجنوب', right: true }, { text: 'الشرق' }, { text: 'الغرب' }],
  },
  {
    kind: 'text',
    id: 'acc-1',
    title: 'Marées',
    points: 1,
    answers: ['étale'],
    stem: '<p>Comment appelle-t-on le moment où le courant de marée s’annule&nbsp;?</p>',
  },
];
