// <response_lid ident="r" rcardinality="Single"><render_choice><response_label
// ident="A">…</response_label></render_choice></response_lid>
import { parseNumber } from '../../model/number.ts';
import type { Choice, ContentNode, Hotspot, Picture } from '../../model/content.ts';
import { response } from '../../model/make.ts';
import type { BaseType, Cardinality, ResponseDeclaration, Shape } from '../../model/scoring.ts';
import { imageType } from '../../content/allow.ts';
import { tidy } from '../../content/tidy.ts';
import { attrOf, booleanAttr, numberAttr } from '../../xml/attrs.ts';
import { child, descendants, elements, textOf, type XmlElement } from '../../xml/tree.ts';
import { isMaterial, readMaterial, readMaterials, type MaterialContext } from './material.ts';

export interface PresentationContext extends MaterialContext {
  /** Free text even where the renderer has one row: the item's metadata say a person marks it. */
  readonly essay: boolean;
  /** Responses that the scoring compares as numbers. */
  readonly numeric: ReadonlySet<string>;
  /** Responses that the scoring asks whether they lie in an area. */
  readonly pointed: ReadonlySet<string>;
}

export interface Read {
  readonly nodes: readonly ContentNode[];
  readonly responses: readonly ResponseDeclaration[];
  readonly blanks?: { readonly response: string; readonly ids: readonly string[] };
}

type ResponseReader = (element: XmlElement, context: PresentationContext) => Read | null;

function cardinalityOf(element: XmlElement): Cardinality {
  const given = attrOf(element, 'rcardinality').toLowerCase();
  return given === 'multiple' ? 'multiple' : given === 'ordered' ? 'ordered' : 'single';
}

const labelsIn = (render: XmlElement): XmlElement[] => descendants(render, 'response_label');

const choicesIn = (render: XmlElement, context: PresentationContext): Choice[] =>
  labelsIn(render).map((label, at) => ({
    id: attrOf(label, 'ident') || `choice-${at + 1}`,
    content: tidy(readMaterials(label, context)),
    fixed: attrOf(label, 'rshuffle').toLowerCase() === 'no',
  }));

const promptOf = (element: XmlElement, context: PresentationContext): readonly ContentNode[] =>
  tidy(
    elements(element)
      .filter(isMaterial)
      .flatMap((e) => readMaterial(e, context)),
  );

/** One answer, several, or an order. */
const readChoice: ResponseReader = (element, context) => {
  const render = child(element, 'render_choice');
  if (element.name !== 'response_lid' || !render) return null;
  const id = attrOf(element, 'ident');
  const cardinality = cardinalityOf(element);
  const common = {
    responseId: id,
    shuffle: booleanAttr(render, 'shuffle', false),
    minChoices: numberAttr(render, 'minnumber') ?? 0,
    prompt: promptOf(element, context),
    choices: choicesIn(render, context),
  };
  const most = numberAttr(render, 'maxnumber');
  const node: ContentNode =
    cardinality === 'ordered'
      ? { kind: 'order', ...common, minChoices: 0, maxChoices: 0 }
      : { kind: 'choice', ...common, maxChoices: cardinality === 'single' ? 1 : (most ?? 0) };
  return { nodes: [node], responses: [response(id, cardinality, 'identifier')] };
};

