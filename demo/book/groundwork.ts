import { num, one, some, truth, type Chapter } from './question.ts';

/** Chapters 1 to 4: charts, distance, the compass, courses. Facts are exact, or common practice of navigation. */

const CHARTS: Chapter = {
  number: 1,
  title: 'The chart',
  questions: [
    one('What does a nautical chart show above all?', 'depths, dangers and marks', [
      'roads and villages',
      'prices of berths',
      'the weather of the week',
    ]),
    one('On a Mercator chart, where are distances measured?', 'on the latitude scale, beside the place', [
      'on the longitude scale',
      'on any scale of the sheet',
      'with the compass rose',
    ]),
    one('One minute of latitude is very nearly …', 'one nautical mile', [
      'one kilometre',
      'one cable',
      'ten metres',
    ]),
    one('How long is a nautical mile, exactly?', '1852 m', ['1609 m', '1800 m', '2000 m']),
    one('A cable is a tenth of a nautical mile. How long is it, to the nearest metre?', '185 m', [
      '100 m',
      '161 m',
      '1852 m',
    ]),
    one(
      'The picture shows the mouth of a harbour. Coming in from seaward in region A, on which side do you leave the red can?',
      'to port',
      ['to starboard', 'on either side', 'you keep clear of both marks'],
      { picture: 'harbour' },
    ),
    one(
      'Speed is distance over time. Which speed does this fraction give?',
      '6 knots',
      ['3 knots', '9 knots', '18 knots'],
      { formula: ['9 NM', '1.5 h', 'S'] },
    ),
    one('Soundings printed on a chart are depths below …', 'chart datum', [
      'mean sea level',
      'high water springs',
      'the keel',
    ]),
    one('A drying height is underlined because …', 'it stands above chart datum', [
      'it is a doubtful depth',
      'it is given in feet',
      'it is the deepest place',
    ]),
    one(
      'Two beacons in line, as in the picture, give …',
      'one line of position',
      ['a fix', 'a distance off', 'the height of the tide'],
      { picture: 'transit' },
    ),
    one('A scale of 1 : 25 000 means that 4 cm on the chart are …', '1 km', ['100 m', '250 m', '4 km']),
    one('Compared with 1 : 150 000, a chart of 1 : 12 500 is …', 'of a larger scale, with more detail', [
      'of a smaller scale',
      'of the same scale',
      'fit for ocean passages only',
    ]),
    one('The abbreviation “S” beside a sounding says that the bottom is …', 'sand', [
      'stone',
      'shells',
      'soft',
    ]),
    one('A magenta circle or flare at a mark shows that it …', 'is lit', [
      'is private',
      'is dangerous',
      'has been moved',
    ]),
    one('Before a chart is used it must be …', 'corrected up to date', [
      'laminated',
      'folded twice',
      'signed by the skipper',
    ]),
  ],
};

/** Distance, speed and time (D = S × T), with numbers of their own. */
const reckoned = ([speed, minutes]: readonly [number, number]) => {
  const miles = Math.round(((speed * minutes) / 60) * 100) / 100;
  return one(
    `At ${speed} knots, how far do you go in ${minutes} minutes?`,
    `${miles} NM`,
    [`${Math.round(miles * 200) / 100} NM`, `${Math.round((miles + 1.2) * 100) / 100} NM`, `${speed} NM`],
    { topic: 'Distance run', points: 2 },
  );
};

const DISTANCE: Chapter = {
  number: 2,
  title: 'Distance, speed and time',
  questions: [
    one(
      'A knot is …',
      'one nautical mile an hour',
      ['one kilometre an hour', 'one nautical mile', 'half a metre a second'],
      { topic: 'Units' },
    ),
    one('Which of these is right?', 'D = S × T', ['D = S / T', 'S = D × T', 'T = S / D'], { topic: 'Units' }),
    ...(
      [
        [4, 45],
        [5, 36],
        [6, 25],
        [7.5, 40],
        [8, 75],
        [9, 50],
        [10, 33],
        [12, 55],
      ] as const
    ).map(reckoned),
    one(
      'The log shows 42.6 at 1000 and 49.1 at 1100. The speed through the water is …',
      '6.5 knots',
      ['4.9 knots', '5.5 knots', '7.1 knots'],
      { topic: 'The log' },
    ),
    one(
      'A log that is not corrected for its error shows 5 % too much. 10.5 miles by the log are …',
      '10.0 NM',
      ['9.5 NM', '10.5 NM', '11.0 NM'],
      { topic: 'The log', points: 2 },
    ),
    one(
      'Through the water 6 knots, stream 2 knots against you: over the ground you make …',
      '4 knots',
      ['2 knots', '6 knots', '8 knots'],
      { topic: 'Over the ground' },
    ),
    one('Three minutes at 8 knots are …', '0.4 NM', ['0.24 NM', '2.4 NM', '4 NM'], { topic: 'Distance run' }),
  ],
};

