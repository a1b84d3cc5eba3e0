import { MARKS_CHAPTER } from '../chapters.ts';
import { num, one, truth, word, type BookQuestion, type Chapter } from './question.ts';

/** Chapters 5 to 8: marks, lights, heights of tide, streams. */

const plain = (html: string): string => html.replace(/<[^>]*>/gu, '');

/** The chapter on marks is that of the older edition, as far as it asks in words. */
const MARKS: Chapter = {
  number: 5,
  title: 'Buoys and marks',
  questions: MARKS_CHAPTER.flatMap((item): BookQuestion[] => {
    if (item.images || item.id === 'mk-20') return [];
    const over = { points: item.points, topic: item.category ?? '' };
    if (item.kind === 'single')
      return [
        {
          ...one(plain(item.stem), '', [], over),
          kind: 'choice',
          choices: item.choices.map((c) => c.text),
          right: item.choices.flatMap((c, at) => (c.right ? [at] : [])),
        },
      ];
    return item.kind === 'text' ? [word(plain(item.stem), item.answers, over)] : [];
  }),
};

const LIGHTS: Chapter = {
  number: 6,
  title: 'Lights',
  questions: [
    one('“Fl(3) 10s” shows …', 'three flashes every ten seconds', [
      'ten flashes every three seconds',
      'one flash of three seconds',
      'a fixed light',
    ]),
    one('“Oc 6s”: in each period the light is …', 'longer on than off', [
      'longer off than on',
      'on and off alike',
      'always off',
    ]),
    one('“Iso 4s”: in each period the light is …', 'on and off alike', [
      'longer on than off',
      'longer off than on',
      'of two colours',
    ]),
    one('“Q” on a chart is a light that flashes about …', '50 to 60 times a minute', [
      '5 times a minute',
      '20 times a minute',
      '200 times a minute',
    ]),
    one('“15M” in the description of a light is its …', 'range in nautical miles', [
      'height in metres',
      'period in minutes',
      'number',
    ]),
    one('A sector light shows red where …', 'there is danger, as a rule', [
      'the channel is',
      'it cannot be seen',
      'anchoring is allowed',
    ]),
    one('The height of a light on the chart is given above …', 'mean high water springs', [
      'chart datum',
      'the ground',
      'lowest astronomical tide',
    ]),
    one('“Mo(A)” shows …', 'a short and a long flash', [
      'a long flash only',
      'two long flashes',
      'three short ones',
    ]),
    one('A vessel under sail at night shows sidelights and …', 'a stern light', [
      'a masthead light',
      'two masthead lights',
      'no other light',
    ]),
    one('Red over red, all round: the vessel is …', 'not under command', ['fishing', 'a pilot', 'aground']),
    one('White over red, all round: the vessel is …', 'a pilot', ['fishing', 'aground', 'towing']),
    one('An anchored vessel of less than 50 m shows at night …', 'one all-round white light', [
      'two red lights',
      'sidelights',
      'a yellow light',
    ]),
    one('A sidelight shines from right ahead to … abaft the beam.', '22.5°', ['45°', '67.5°', '90°']),
    one('When a light dips below the horizon, it gives a …', 'distance off', [
      'bearing only',
      'depth',
      'time',
    ]),
  ],
};

/** Heights by the rule of twelfths (common practice). */
const TWELFTHS = [0, 1, 3, 6, 9, 11, 12] as const;
const NAMES = ['', 'one hour', 'two hours', 'three hours', 'four hours', 'five hours'] as const;
const rising = ([low, range, hours]: readonly [number, number, 1 | 2 | 3 | 4 | 5]): BookQuestion =>
  num(
    `Low water ${low.toFixed(1)} m, range ${range.toFixed(1)} m. What is the height ${NAMES[hours]} after low water, by the rule of twelfths, in metres?`,
    Math.round((low + (range * TWELFTHS[hours]) / 12) * 100) / 100,
    0.05,
    'm',
    { topic: 'Rule of twelfths' },
  );

