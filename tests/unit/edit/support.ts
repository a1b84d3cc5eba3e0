import { expect } from 'chai';
import {
  applyEdits,
  evaluate,
  inspectReport,
  interactionsOf,
  optionSets,
  type Answers,
  type Holding,
  type Item,
} from '@alforja/core';
import { itemXml, document as qti12, PLAIN } from '../../../demo/qti12.ts';
import type { ItemSpec } from '../../../demo/items.ts';
import { itemXml21, read, readZip, SCORE21, template21 } from '../../support/read.ts';

/** What `inspect` says of an item. */
export type Said = ReturnType<typeof inspectReport>['items'][number];

/** An item after some edits, with what is said of it; every edit has to be applied. */
export function edited(
  holding: Holding,
  ...edits: readonly object[]
): { holding: Holding; item: Item; said: Said; score: (answers: Answers) => number } {
  const done = applyEdits(holding, edits);
  expect(done.refused.map((r) => r.why)).to.deep.equal([]);
  const [item] = done.holding.items;
  return {
    holding: done.holding,
    item: item!,
    said: inspectReport(done.holding).items[0]!,
    score: (answers) => evaluate(item!, answers).score,
  };
}

/** Why edits are refused, one code for each that is. */
export const refusals = (holding: Holding, ...edits: readonly unknown[]): string[] =>
  applyEdits(holding, edits).refused.map((r) => r.why.refused);

/** One item of QTI 1.2 as the demo writes it. */
export const spec12 = (spec: ItemSpec): Promise<Holding> => read(qti12(itemXml(spec, PLAIN)));

/** One item of QTI 2.1 from what stands in it. */
export const item21 = (inside: string): Promise<Holding> => read(itemXml21('i1', inside, 'One'));

/** The response of an item, with what is right and what each value is worth; and its score. */
export const declared = (
  cardinality: string,
  type: string,
  correct: readonly string[],
  mapping = '',
): string =>
  `<responseDeclaration identifier="RESPONSE" cardinality="${cardinality}" baseType="${type}">` +
  `${correct.length > 0 ? `<correctResponse>${correct.map((c) => `<value>${c}</value>`).join('')}</correctResponse>` : ''}` +
  `${mapping}</responseDeclaration>${SCORE21}`;

/** What single values are worth. */
export const mappingOf = (values: Readonly<Record<string, number>>, more = 'defaultValue="0"'): string => {
  const entries = Object.entries(values).map(([k, v]) => `<mapEntry mapKey="${k}" mappedValue="${v}"/>`);
  return `<mapping ${more}>${entries.join('')}</mapping>`;
};
const simple = (ids: string): string =>
  [...ids].map((id) => `<simpleChoice identifier="${id}">Choice ${id}</simpleChoice>`).join('');

/** Choices A, B, C …: one right answer, or several that all have to be given. */
export const choice21 = (key: string, ids = 'ABCD'): Promise<Holding> =>
  item21(
    `${declared(key.length > 1 ? 'multiple' : 'single', 'identifier', [...key])}<itemBody><p>Which?</p><choiceInteraction responseIdentifier="RESPONSE" shuffle="false" maxChoices="${key.length > 1 ? 0 : 1}">${simple(ids)}</choiceInteraction></itemBody>${template21('match_correct')}`,
  );

/** Choices with points of their own. */
export const mapped21 = (
  values: Readonly<Record<string, number>>,
  bounds = 'lowerBound="0"',
): Promise<Holding> => {
  const entries = Object.entries(values).map(([k, v]) => `<mapEntry mapKey="${k}" mappedValue="${v}"/>`);
  const key = Object.keys(values).filter((k) => values[k]! > 0);
  return item21(
    `${declared('multiple', 'identifier', key, `<mapping ${bounds} defaultValue="0">${entries.join('')}</mapping>`)}<itemBody><p>Which?</p><choiceInteraction responseIdentifier="RESPONSE" shuffle="false" maxChoices="0">${simple(Object.keys(values).join(''))}</choiceInteraction></itemBody>${template21('map_response')}`,
  );
};

/** A text to be typed, accepted in several forms. */
export const typed21 = (values: Readonly<Record<string, number>>): Promise<Holding> => {
  const entries = Object.entries(values).map(
    ([k, v]) => `<mapEntry mapKey="${k}" mappedValue="${v}" caseSensitive="false"/>`,
  );
  return item21(
    `${declared('single', 'string', [Object.keys(values)[0]!], `<mapping defaultValue="0">${entries.join('')}</mapping>`)}<itemBody><p>It is <textEntryInteraction responseIdentifier="RESPONSE"/> here.</p></itemBody>${template21('map_response')}`,
  );
};

/** A number with a span around it. */
export const number21 = (value: number, tolerance: string): Promise<Holding> =>
  item21(
    `${declared('single', 'float', [String(value)])}<itemBody><p>How far? <textEntryInteraction responseIdentifier="RESPONSE"/></p></itemBody><responseProcessing><responseCondition><responseIf><equal toleranceMode="absolute" tolerance="${tolerance}"><correct identifier="RESPONSE"/><variable identifier="RESPONSE"/></equal><setOutcomeValue identifier="SCORE"><baseValue baseType="float">2</baseValue></setOutcomeValue></responseIf></responseCondition></responseProcessing>`,
  );

export { read, readZip };

/** Identifiers of all that can be picked. */
export const choicesIn = (item: Item): string[] =>
  interactionsOf(item).flatMap((i) => optionSets(i).flatMap((set) => set.map((o) => o.id)));
