import { harmlessXml } from '../../content/address.ts';
import type { Choice, ContentNode, Hotspot, Interaction, Picture } from '../../model/content.ts';
import type { Item } from '../../model/holding.ts';
import type { Cardinality, ResponseDeclaration, Shape } from '../../model/scoring.ts';
import { isInteraction, walk } from '../../model/visit.ts';
import { block, escapeText, keepBreaks, tag } from '../../xml/write.ts';
import { own } from '../../model/own.ts';

export interface Writer12 {
  /** Content as a mattext. */
  readonly html: (nodes: readonly ContentNode[]) => string;
  /** The address of a package file in this document. */
  readonly address: (path: string) => string;
}

const CARDINALITY: Readonly<Record<Cardinality, string>> = {
  single: 'Single',
  multiple: 'Multiple',
  ordered: 'Ordered',
  record: 'Single',
};

/**
 * The presentation of an item: material and responses in their order; a paragraph with a response in it is a
 * flow.
 */
export function writePresentation(item: Item, writer: Writer12): string {
  const parts: string[] = [];
  let run: ContentNode[] = [];
  const flush = (): void => {
    const shown = run.filter((n) => n.kind !== 'feedback');
    if (shown.length > 0) parts.push(tag('material', {}, writer.html(shown)));
    run = [];
  };
  for (const node of item.body) {
    if (node.kind === 'rubricBlock') continue;
    if (isInteraction(node)) {
      flush();
      parts.push(response(node, item, writer));
    } else if (holdsInteraction(node)) {
      flush();
      parts.push(block('flow', {}, inline(node, item, writer)));
    } else if (node.kind === 'opaque') {
      flush();
      if (node.standard === 'qti1.2') parts.push(keepBreaks(harmlessXml(node.xml)));
    } else run.push(node);
  }
  flush();
  const rubrics = item.body.filter((n) => n.kind === 'rubricBlock');
  const written = rubrics.map((r) =>
    block('rubric', { view: r.view === 'candidate' ? 'Candidate' : r.view }, [
      tag('material', {}, writer.html(r.children)),
    ]),
  );
  return [...written, block('presentation', {}, parts)].join('\n');
}

function holdsInteraction(node: ContentNode): boolean {
  let found = false;
  walk([node], (n) => {
    if (isInteraction(n)) found = true;
  });
  return found;
}

/** A block's inline content, cut where responses stand. */
function inline(node: ContentNode, item: Item, writer: Writer12): string[] {
  const parts: string[] = [];
  let run: ContentNode[] = [];
  const flush = (): void => {
    if (run.length > 0) parts.push(tag('material', {}, writer.html(run)));
    run = [];
  };
  const children = 'children' in node ? node.children : [];
  for (const child of children) {
    if (isInteraction(child)) {
      flush();
      parts.push(response(child, item, writer));
    } else if (holdsInteraction(child)) {
      flush();
      parts.push(...inline(child, item, writer));
    } else run.push(child);
  }
  flush();
  return parts;
}

