import { cutShort } from '../model/cut.ts';
import type { Refused, RefusalCode } from '../edit/refusal.ts';
import type { Replaceable } from '../edit/nearestKinds.ts';
import type { Edit, EditOf, Op } from '../edit/schema.ts';
import { plainNumber } from '../model/number.ts';
import type { HandRole } from '../layout/hand.ts';
import { sayLayout } from '../layout/say.ts';
import { fillWords } from './fill.ts';

/** Why an edit was not applied, in words, by code. */
export const REFUSAL_WORDS: Readonly<Record<RefusalCode, string>> = {
  'not-an-edit': 'This is no edit: {detail}.',
  'node-unknown': 'Nothing here goes by “{node}”.',
  'node-ambiguous': 'Several things go by “{node}”; say of what kind it is ("kind").',
  'node-kind': '“{node}” is of another kind; this needs {wants}.',
  stale: 'Something else stands there now: {now}, where this edit saw {was}. Look at it again.',
  'text-too-long': 'The text is longer than {limit} characters.',
  'blanks-changed': 'The text has {blanks} places to fill in; write each as ___ and keep all of them.',
  'slots-changed': 'What is answered in the text ({count} places) has to stay in it, each once.',
  'content-place': 'It is not clear which text is meant ({at}).',
  'choice-unknown': 'There is no choice “{choice}”; there are {known}.',
  'choice-exists': 'There is a choice “{choice}” already.',
  'choice-id': '“{choice}” cannot name a choice: identifiers have no blanks.',
  'choice-last': 'It is the last choice.',
  'choice-only-right': '“{choice}” is the only right answer; make another one right first.',
  'choice-place': 'It is not clear where this choice belongs; name the choice before it ("after").',
  'response-unknown': 'There is no response “{response}”; there are {known}.',
  'response-needed': 'There are several responses; say which ("response"): {known}.',
  'scoring-program':
    'The scoring is a program of its own; it is kept, unless one says that it is to be replaced ("replace").',
  'scoring-other': '“{op}” does not fit this scoring ({kind}).',
  'scoring-not-as-asked': 'Run again, the item does not score as asked; it is left as it was.',
  'parameters-drawn': 'What is right is worked out from parameters for every student.',
  'key-empty': 'Nothing would be right.',
  'key-several': '{count} answers are named, and only one can be given.',
  'key-value': '“{value}” does not fit; this takes {wants}.',
  'answer-twice': '“{text}” stands twice.',
  'points-negative': 'Points cannot be below 0.',
  'bounds-order': 'The lower end lies above the upper one.',
  'bounds-around': 'The right answer {value} lies outside of {low} to {high}.',
  'feedback-none': 'There is no feedback for “{on}” here, and none can be told apart.',
  'file-unknown': 'It does not refer to “{path}”; it refers to {known}.',
  'file-taken': 'There is a file “{path}” already.',
  'document-unknown': 'Nothing was read from a document “{path}”; there are {known}.',
  'block-unknown': 'There is no block {block}; the document has {blocks}.',
  'section-unknown': 'There is no section “{section}”; there are {known}.',
  'section-used': 'The section “{section}” is there already, or nothing could take what stands in it.',
  'draw-none': 'Nothing is drawn in the section “{section}”.',
  'draw-pick': '{pick} cannot be drawn from {of}.',
  'bank-unknown': 'There is no other question bank “{bank}”.',
  'item-not-here': '“{item}” does not stand here.',
  'replicas-none': 'No replica could be made of it.',
  'item-drawn': '“{item}” is drawn at random; several items cannot take its place.',
  'order-other': 'The new order does not name just what is there.',
  'dates-order': 'It would close before it opens.',
  'nothing-to-split': 'All of it is alike.',
  'cell-read-only': 'The column “{column}” tells what follows from the item; change it in the item itself.',
  'cell-number': '“{text}” is no number.',
  'cell-choices': '“{text}” names no choice; there are {known}.',
  'cell-yes-no': '“{text}” is neither yes nor no.',
  'cell-range': '“{text}” is no tolerance; write “± 0.5”, “5 %” or “9.5 to 10.5”.',
};

export const sayRefusal = ({ refused, params }: Refused): string => fillWords(REFUSAL_WORDS[refused], params);

