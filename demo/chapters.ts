import type { ItemSpec } from './items.ts';
import { bankXml, PLAIN } from './qti12.ts';
import { harbourChart } from './pictures.ts';
import { zip } from './zip.ts';

/**
 * Two chapters of an invented textbook as banks: 22 on marks, 18 on tides. Most are worth a point, some two; one asks
 * nearly the same as another, one has "all of the above" among choices that move, and one has no key.
 */

const one = (
  id: string,
  category: string,
  stem: string,
  right: string,
  wrong: readonly string[],
  points = 1,
): ItemSpec => ({
  kind: 'single',
  id,
  category,
  stem: `<p>${stem}</p>`,
  points,
  shuffle: true,
  choices: [{ text: right, right: true }, ...wrong.map((text) => ({ text }))],
});

const typed = (
  id: string,
  category: string,
  stem: string,
  answers: readonly string[],
  points = 1,
): ItemSpec => ({
  kind: 'text',
  id,
  category,
  stem: `<p>${stem}</p>`,
  points,
  answers,
});

const reckoned = (
  id: string,
  category: string,
  stem: string,
  value: number,
  unit: string,
  tolerance = 0.05,
  points = 1,
): ItemSpec => ({ kind: 'number', id, category, stem: `<p>${stem}</p>`, points, value, tolerance, unit });

const LATERAL = 'Lateral marks';
const CARDINAL = 'Cardinal marks';
const OTHER = 'Other marks';

/** Facts of the buoyage system, region A (common practice). */
export const MARKS_CHAPTER: readonly ItemSpec[] = [
  one('mk-01', LATERAL, 'Region A: a port-hand mark is …', 'red', ['green', 'yellow', 'black and yellow']),
  one('mk-02', LATERAL, 'Region A: a starboard-hand mark is …', 'green', ['red', 'yellow', 'red and white']),
  one('mk-03', LATERAL, 'The shape of a port-hand mark or its topmark is a …', 'can', [
    'cone',
    'sphere',
    'cross',
  ]),
  one('mk-04', LATERAL, 'The shape of a starboard-hand mark or its topmark is a …', 'cone', [
    'can',
    'sphere',
    'cross',
  ]),
  typed('mk-05', LATERAL, 'Region A, coming in from sea: on which side do you leave a red can? One word.', [
    'port',
  ]),
  one(
    'mk-06',
    LATERAL,
    'Region A: a green mark with one broad red band says that the preferred channel is to …',
    'port',
    ['starboard', 'seaward', 'neither side'],
    2,
  ),
  one(
    'mk-07',
    LATERAL,
    'Region A: a red mark with one broad green band says that the preferred channel is to …',
    'starboard',
    ['port', 'seaward', 'neither side'],
    2,
  ),
  one('mk-08', CARDINAL, 'Two cones, both pointing up: the mark lies … of the danger.', 'north', [
    'south',
    'east',
    'west',
  ]),
  one('mk-09', CARDINAL, 'Two cones, both pointing down: the mark lies … of the danger.', 'south', [
    'north',
    'east',
    'west',
  ]),
  one('mk-10', CARDINAL, 'Two cones base to base: which cardinal mark is it?', 'east', [
    'west',
    'north',
    'south',
  ]),
  one('mk-11', CARDINAL, 'Two cones point to point: which cardinal mark is it?', 'west', [
    'east',
    'north',
    'south',
  ]),
  one(
    'mk-12',
    CARDINAL,
    'Nine flashes every 15 seconds show a … cardinal mark.',
    'west',
    ['south', 'east', 'north'],
    2,
  ),
  one(
    'mk-13',
    CARDINAL,
    'Three flashes every 10 seconds show a … cardinal mark.',
    'east',
    ['west', 'south', 'north'],
    2,
  ),
  one(
    'mk-14',
    CARDINAL,
    'Six flashes and a long one every 15 seconds show a … cardinal mark.',
    'south',
    ['west', 'east', 'north'],
    2,
  ),
  reckoned('mk-15', CARDINAL, 'How many short flashes has an east cardinal light in one period?', 3, '', 0),
  one(
    'mk-16',
    OTHER,
    'By day you see a black mark with a broad red band, and on top of it two black spheres, one above the other. It marks …',
    'an isolated danger',
    ['safe water', 'a special mark', 'a new danger'],
  ),
  one('mk-17', OTHER, 'Red and white vertical stripes show …', 'safe water', [
    'an isolated danger',
    'a special mark',
    'a wreck',
  ]),
  one('mk-18', OTHER, 'A yellow mark with a yellow cross on top is …', 'a special mark', [
    'an isolated danger',
    'a north cardinal mark',
    'a lateral mark',
  ]),
  {
    kind: 'single',
    id: 'mk-19',
    category: OTHER,
    stem: '<p>Which of these can a safe-water mark show at night?</p>',
    points: 1,
    shuffle: true,
    choices: [
      { text: 'a long flash every 10 seconds' },
      { text: 'isophase white' },
      { text: 'Morse A' },
      { text: 'All of the above', right: true },
    ],
  },
  one(
    'mk-20',
    OTHER,
    'By day you see a black mark with a broad red band, and on top of it two black spheres, one over the other. It marks …',
    'an isolated danger',
    ['safe water', 'a special mark', 'a new danger'],
  ),
  {
    kind: 'single',
    id: 'mk-21',
    category: OTHER,
    stem: '<p><img src="images/harbour.png" alt="A small chart of a harbour with two marks at its mouth">The mark to the north of the entrance is …</p>',
    images: ['images/harbour.png'],
    points: 1,
    shuffle: true,
    choices: [
      { text: 'to be left to port' },
      { text: 'to be left to starboard' },
      { text: 'to be kept clear of' },
    ],
  },
  typed('mk-22', OTHER, 'The colour of every special mark. One word.', ['yellow']),
];

