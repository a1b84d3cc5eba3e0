import type { Feedback } from '../../model/content.ts';
import type { Item } from '../../model/holding.ts';
import type {
  LookupTable,
  Mapping,
  OutcomeDeclaration,
  ResponseDeclaration,
  Scalar,
} from '../../model/scoring.ts';
import { block, escapeText, tag, xmlDocument } from '../../xml/write.ts';
import { QTI21_NAMESPACE, QTI21_SCHEMA } from './names.ts';
import { formatScalar } from './values.ts';
import { writeContent, type ContentWriter } from './writeContent.ts';
import { writeProcessing } from './writeExpression.ts';

export const rootAttributes = (extra: Readonly<Record<string, string | boolean | null>>) => ({
  xmlns: QTI21_NAMESPACE,
  'xmlns:xsi': 'http://www.w3.org/2001/XMLSchema-instance',
  'xsi:schemaLocation': `${QTI21_NAMESPACE} ${QTI21_SCHEMA}`,
  ...extra,
});

/** One assessmentItem document. */
export function writeItem(item: Item, writer: ContentWriter): string {
  const meta = (label: string): string | null => item.metadata.find((f) => f.label === label)?.value ?? null;
  return xmlDocument(
    block(
      'assessmentItem',
      rootAttributes({
        identifier: item.id,
        title: item.title,
        label: meta('label'),
        adaptive: meta('adaptive') === 'true',
        timeDependent: false,
        'xml:lang': item.language,
        toolName: meta('toolName'),
        toolVersion: meta('toolVersion'),
      }),
      [
        ...item.responses.map(writeResponse),
        ...item.outcomes.map(writeOutcome),
        block(
          'itemBody',
          {},
          item.body.map((node) => writeContent([node], writer)),
        ),
        writeProcessing(item.scoring),
        ...item.feedback.map((f) => writeFeedback(f, writer)),
      ],
    ),
  );
}

const values = (name: string, list: readonly Scalar[]): string =>
  list.length === 0
    ? ''
    : block(
        name,
        {},
        list.map((v) => tag('value', {}, escapeText(formatScalar(v)))),
      );

function writeResponse(response: ResponseDeclaration): string {
  return block(
    'responseDeclaration',
    { identifier: response.id, cardinality: response.cardinality, baseType: response.baseType },
    [values('correctResponse', response.correct), response.mapping ? writeMapping(response.mapping) : ''],
  );
}

function writeMapping(mapping: Mapping): string {
  return block(
    'mapping',
    { lowerBound: mapping.lowerBound, upperBound: mapping.upperBound, defaultValue: mapping.defaultValue },
    mapping.entries.map((e) =>
      tag('mapEntry', {
        mapKey: formatScalar(e.key),
        mappedValue: e.value,
        caseSensitive: e.caseSensitive ? null : false,
      }),
    ),
  );
}

function writeOutcome(outcome: OutcomeDeclaration): string {
  return block(
    'outcomeDeclaration',
    {
      identifier: outcome.id,
      cardinality: outcome.cardinality,
      baseType: outcome.baseType,
      normalMaximum: outcome.normalMaximum,
      normalMinimum: outcome.normalMinimum,
      externalScored: outcome.externalScored ? 'human' : null,
    },
    [values('defaultValue', outcome.defaultValue), outcome.lookup ? writeLookup(outcome.lookup) : ''],
  );
}

function writeLookup(table: LookupTable): string {
  const match = table.kind === 'match';
  return block(
    match ? 'matchTable' : 'interpolationTable',
    { defaultValue: table.defaultValue },
    table.entries.map((e) =>
      tag(match ? 'matchTableEntry' : 'interpolationTableEntry', {
        sourceValue: e.source,
        includeBoundary: match || e.includeBoundary ? null : false,
        targetValue: formatScalar(e.target),
      }),
    ),
  );
}

function writeFeedback(feedback: Feedback, writer: ContentWriter): string {
  return tag(
    'modalFeedback',
    {
      outcomeIdentifier: feedback.outcome,
      identifier: feedback.id,
      showHide: feedback.show ? 'show' : 'hide',
      title: feedback.title || null,
    },
    writeContent(feedback.content, writer),
  );
}
