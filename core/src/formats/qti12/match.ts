// <response_lid ident="row1"><material>Red over white</material><render_choice>the same labels in every
// row</render_choice></response_lid> …
import type { Choice } from '../../model/content.ts';
import { composed } from '../../model/composed.ts';
import { response } from '../../model/make.ts';
import { plain } from '../../model/plainText.ts';
import { walk } from '../../model/visit.ts';
import { tidy } from '../../content/tidy.ts';
import { attrOf, booleanAttr } from '../../xml/attrs.ts';
import { child, descendants, elements, textOf, type XmlElement } from '../../xml/tree.ts';
import { isMaterial, readMaterial, readMaterials } from './material.ts';
import type { PresentationContext, Read } from './responses.ts';

interface MatchRows {
  readonly first: XmlElement;
  readonly elements: ReadonlySet<XmlElement>;
  readonly read: Read;
}

/**
 * Matching is asked in QTI 1.2 by several responses that offer the same labels, each with its own material.
 * Two or more such responses are one match; their identifiers stay as they are.
 */
export function readMatchRows(presentation: XmlElement, context: PresentationContext): MatchRows | null {
  const asked = descendants(presentation, 'response_lid');
  if (asked.length < 2) return null;
  const rows = asked.filter(isRow);
  const [first] = rows;
  if (!first || rows.length < 2) return null;
  const offered = labelsOf(first, context);
  const same = rows.filter((row) => labelsOf(row, context) === offered);
  if (same.length !== rows.length || offered.split('\u0001').length < 2) return null;
  const render = child(first, 'render_choice')!;
  const right = descendants(render, 'response_label').map((label): Choice => ({
    id: attrOf(label, 'ident'),
    content: tidy(readMaterials(label, context)),
    fixed: attrOf(label, 'rshuffle').toLowerCase() === 'no',
  }));
  const left = rows.map((row): Choice => ({
    id: attrOf(row, 'ident'),
    content: tidy(
      elements(row)
        .filter(isMaterial)
        .flatMap((m) => readMaterial(m, context)),
    ),
    fixed: false,
  }));
  return {
    first,
    elements: new Set(rows),
    read: {
      nodes: [
        {
          kind: 'match',
          responseId: `pairs_${attrOf(first, 'ident')}`,
          prompt: [],
          shuffle: booleanAttr(render, 'shuffle', false),
          maxAssociations: rows.length,
          minAssociations: 0,
          left,
          right,
          rows: Object.fromEntries(left.map((l) => [l.id, l.id])),
        },
      ],
      responses: rows.map((row) => response(attrOf(row, 'ident'), 'single', 'identifier')),
    },
  };
}

/** One answer from a list of labels, with words of its own before it. */
function isRow(element: XmlElement): boolean {
  const cardinality = attrOf(element, 'rcardinality').toLowerCase();
  return (
    (cardinality === '' || cardinality === 'single') &&
    child(element, 'render_choice') !== null &&
    elements(element).some((e) => isMaterial(e) && (textOf(e).trim() !== '' || elements(e).length > 0))
  );
}

/** The labels of a row by their identifiers and by what they show, however that is written. */
const labelsOf = (row: XmlElement, context: PresentationContext): string =>
  descendants(row, 'response_label')
    .map((label) => {
      const shown = readMaterials(label, context);
      const pictures: string[] = [];
      walk(shown, (node) => {
        if (node.kind === 'element' && node.attrs['src']) pictures.push(node.attrs['src']);
      });
      return [attrOf(label, 'ident'), composed(plain(shown, { alternatives: true })), ...pictures].join(
        '\u0002',
      );
    })
    .join('\u0001');