/** Labels that name the groups they can be paired with, and the labels so named. */
const readGroups: ResponseReader = (element, context) => {
  const render = child(element, 'render_choice') ?? child(element, 'render_extension');
  if (element.name !== 'response_grp' || !render) return null;
  const labels = labelsIn(render);
  const sources = labels.filter((l) => attrOf(l, 'match_group') !== '');
  const targets = labels.filter((l) => attrOf(l, 'match_group') === '');
  if (sources.length === 0 || targets.length === 0) return null;
  const id = attrOf(element, 'ident');
  const read = (label: XmlElement): Choice => {
    const matchMax = numberAttr(label, 'match_max');
    return {
      id: attrOf(label, 'ident'),
      content: tidy(readMaterials(label, context)),
      fixed: attrOf(label, 'rshuffle').toLowerCase() === 'no',
      ...(matchMax === null ? {} : { matchMax }),
    };
  };
  const left = sources.map(read);
  const right = targets.map(read);
  return {
    nodes: [
      {
        kind: 'match',
        responseId: id,
        prompt: promptOf(element, context),
        shuffle: booleanAttr(render, 'shuffle', false),
        maxAssociations: left.length,
        minAssociations: 0,
        left,
        right,
        rows: null,
      },
    ],
    responses: [response(id, cardinalityOf(element) === 'single' ? 'single' : 'multiple', 'directedPair')],
  };
};

const fillInNode = (
  id: string,
  render: XmlElement,
  prompt: readonly ContentNode[],
  context: PresentationContext,
): ContentNode => {
  const rows = numberAttr(render, 'rows') ?? 1;
  const columns = numberAttr(render, 'columns') ?? numberAttr(render, 'maxchars');
  return rows > 1 || context.essay
    ? {
        kind: 'extendedText',
        responseId: id,
        prompt,
        expectedLines: rows > 1 ? rows : null,
        expectedLength: columns,
      }
    : { kind: 'textEntry', responseId: id, expectedLength: columns, placeholder: null };
};

/** A blank, a number or an essay; several labels in one response are several blanks told apart by index. */
const readFillIn: ResponseReader = (element, context) => {
  const render = child(element, 'render_fib');
  if (!render || !/^response_(?:str|num|lid)$/u.test(element.name)) return null;
  const id = attrOf(element, 'ident');
  const labels = labelsIn(render);
  if (labels.length > 1) {
    const ids = labels.map((label, at) => attrOf(label, 'ident') || `${id}_${at + 1}`);
    return {
      nodes: labels.flatMap((label, at) => [
        ...readMaterials(label, context),
        fillInNode(ids[at]!, render, [], context),
      ]),
      responses: ids.map((blank) => response(blank, 'single', fillInType(element, render, context))),
      blanks: { response: id, ids },
    };
  }
  // Material inside the renderer surrounds the blank.
  const around = elements(render)
    .filter(isMaterial)
    .flatMap((m) => readMaterial(m, context));
  const node = fillInNode(id, render, promptOf(element, context), context);
  const before = node.kind === 'textEntry' ? promptOf(element, context) : [];
  return {
    nodes: [...before, ...around, node],
    responses: [response(id, 'single', fillInType(element, render, context))],
  };
};

/** Numbers where the renderer says so, or where the scoring compares the answer as one. */
function fillInType(element: XmlElement, render: XmlElement, context: PresentationContext): BaseType {
  const fibtype = attrOf(render, 'fibtype').toLowerCase();
  if (fibtype === 'integer') return 'integer';
  if (element.name === 'response_num' || fibtype === 'decimal' || fibtype === 'scientific') return 'float';
  return context.numeric.has(attrOf(element, 'ident')) ? 'float' : 'string';
}

/** A picture with areas to pick, or to point at. */
const readHotspot: ResponseReader = (element, context) => {
  const render = child(element, 'render_hotspot');
  if (!render || !/^response_(?:xy|lid|grp)$/u.test(element.name)) return null;
  const id = attrOf(element, 'ident');
  const shown = [...descendants(render, 'matimage'), ...descendants(element, 'matimage')];
  const [image] = shown.flatMap((m) => readMaterial(m, context));
  const picture = image && pictureOf(image);
  if (!picture) return null;
  const prompt = tidy(
    elements(element)
      .filter((e) => isMaterial(e) && descendants(e, 'matimage').length === 0)
      .flatMap((e) => readMaterial(e, context)),
  );
  const cardinality = cardinalityOf(element);
  const most = cardinality === 'single' ? 1 : (numberAttr(render, 'maxnumber') ?? 0);
  const hotspots = labelsIn(render).map((label) => hotspotOf(label));
  if (context.pointed.has(id) || hotspots.length === 0)
    return {
      nodes: [{ kind: 'selectPoint', responseId: id, prompt, maxChoices: most, minChoices: 0, picture }],
      responses: [response(id, cardinality === 'ordered' ? 'multiple' : cardinality, 'point')],
    };
  return {
    nodes: [
      {
        kind: cardinality === 'ordered' ? 'graphicOrder' : 'hotspot',
        responseId: id,
        prompt,
        maxChoices: cardinality === 'ordered' ? 0 : most,
        minChoices: 0,
        picture,
        hotspots,
      },
    ],
    responses: [response(id, cardinality, 'identifier')],
  };
};