const quoted = (text: string): string => `“${text}”`;
const points = (n: number): string => `${plainNumber(n)} ${n === 1 ? 'point' : 'points'}`;
const list = (of: readonly unknown[]): string => of.map((x) => quoted(String(x))).join(', ');

/** What an edit does, in words. */
const SAY: { readonly [O in Op]: (edit: EditOf<O>) => string } = {
  title: (e) => `call it ${quoted(e.to)}`,
  stem: (e) => `the text becomes ${quoted(e.to)}`,
  content: (e) =>
    `the text (${e.at}) becomes ${quoted(
      e.to
        .replace(/<[^<>]*>/gu, ' ')
        .replace(/\s+/gu, ' ')
        .trim(),
    )}`,
  'choice-text': (e) => `the choice ${quoted(e.choice)} becomes ${quoted(e.to)}`,
  'choice-fixed': (e) =>
    e.to
      ? `the choice ${quoted(e.choice)} stays in its place when choices are shuffled`
      : `the choice ${quoted(e.choice)} is shuffled with the others`,
  'choice-add': (e) => `a further choice, wrong: ${quoted(e.to)}`,
  'choice-drop': (e) => `take out the choice ${quoted(e.choice)}`,
  'choice-order': (e) => `the choices in this order: ${list(e.to)}`,
  shuffle: (e) => (e.to ? 'shuffle the choices' : 'keep the choices in their order'),
  answers: (e) => (e.to === 'several' ? 'several answers can be given' : 'one answer can be given'),
  key: (e) => `right is ${list(e.to)}`,
  accept: (e) =>
    `accepted: ${e.to.map((a) => `${quoted(a.text)}${a.points === undefined ? '' : ` for ${points(a.points)}`}`).join(', ')}`,
  tolerance: (e) =>
    e.to === null
      ? 'the number has to be met exactly'
      : `accepted from ${plainNumber(e.to.low)} to ${plainNumber(e.to.high)}`,
  case: (e) => (e.to ? 'capitals matter' : 'capitals do not matter'),
  points: (e) => `worth ${points(e.to)}`,
  category: (e) => (e.to === null ? 'no category' : `category ${quoted(e.to)}`),
  feedback: (e) =>
    e.to === null ? `no feedback for ${quoted(e.on)}` : `feedback for ${quoted(e.on)}: ${quoted(e.to)}`,
  alt: (e) =>
    e.to === '' ? `${quoted(e.path)} is decoration` : `${quoted(e.path)} is described as ${quoted(e.to)}`,
  'file-drop': (e) => `take out the reference to ${quoted(e.path)}`,
  'file-put': (e) => `put a file in the place of ${quoted(e.path)}`,
  'file-name': (e) => `the file ${quoted(e.path)} becomes ${quoted(e.to)}`,
  kind: (e) => KIND_WORDS[e.from],
  'passage-in': () => 'the shared passage goes into the item itself',
  'parameters-fix': (e) => `the same for everybody, as seed ${e.seed} makes it`,
  replicas: (e) => `${e.count} fixed questions in its place, made with the seed ${quoted(e.seed)}`,
  scoring: (e) =>
    e.to === 'all-or-nothing'
      ? 'all or nothing'
      : 'only these texts are accepted, without tolerance or pattern',
  separate: () => 'one item for each row or blank; together they are worth the same',
  'feedback-plain': (e) =>
    e.hints
      ? 'hints and solutions become ordinary feedback, shown to everybody'
      : 'all feedback stands beside the item, shown to everybody',
  'leave-out': () => 'leave it out',
  'bring-back': () => 'bring it back',
  settings: (e) =>
    Object.entries(e.to)
      .map(([name, value]) => `${SETTING_WORDS[name as keyof typeof SETTING_WORDS]}: ${sayValue(value)}`)
      .join('; '),
  draw: (e) =>
    [
      e.to.pick === undefined ? '' : `draw ${e.to.pick}`,
      e.to.pointsEach === undefined ? '' : `${points(e.to.pointsEach)} each`,
      e.to.pool === undefined
        ? ''
        : typeof e.to.pool === 'string'
          ? `from ${quoted(e.to.pool)}`
          : `from ${e.to.pool.length} items`,
    ]
      .filter((t) => t !== '')
      .join(', '),
  'test-plain': () =>
    'its sections one after the other, for everybody: no parts, no conditions, no feedback on the whole',
  'draw-fix': (e) => `the same items for everybody in the section ${quoted(String(e.section))}`,
  'draw-split': (e) =>
    `draw apart: ${e.to.map((t) => `${t.pick} of ${t.pool.length} for ${points(t.pointsEach)}`).join(', ')}`,
  'section-add': (e) => `a new section ${quoted(e.to)}`,
  'section-title': (e) =>
    e.to === ''
      ? `the section ${quoted(String(e.section))} loses its title`
      : `the section ${quoted(String(e.section))} becomes ${quoted(e.to)}`,
  'section-drop': (e) => `the section ${quoted(String(e.section))} goes; its items stay`,
  order: (e) => `another order in the section ${quoted(String(e.section))}`,
  place: (e) => `${quoted(e.item)} stands in the section ${quoted(String(e.section))}`,
  weight: (e) => `${quoted(e.item)} counts ${plainNumber(e.to)} times`,
  move: (e) => `move it into ${quoted(e.to)}`,
  merge: (e) => `everything in it goes into ${quoted(e.to)}`,
  split: (e) =>
    typeof e.by === 'string' ? `one bank for each ${e.by}` : `a bank of its own: ${quoted(e.by.title)}`,
  'read-as': (e) =>
    e.to === null
      ? 'read as the layout is found'
      : `${e.path === undefined ? 'all documents it fits are read' : 'read'} with ${sayLayout(e.to)}`,
  block: (e) => (e.to === null ? `block ${e.block} as it was read` : `block ${e.block} ${BLOCK_WORDS[e.to]}`),
};

