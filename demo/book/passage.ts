import { essay, num, one, some, truth, word, type Chapter } from './question.ts';

/** Chapters 9 to 12: fixing, passages, weather, rules of the road. */

const FIXING: Chapter = {
  number: 9,
  title: 'Fixing a position',
  questions: [
    one('A position line comes from …', 'a bearing, a transit or a distance', [
      'a guess',
      'the barometer',
      'the heading',
    ]),
    one('Two bearings make the best fix when they cross at about …', '90°', ['10°', '30°', '180°']),
    one('Three bearings that do not meet in a point make a …', 'cocked hat', [
      'fix without error',
      'transit',
      'sector',
    ]),
    one('In a cocked hat one takes the position to be …', 'at the corner nearest to danger', [
      'in its middle, always',
      'outside of it',
      'at the longest side',
    ]),
    one('Which bearing is taken last?', 'the one that changes fastest', [
      'the one right ahead',
      'the farthest one',
      'the first one again',
    ]),
    one('A transit is …', 'two objects in line', ['a moving light', 'a kind of buoy', 'a chart table']),
    one('A running fix uses …', 'two bearings of one object, and the run between them', [
      'two objects at once',
      'a sounding alone',
      'the speed of the wind',
    ]),
    one('Doubling the angle on the bow: the distance run is …', 'the distance off at the second bearing', [
      'twice the distance off',
      'half the distance off',
      'the depth',
    ]),
    one('A line of soundings helps most where …', 'the bottom slopes evenly', [
      'it is flat',
      'there is no chart',
      'it is rocky',
    ]),
    one('A satellite position should be checked against …', 'something that can be seen', [
      'yesterday’s position',
      'another receiver of that maker alone',
      'the weather',
    ]),
    one('The first thing to write beside a fix is …', 'the time', [
      'the name of the skipper',
      'the depth of the keel',
      'the wind',
    ]),
    one('A clearing bearing keeps you …', 'out of danger on one side of it', [
      'on course for home',
      'at one speed',
      'on a contour',
    ]),
  ],
};

const PASSAGE: Chapter = {
  number: 10,
  title: 'Passage planning',
  questions: [
    one('Which part of a passage plan comes first?', 'appraisal', ['execution', 'monitoring', 'mooring'], {
      why: 'Appraisal, planning, execution, monitoring.',
    }),
    one(
      'Which part of it goes on until you are moored?',
      'monitoring',
      ['appraisal', 'planning', 'victualling'],
      {
        why: 'The position is watched all the way.',
      },
    ),
    word('Name the harbour one goes to when the planned one cannot be reached: a port of …', ['refuge'], {
      why: 'Each leg of the plan should have one.',
    }),
    word('A place where the course is changed is called a …', ['waypoint', 'way point'], {
      why: 'Checked twice when it is typed in.',
    }),
    num('24 nautical miles at 5 knots take how many hours?', 4.8, 0.05, 'h', { why: 'T = D / S.' }),
    num(
      'You must be at the bar at 1500 and need 2 h 40 min. How many minutes before 1300 must you leave?',
      40,
      0,
      'min',
      {
        why: '1500 less 2 h 40 min is 1220.',
      },
    ),
    num('Fuel for 9 hours at 3.5 litres an hour and a third in reserve: how many litres?', 42, 0.5, 'l', {
      why: '31.5 l and a third of it.',
    }),
    one(
      'Who is told of the plan ashore?',
      'somebody who will miss you',
      ['nobody', 'the chart seller', 'other skippers only'],
      {
        why: 'They raise the alarm when you do not come.',
      },
    ),
    essay(
      'Describe what you look up before you leave harbour.',
      'Weather, tides and streams, charts and notices, dangers, ports of refuge, crew and boat.',
      {
        why: 'One point for each of five.',
      },
    ),
    one(
      'A no-go area is drawn where …',
      'the boat would be in danger at the tide of the day',
      ['there is no wind', 'fishing is allowed', 'the chart is white'],
      { why: 'It follows from draught and height of tide.' },
    ),
    one(
      'The best time to enter an unknown harbour is …',
      'by day, on a rising tide',
      ['by night', 'at low water', 'on a falling tide'],
      {
        why: 'A boat that touches is lifted off again.',
      },
    ),
    one(
      'Between waypoints one watches the …',
      'cross-track error',
      ['colour of the sea', 'height of the mast', 'anchor'],
      {
        why: 'It says how far off the line you are.',
      },
    ),
  ],
};