const HEIGHTS: Chapter = {
  number: 7,
  title: 'Heights of tide',
  questions: [
    one(
      'Range of the tide is the difference between …',
      'high water and the next low water',
      ['springs and neaps', 'chart datum and low water', 'two high waters'],
      { topic: 'Words' },
    ),
    one(
      'Springs come …',
      'soon after new and full moon',
      ['in spring only', 'soon after the half moons', 'once a year'],
      { topic: 'Words' },
    ),
    ...(
      [
        [0.6, 4.8, 1],
        [2.1, 4.8, 2],
        [1.0, 3.6, 3],
        [0.4, 6.0, 4],
        [1.8, 2.4, 5],
        [0.9, 5.4, 3],
      ] as const
    ).map(rising),
    num('Charted depth 3.2 m, height of tide 2.5 m. How deep is it, in metres?', 5.7, 0.05, 'm', {
      topic: 'Depths',
    }),
    num(
      'A rock dries 1.4 m and the height of tide is 4.0 m. How deep is the water over it, in metres?',
      2.6,
      0.05,
      'm',
      {
        topic: 'Depths',
      },
    ),
    num(
      'Draught 1.8 m, charted depth 0.9 m, clearance wanted 0.5 m. What height of tide is needed, in metres?',
      1.4,
      0.05,
      'm',
      {
        topic: 'Depths',
      },
    ),
    truth('At neaps the range is smaller than at springs.', true, { topic: 'Words' }),
    truth('Chart datum lies above mean high water.', false, { topic: 'Words' }),
    one(
      'High pressure of the air tends to …',
      'lower the sea level',
      ['raise the sea level', 'stop the tide', 'turn the stream'],
      {
        topic: 'Weather and tide',
      },
    ),
  ],
};

const STREAMS: Chapter = {
  number: 8,
  title: 'Tidal streams',
  questions: [
    one('The set of a stream is …', 'the direction it flows towards', [
      'the direction it comes from',
      'its speed',
      'the time it turns',
    ]),
    one('The drift of a stream is …', 'how far it carries you in a given time', [
      'its direction',
      'the leeway',
      'its depth',
    ]),
    one('A tidal diamond on a chart refers to …', 'a table of streams by the hour', [
      'a jewel of a berth',
      'an anchorage',
      'a wreck',
    ]),
    one('“13,27” between two arrows of a stream atlas: neaps 1.3 knots and springs …', '2.7 knots', [
      '1.4 knots',
      '13.27 knots',
      '27 knots',
    ]),
    one('Slack water is …', 'when there is hardly any stream', [
      'when the tide is highest',
      'a calm sea',
      'water without salt',
    ]),
    one('Wind against stream makes the sea …', 'steeper', ['smoother', 'warmer', 'shallower']),
    one('The hour of a stream table at 1230, with high water at 1430, is …', 'HW -2', [
      'HW +2',
      'HW',
      'HW -1',
    ]),
    one('You are set 2 miles in an hour and a half. The rate is about …', '1.3 knots', [
      '0.75 knots',
      '2 knots',
      '3 knots',
    ]),
    one('Near a headland the stream is, as a rule, …', 'stronger than offshore', [
      'weaker than offshore',
      'always against you',
      'not felt',
    ]),
    one('Inside a bay the stream often …', 'turns earlier, or makes an eddy', [
      'turns an hour later',
      'does not flow',
      'runs offshore',
    ]),
    one('Eddies are shown on charts by …', 'curled lines', [
      'a magenta flare',
      'a dotted circle',
      'the letter E',
    ]),
    one('Half way between springs and neaps the rate is found by …', 'interpolation', [
      'guessing',
      'adding both',
      'the larger one',
    ]),
  ],
};

export const WATERS: readonly Chapter[] = [MARKS, LIGHTS, HEIGHTS, STREAMS];