function response(node: Interaction, item: Item, writer: Writer12): string {
  const declared = (id: string): ResponseDeclaration | undefined => item.responses.find((r) => r.id === id);
  const cardinality = (id: string): string => CARDINALITY[declared(id)?.cardinality ?? 'single'];
  const prompt = (nodes: readonly ContentNode[]): string =>
    nodes.length > 0 ? tag('material', {}, writer.html(nodes)) : '';
  const label = (c: Choice, extra: Readonly<Record<string, string>> = {}): string =>
    tag(
      'response_label',
      { ident: c.id, rshuffle: c.fixed ? 'No' : null, ...extra },
      tag('material', {}, writer.html(c.content)),
    );
  switch (node.kind) {
    case 'choice':
    case 'order':
      return block('response_lid', { ident: node.responseId, rcardinality: cardinality(node.responseId) }, [
        prompt(node.prompt),
        block(
          'render_choice',
          {
            shuffle: node.shuffle ? 'Yes' : 'No',
            minnumber: node.minChoices || null,
            maxnumber: node.kind === 'choice' && node.maxChoices > 1 ? node.maxChoices : null,
          },
          node.choices.map((c) => label(c)),
        ),
      ]);
    case 'match': {
      if (!node.rows) return grouped(node, prompt(node.prompt), label);
      return [
        prompt(node.prompt),
        ...node.left.map((row) =>
          block('response_lid', { ident: own(node.rows!, row.id), rcardinality: 'Single' }, [
            tag('material', {}, writer.html(row.content)),
            block(
              'render_choice',
              { shuffle: node.shuffle ? 'Yes' : 'No' },
              node.right.map((c) => label(c)),
            ),
          ]),
        ),
      ].join('\n');
    }
    case 'textEntry':
    case 'extendedText': {
      const type = declared(node.responseId)?.baseType;
      const numeric = type === 'float' || type === 'integer';
      const rows = node.kind === 'extendedText' ? (node.expectedLines ?? 10) : null;
      return block(
        numeric ? 'response_num' : 'response_str',
        { ident: node.responseId, rcardinality: 'Single' },
        [
          node.kind === 'extendedText' ? prompt(node.prompt) : '',
          tag('render_fib', {
            fibtype: type === 'integer' ? 'Integer' : numeric ? 'Decimal' : 'String',
            rows: rows === 1 ? 2 : rows,
            columns: node.expectedLength,
          }),
        ],
      );
    }
    case 'slider':
      return block('response_num', { ident: node.responseId, rcardinality: 'Single' }, [
        prompt(node.prompt),
        tag('render_slider', {
          lowerbound: node.lowerBound,
          upperbound: node.upperBound,
          step: node.step,
          orientation: node.vertical ? 'Vertical' : null,
        }),
      ]);
    case 'hotspot':
    case 'graphicOrder':
    case 'selectPoint':
      return block('response_xy', { ident: node.responseId, rcardinality: cardinality(node.responseId) }, [
        prompt(node.prompt),
        block('render_hotspot', { maxnumber: node.maxChoices > 1 ? node.maxChoices : null }, [
          tag('material', {}, image(node.picture, writer)),
          ...('hotspots' in node ? node.hotspots.map(spot) : []),
        ]),
      ]);
    case 'custom':
      return node.standard === 'qti1.2'
        ? keepBreaks(node.xml)
        : node.fallback.length > 0
          ? tag('material', {}, writer.html(node.fallback))
          : '';
    default:
      return 'prompt' in node ? prompt(node.prompt) : '';
  }
}

/** Several partners of one row: a group whose labels name what they can be paired with. */
function grouped(
  node: Extract<Interaction, { kind: 'match' }>,
  prompt: string,
  label: (c: Choice, extra?: Readonly<Record<string, string>>) => string,
): string {
  const all = node.right.map((c) => c.id).join(',');
  return block('response_grp', { ident: node.responseId, rcardinality: 'Multiple' }, [
    prompt,
    block('render_choice', { shuffle: node.shuffle ? 'Yes' : 'No' }, [
      ...node.left.map((c) => label(c, { match_group: all, match_max: String(c.matchMax ?? 1) })),
      ...node.right.map((c) => label(c)),
    ]),
  ]);
}

const image = (p: Picture, writer: Writer12): string =>
  tag('matimage', {
    imagtype: p.type || null,
    uri: writer.address(p.src),
    width: p.width,
    height: p.height,
    label: p.alt || null,
  });

function spot(h: Hotspot): string {
  const { type, text } = areaType(h.shape, h.coords);
  return tag('response_label', { ident: h.id, rarea: type }, [
    escapeText(text),
    h.label ? tag('material', {}, tag('mattext', {}, escapeText(h.label))) : '',
  ]);
}

/** An area in QTI 1.2's terms; the reader's areaOf the other way round. */
export function areaType(shape: Shape, coords: string): { type: string; text: string } {
  const n = coords.split(/[\s,]+/u).map(Number);
  const join = (list: readonly number[]): string => list.join(',');
  switch (shape) {
    case 'rect':
      return { type: 'Rectangle', text: join([n[0]!, n[1]!, n[2]! - n[0]!, n[3]! - n[1]!]) };
    case 'circle':
      return { type: 'Ellipse', text: join([n[0]!, n[1]!, 2 * n[2]!, 2 * n[2]!]) };
    case 'ellipse':
      return { type: 'Ellipse', text: join([n[0]!, n[1]!, 2 * n[2]!, 2 * (n[3] ?? n[2]!)]) };
    default:
      return { type: 'Bounded', text: coords };
  }
}