const WEATHER: Chapter = {
  number: 11,
  title: 'Weather',
  questions: [
    one('Lines of equal pressure on a weather map are …', 'isobars', ['isotherms', 'isogonals', 'contours'], {
      topic: 'Maps',
    }),
    one('Isobars close together mean …', 'strong wind', ['calm', 'fog', 'rain at once'], { topic: 'Maps' }),
    one(
      'North of the equator the wind goes round a low …',
      'anticlockwise',
      ['clockwise', 'straight outward', 'not at all'],
      {
        topic: 'Pressure',
      },
    ),
    one(
      'With your back to the wind, north of the equator, the low is on your …',
      'left',
      ['right', 'back', 'front'],
      {
        topic: 'Pressure',
      },
    ),
    one('Force 6 on the Beaufort scale is a …', 'strong breeze', ['gentle breeze', 'gale', 'storm'], {
      topic: 'Wind',
    }),
    one('Force 8 on the Beaufort scale is a …', 'gale', ['fresh breeze', 'near gale', 'storm'], {
      topic: 'Wind',
    }),
    one('Warm, damp air over a cold sea makes …', 'fog', ['hail', 'thunder', 'a clear sky'], {
      topic: 'Fog',
    }),
    one(
      'The sea breeze blows …',
      'from sea to land, by day',
      ['from land to sea, by day', 'at night only', 'along the coast'],
      {
        topic: 'Wind',
      },
    ),
    one('“Veering” wind changes …', 'clockwise', ['anticlockwise', 'its strength only', 'twice a day'], {
      topic: 'Wind',
    }),
    one(
      '“Soon” in a forecast of gales means within …',
      '6 to 12 hours',
      ['1 hour', '2 to 3 days', '24 to 48 hours'],
      {
        topic: 'Forecasts',
      },
    ),
    one(
      'Falling pressure and high cloud that thickens announce …',
      'a warm front',
      ['fair weather', 'a cold night', 'neaps'],
      {
        topic: 'Fronts',
      },
    ),
    one(
      'Behind a cold front one finds, as a rule, …',
      'clear air, showers and a veer',
      ['long drizzle', 'fog', 'no wind'],
      {
        topic: 'Fronts',
      },
    ),
  ],
};

const RULES: Chapter = {
  number: 12,
  title: 'Rules of the road',
  questions: [
    one(
      'Two sailing vessels meet with the wind on different sides. Which gives way?',
      'the one with the wind on the port side',
      ['the one with the wind on the starboard side', 'the larger one', 'the faster one'],
    ),
    one('Two power-driven vessels meet head on. Each …', 'alters course to starboard', [
      'alters course to port',
      'stops',
      'keeps on',
    ]),
    one('Two power-driven vessels cross. The one gives way that has the other on her …', 'starboard side', [
      'port side',
      'stern',
      'bow only',
    ]),
    one('An overtaking vessel …', 'keeps clear, whatever she is', [
      'has right of way',
      'sounds nothing',
      'may pass as she likes',
    ]),
    truth('A steady bearing of a vessel that comes nearer means risk of collision.', true),
    truth('A vessel under sail never has to keep clear of a vessel engaged in fishing.', false),
    truth('Every vessel keeps a proper look-out by sight and hearing at all times.', true),
    some(
      'Which vessels does a power-driven vessel keep clear of?',
      [
        'a vessel not under command',
        'a vessel under sail',
        'a vessel engaged in fishing',
        'every vessel she overtakes',
        'a buoy',
      ],
      [0, 1, 2, 3],
      { points: 2 },
    ),
    one('One short blast says: I am …', 'altering course to starboard', [
      'altering course to port',
      'going astern',
      'aground',
    ]),
    one('Three short blasts say: I am …', 'operating astern propulsion', [
      'altering to port',
      'overtaking',
      'at anchor',
    ]),
    one('Five short blasts or more say: …', 'I doubt what you are doing', [
      'I am turning',
      'good morning',
      'man overboard',
    ]),
    one('In a narrow channel one keeps to …', 'the starboard side', [
      'the port side',
      'the middle',
      'the lee side',
    ]),
    one('In fog a power-driven vessel under way sounds …', 'one long blast every two minutes at most', [
      'two short blasts',
      'a bell',
      'nothing',
    ]),
    one('A vessel at anchor shows by day …', 'one black ball', ['two black balls', 'a cone', 'a flag']),
  ],
};

export const ON_PASSAGE: readonly Chapter[] = [FIXING, PASSAGE, WEATHER, RULES];