const HEIGHTS = 'Heights of tide';
const STREAMS = 'Tidal streams';
const WORDS = 'Words of the tide';

/** Heights by the rule of twelfths (common practice): 1, 2, 3, 3, 2, 1 twelfths of the range in six hours. */
export const TIDES_CHAPTER: readonly ItemSpec[] = [
  reckoned(
    'td-01',
    HEIGHTS,
    'High water 5.2 m, low water 0.4 m. What is the range, in metres?',
    4.8,
    'm',
    0.01,
  ),
  reckoned(
    'td-02',
    HEIGHTS,
    'High water 4.1 m, low water 1.1 m. What is the range, in metres?',
    3,
    'm',
    0.01,
  ),
  reckoned(
    'td-03',
    HEIGHTS,
    'By the rule of twelfths: low water 1.0 m, range 3.6 m. What is the height two hours after low water?',
    1.9,
    'm',
    0.05,
    2,
  ),
  reckoned(
    'td-04',
    HEIGHTS,
    'By the rule of twelfths: low water 0.6 m, range 4.8 m. What is the height three hours after low water?',
    3,
    'm',
    0.05,
    2,
  ),
  reckoned(
    'td-05',
    HEIGHTS,
    'Charted depth 3.5 m, height of tide 2.2 m. What is the depth, in metres?',
    5.7,
    'm',
  ),
  reckoned(
    'td-06',
    HEIGHTS,
    'A rock dries 1.4 m; the height of tide is 3.0 m. How deep is it covered?',
    1.6,
    'm',
  ),
  reckoned(
    'td-07',
    HEIGHTS,
    'Draught 1.8 m, 0.7 m wanted under the keel, charted depth 1.2 m. What height of tide is needed?',
    1.3,
    'm',
    0.05,
    2,
  ),
  one('td-08', HEIGHTS, 'In the third hour after low water the tide rises by how many twelfths?', '3', [
    '1',
    '2',
    '4',
  ]),
  one('td-09', WORDS, 'The difference of the heights of high and low water is the …', 'range', [
    'rise',
    'duration',
    'set',
  ]),
  one('td-10', WORDS, 'The level that charted depths are measured from is …', 'chart datum', [
    'mean sea level',
    'high water',
    'the height of tide',
  ]),
  typed('td-11', WORDS, 'The short stand of the water at high or low tide is called … water. One word.', [
    'slack',
  ]),
  one('td-12', WORDS, 'Tides with the largest range are called …', 'springs', [
    'neaps',
    'equinoxes',
    'overfalls',
  ]),
  one('td-13', WORDS, 'Tides with the smallest range are called …', 'neaps', [
    'springs',
    'equinoxes',
    'overfalls',
  ]),
  one('td-14', STREAMS, 'The direction a stream flows to is its …', 'set', ['drift', 'rate', 'range']),
  one('td-15', STREAMS, 'The speed of a stream, in knots, is its …', 'rate', ['set', 'range', 'rise']),
  reckoned(
    'td-16',
    STREAMS,
    'A stream of 2.4 knots: how far does it set you in 40 minutes, in miles?',
    1.6,
    'NM',
  ),
  reckoned(
    'td-17',
    STREAMS,
    'A stream of 1.5 knots: how far does it set you in 90 minutes, in miles?',
    2.25,
    'NM',
  ),
  one(
    'td-18',
    STREAMS,
    'The stream in a strait is strongest, by the rule of thumb, …',
    'half way between high and low water',
    ['at high water', 'at low water', 'an hour after low water'],
    2,
  ),
];

export const chapterBanks = (): Uint8Array =>
  zip({
    'chapter-2.xml': bankXml('marks', MARKS_CHAPTER, PLAIN, 'Ch. 2 Buoys and marks'),
    'chapter-5.xml': bankXml('tides', TIDES_CHAPTER, PLAIN, 'Ch. 5 Tides'),
    'images/harbour.png': harbourChart(),
  });