function pictureOf(node: ContentNode): Picture | null {
  if (node.kind !== 'element' || node.name !== 'img') return null;
  const { src, width, height, alt = '' } = node.attrs;
  return src
    ? { src, type: imageType(src), width: parseNumber(width), height: parseNumber(height), alt }
    : null;
}

function hotspotOf(label: XmlElement): Hotspot {
  const own = label.children
    .filter((n) => n.type === 'text')
    .map((n) => n.text)
    .join(' ');
  const { shape, coords } = areaOf(attrOf(label, 'rarea'), own);
  return {
    id: attrOf(label, 'ident'),
    shape,
    coords,
    label: elements(label).filter(isMaterial).map(textOf).join(' ').replace(/\s+/gu, ' ').trim(),
  };
}

/**
 * An area of QTI 1.2 in QTI 2's terms. Rectangle: left, top, width, height. Ellipse: centre, then both
 * diameters. Bounded: corners (ASI Information Model 1.2, "rarea" and "areatype"; from memory).
 */
export function areaOf(type: string, text: string): { shape: Shape; coords: string } {
  const n = text
    .trim()
    .split(/[\s,]+/u)
    .map(Number)
    .filter(Number.isFinite);
  const kind = type.toLowerCase();
  if (kind === 'rectangle' && n.length >= 4)
    return { shape: 'rect', coords: [n[0]!, n[1]!, n[0]! + n[2]!, n[1]! + n[3]!].join(',') };
  if (kind === 'ellipse' && n.length >= 3) {
    const [across, down] = [n[2]! / 2, (n[3] ?? n[2]!) / 2];
    return across === down
      ? { shape: 'circle', coords: [n[0]!, n[1]!, across].join(',') }
      : { shape: 'ellipse', coords: [n[0]!, n[1]!, across, down].join(',') };
  }
  if (n.length >= 6) return { shape: 'poly', coords: n.join(',') };
  return n.length >= 4
    ? { shape: 'rect', coords: [n[0]!, n[1]!, n[0]! + n[2]!, n[1]! + n[3]!].join(',') }
    : { shape: 'default', coords: '' };
}

/** A number on a scale. */
const readSlider: ResponseReader = (element, context) => {
  const render = child(element, 'render_slider');
  if (!render || (element.name !== 'response_num' && labelsIn(render).length > 0)) return null;
  const id = attrOf(element, 'ident');
  const step = numberAttr(render, 'step');
  const whole = step === null || Number.isInteger(step);
  return {
    nodes: [
      {
        kind: 'slider',
        responseId: id,
        prompt: promptOf(element, context),
        lowerBound: numberAttr(render, 'lowerbound') ?? 0,
        upperBound: numberAttr(render, 'upperbound') ?? 100,
        step,
        reverse: false,
        vertical: attrOf(render, 'orientation').toLowerCase() === 'vertical',
      },
    ],
    responses: [response(id, 'single', whole ? 'integer' : 'float')],
  };
};

/** One reader a response and renderer, in the order in which they are asked. */
export const READERS: readonly ResponseReader[] = [
  readChoice,
  readGroups,
  readFillIn,
  readHotspot,
  readSlider,
];