const BLOCK_WORDS: Readonly<Record<HandRole, string>> = {
  question: 'begins a question',
  text: 'is text of the question above',
  on: 'goes on in the line above',
  choice: 'is a choice of the question above',
  key: 'is the key of the question above',
  feedback: 'is feedback of the question above',
  before: 'is text of the question below',
  heading: 'is a heading',
  aside: 'is no part of any question',
};

/** What becomes of a kind that a target lacks, by the kind that it was. */
const KIND_WORDS: Readonly<Record<Replaceable, string>> = {
  inlineChoice: 'it becomes a list of choices',
  hottext: 'the words to pick become a list of choices',
  hotspot: 'the areas of the picture become a list of choices, by their labels or by where they lie',
  slider: 'it becomes a number to type',
  order: 'what is to be ordered gets letters, and the letters are typed in order',
  graphicOrder: 'the areas of the picture become a list to put in order',
  associate: 'it becomes a matching of two lists',
  graphicAssociate: 'the areas of the picture become a list to pair',
  graphicGapMatch: 'each area of the picture becomes a gap below it',
  upload: 'it becomes a text to write, marked by a person as before',
  drawing: 'it becomes a text to write below the picture, marked by a person as before',
  media: 'the recording stands in the text, without a count of how often it plays',
  endAttempt: 'the button goes',
};

const SETTING_WORDS = {
  attempts: 'attempts',
  timeLimitMinutes: 'minutes',
  passMark: 'pass mark',
  shuffleItems: 'random order',
  shuffleChoices: 'shuffle choices',
  opens: 'opens',
  closes: 'closes',
  instructions: 'instructions',
} as const;

const sayValue = (value: unknown): string =>
  value === null ? 'not set' : value === true ? 'yes' : value === false ? 'no' : String(value);

const MOST_SAID = 160;

/** What things are called that an edit speaks of beside its node; by their ids where nobody knows. */
export type Calling = (id: string) => string;

/** An edit whose words name sections, items and banks as people do. */
function inNames(edit: Edit, called: Calling): Edit {
  const named = { ...edit } as Record<string, unknown>;
  for (const part of ['section', 'item'] as const)
    if (typeof named[part] === 'string') named[part] = called(named[part]);
  if (edit.op === 'move' || edit.op === 'merge') named['to'] = called(edit.to);
  if (edit.op === 'draw' && typeof edit.to.pool === 'string')
    named['to'] = { ...edit.to, pool: called(edit.to.pool) };
  return named as Edit;
}

/** What an edit does, in words; long texts are cut. */
export function sayEdit(given: Edit, called: Calling = (id) => id): string {
  const edit = inNames(given, called);
  const said = (SAY[edit.op] as (e: Edit) => string)(edit);
  return cutShort(said, MOST_SAID);
}
