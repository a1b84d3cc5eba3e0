import type { Op } from '../schema.ts';
import { ACCEPT } from './accept.ts';
import { ANSWERS } from './answers.ts';
import { CASE } from './case.ts';
import { CHOICE_ADD, CHOICE_DROP } from './choiceList.ts';
import { CHOICE_ORDER } from './choiceOrder.ts';
import { CHOICE_FIXED, CHOICE_TEXT, SHUFFLE } from './choices.ts';
import { CONTENT } from './content.ts';
import { DRAW, DRAW_FIX, DRAW_SPLIT, MERGE, MOVE, SETTINGS, SPLIT } from './containers.ts';
import { ALT, FILE_DROP, FILE_NAME, FILE_PUT } from './files.ts';
import { KEY } from './key.ts';
import { KIND, PARAMETERS_FIX, PASSAGE_IN } from './kinds.ts';
import { BRING_BACK, LEAVE_OUT, TITLE } from './nodes.ts';
import type { Operation } from './operation.ts';
import { POINTS } from './points.ts';
import { ofScoring } from './rewriting.ts';
import { ORDER, PLACE, SECTION_ADD, SECTION_DROP, SECTION_TITLE, WEIGHT } from './sections.ts';
import { BLOCK, READ_AS } from './readings.ts';
import { REPLICAS } from './replicas.ts';
import { SEPARATE } from './separate.ts';
import { SIMPLER } from './simpler.ts';
import { CATEGORY, FEEDBACK, FEEDBACK_PLAIN, STEM } from './texts.ts';
import { TEST_PLAIN } from './testPlain.ts';
import { TOLERANCE } from './tolerance.ts';

/** Every operation there is. A further one is a schema in `schema.ts`, a line here, and its words. */
export const OPERATIONS: { readonly [O in Op]: Operation<O> } = {
  title: TITLE,
  stem: STEM,
  'choice-text': CHOICE_TEXT,
  'choice-fixed': CHOICE_FIXED,
  'choice-add': ofScoring(CHOICE_ADD),
  'choice-drop': ofScoring(CHOICE_DROP),
  'choice-order': CHOICE_ORDER,
  shuffle: SHUFFLE,
  answers: ofScoring(ANSWERS),
  key: ofScoring(KEY),
  accept: ofScoring(ACCEPT),
  tolerance: ofScoring(TOLERANCE),
  case: ofScoring(CASE),
  points: POINTS,
  content: CONTENT,
  category: CATEGORY,
  feedback: FEEDBACK,
  alt: ALT,
  'file-drop': FILE_DROP,
  'file-put': FILE_PUT,
  'file-name': FILE_NAME,
  'feedback-plain': FEEDBACK_PLAIN,
  kind: KIND,
  'passage-in': PASSAGE_IN,
  'parameters-fix': PARAMETERS_FIX,
  replicas: REPLICAS,
  scoring: ofScoring(SIMPLER),
  separate: SEPARATE,
  'leave-out': LEAVE_OUT,
  'bring-back': BRING_BACK,
  settings: SETTINGS,
  'test-plain': TEST_PLAIN,
  draw: DRAW,
  'draw-fix': DRAW_FIX,
  'draw-split': DRAW_SPLIT,
  'section-add': SECTION_ADD,
  'section-title': SECTION_TITLE,
  'section-drop': SECTION_DROP,
  order: ORDER,
  place: PLACE,
  weight: WEIGHT,
  move: MOVE,
  merge: MERGE,
  split: SPLIT,
  'read-as': READ_AS,
  block: BLOCK,
};