/** Compass to true, with variation west and deviation east: from compass to true, east is added. */
const corrected = ([compass, variation, deviation]: readonly [number, number, number]) =>
  num(
    `Compass course ${String(compass).padStart(3, '0')}°, variation ${variation}° W, deviation ${deviation}° E. What is the true course, in degrees?`,
    compass - variation + deviation,
    0.5,
    '°',
    { topic: 'Correcting', why: 'From compass to true, add east and take away west.' },
  );

const COMPASS: Chapter = {
  number: 3,
  title: 'The compass',
  questions: [
    one(
      'Variation is the angle between …',
      'true north and magnetic north',
      ['magnetic north and compass north', 'heading and bearing', 'course and track'],
      { topic: 'Variation', why: 'It belongs to the place, not to the boat.' },
    ),
    one(
      'Deviation comes from …',
      'the boat’s own iron and currents',
      ['the earth’s field', 'the tide', 'a wrong chart'],
      { topic: 'Deviation', why: 'It changes with the heading.' },
    ),
    one(
      'Where is the variation of a place found?',
      'in the compass rose of the chart',
      ['on the deviation card', 'in the tide tables', 'on the log'],
      { topic: 'Variation', why: 'The rose gives the year and the yearly change too.' },
    ),
    ...(
      [
        [214, 6, 2],
        [45, 3, 1],
        [120, 7, 4],
        [300, 5, 2],
        [270, 4, 1],
        [109, 8, 3],
      ] as const
    ).map(corrected),
    truth('A hand bearing compass held far from iron may be taken to have no deviation.', true, {
      topic: 'Deviation',
      why: 'That is why bearings are taken with it, away from the rigging.',
    }),
    truth('The deviation of a steering compass is the same on every heading.', false, {
      topic: 'Deviation',
      why: 'It is read from the deviation card, heading by heading.',
    }),
    one('“Variation east, compass …”', 'least', ['best', 'west', 'last'], {
      topic: 'Correcting',
      why: 'With variation east the compass shows less than the truth.',
    }),
    num('Reciprocal of a bearing of 035°, in degrees?', 215, 0, '°', {
      topic: 'Bearings',
      points: 1,
      why: 'Add 180°.',
    }),
    num(
      'The variation was 4.0° W in 2020 and falls by 0.2° a year. What is it in 2025, in degrees west?',
      3,
      0.05,
      '°',
      {
        topic: 'Variation',
        why: 'Five years at 0.2° are 1.0°.',
      },
    ),
  ],
};

const COURSES: Chapter = {
  number: 4,
  title: 'Courses and leeway',
  questions: [
    one('The direction in which the bow points is the …', 'heading', [
      'track',
      'bearing',
      'course made good',
    ]),
    one('Leeway is …', 'being set sideways by the wind', [
      'being set by the stream',
      'an error of the compass',
      'the distance to the shore',
    ]),
    one('The wind blows from the west and you steer north. Leeway sets you …', 'east of your heading', [
      'west of your heading',
      'backwards',
      'not at all',
    ]),
    some(
      'Which of these act on the track over the ground?',
      ['leeway', 'the stream', 'the draught alone', 'the helmsman', 'the colour of the hull'],
      [0, 1, 3],
    ),
    some(
      'Which of these are angles from true north?',
      ['true course', 'compass course', 'true bearing', 'relative bearing'],
      [0, 2],
    ),
    one(
      'A vector triangle for a course to steer has as its sides the ground track, the stream and …',
      'the water track',
      ['the leeway', 'the bearing', 'the depth'],
    ),
    one('Heading 090°, leeway 5°, wind from the north. The water track is …', '095°', [
      '085°',
      '090°',
      '100°',
    ]),
    one('Heading 180°, leeway 8°, wind from the east. The water track is …', '188°', [
      '172°',
      '180°',
      '196°',
    ]),
    one('To make good 000° with a stream setting east you steer …', 'to the west of north', [
      'to the east of north',
      'north exactly',
      'south',
    ]),
    truth('A dead reckoning position takes the stream into account.', false),
    truth('An estimated position takes course, distance, leeway and stream into account.', true),
    some(
      'What belongs into the deck log at each change of course?',
      ['time', 'log reading', 'new course', 'price of fuel'],
      [0, 1, 2],
    ),
    one('The symbol of an estimated position is …', 'a triangle with a dot', [
      'a circle with a dot',
      'a plain cross',
      'an arrow',
    ]),
    one('The symbol of a fix is …', 'a circle with a dot', [
      'a triangle with a dot',
      'a square',
      'a wavy line',
    ]),
  ],
};

export const GROUNDWORK: readonly Chapter[] = [CHARTS, DISTANCE, COMPASS, COURSES];
