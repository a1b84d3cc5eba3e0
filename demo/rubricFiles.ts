/** A rubric of the passage plan as it was kept in a spreadsheet, and as another system gave it back. */

const CRITERIA: readonly [criterion: string, weight: number, levels: readonly [string, string, string][]][] =
  [
    [
      'Waypoints and courses',
      2,
      [
        ['Complete', '3', 'Every leg has waypoint, true course and distance; distances add up to the log.'],
        ['Nearly', '2', 'One leg lacks a course or a distance.'],
        ['Incomplete', '1', 'Several legs lack courses or distances.'],
        ['Missing', '0', 'No legs are planned.'],
      ],
    ],
    [
      'Tides and streams',
      1,
      [
        ['Worked out', '4 to 5', 'Heights at both ports and the stream of each hour, with their sources.'],
        ['In part', '2 to 3', 'Heights, or streams, but not both.'],
        ['Not used', '0', 'The plan would be the same without tides.'],
      ],
    ],
    [
      'Dangers and safe water',
      1,
      [
        ['Clear', '4', 'Clearing bearings or depths for every danger on the way.'],
        ['Named', '2', 'Dangers are named, but nothing keeps the vessel clear of them.'],
        ['Overlooked', '0', 'A charted danger on the track is not mentioned.'],
      ],
    ],
    [
      'Way of writing',
      1,
      [
        ['Usable', '1.5', 'Somebody else could take the watch with it.'],
        ['Readable', '1', 'It can be followed with questions.'],
        ['Unclear', '0', 'It cannot be followed.'],
      ],
    ],
  ];

/** For work that is handed in rather than asked in a quiz. */
const LOGBOOK: typeof CRITERIA = [
  [
    'Lights logged',
    1,
    [
      ['Every light', '6', 'Character, period and bearing of every light seen, with the time.'],
      ['Most lights', '4', 'One or two lights lack their period or bearing.'],
      ['Few lights', '1', 'Lights are named without what tells them apart.'],
    ],
  ],
  [
    'Vessels at night',
    1,
    [
      ['Worked out', '4', 'What each vessel is and how it heads, from its lights.'],
      ['Named', '2', 'What each vessel is, without how it heads.'],
      ['Missing', '0', 'No vessels are logged.'],
    ],
  ],
  [
    'Way of writing',
    1,
    [
      ['Usable', '2', 'Somebody else could take the watch with it.'],
      ['Readable', '1', 'It can be followed with questions.'],
      ['Unclear', '0', 'It cannot be followed.'],
    ],
  ],
];

const quoted = (cell: string): string => `"${cell.replace(/"/gu, '""')}"`;

export const passagePlanCsv = (): string => wide('Passage plan', CRITERIA);
export const logbookCsv = (): string => wide('Night watch log', LOGBOOK);

/** Wide, as somebody typed it. */
function wide(title: string, criteria: typeof CRITERIA): string {
  const levels = Math.max(...criteria.map(([, , l]) => l.length));
  const head = [
    'Rubric',
    'Criterion',
    'Weight',
    ...Array.from({ length: levels }, (_, n) => [
      `Level ${n + 1}`,
      `Points ${n + 1}`,
      `Description ${n + 1}`,
    ]).flat(),
  ];
  const rows = criteria.map(([criterion, weight, list]) => [
    title,
    criterion,
    String(weight),
    ...list.flat(),
  ]);
  return [head, ...rows].map((r) => r.map(quoted).join(',')).join('\r\n');
}

/** CASE, with points rounded to whole numbers and one description lost. */
export function passagePlanCase(): string {
  const CFRubricCriteria = CRITERIA.map(([category, weight, levels], at) => ({
    identifier: `c-${at + 1}`,
    category,
    weight,
    position: at + 1,
    CFRubricCriterionLevels: levels.map(([quality, points, description], n) => ({
      identifier: `l-${at + 1}-${n + 1}`,
      quality,
      score: Math.round(Number(points.split(' ').at(-1))),
      description: at === 2 && n === 1 ? '' : description,
      position: n + 1,
    })),
  }));
  return JSON.stringify(
    { CFPackage: { CFRubrics: [{ identifier: 'r-77', title: 'Passage plan', CFRubricCriteria }] } },
    null,
    1,
  );
}
