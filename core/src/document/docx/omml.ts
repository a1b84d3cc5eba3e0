import type { ContentNode } from '../../model/content.ts';
import { element, text } from '../../model/make.ts';
import { child, elements, isElement, type XmlElement } from '../../xml/tree.ts';
import { attr } from '../parts.ts';

/** Office mathematics as presentation MathML (ECMA-376, 22.1): `<m:f><m:num>…` becomes `<mfrac>`. */

const row = (nodes: readonly ContentNode[]): ContentNode =>
  nodes.length === 1 ? nodes[0]! : element('mrow', nodes);
const operator = (sign: string): ContentNode => element('mo', [text(sign)]);

/** A formula; `m:oMath` or `m:oMathPara`. */
export function mathOf(omml: XmlElement, display = false): ContentNode {
  const inner = omml.name === 'oMathPara' ? elements(omml, 'oMath').flatMap(inside) : inside(omml);
  return {
    kind: 'math',
    attrs: display || omml.name === 'oMathPara' ? { display: 'block' } : {},
    children: [element('mrow', inner)],
  };
}

const inside = (parent: XmlElement | null): ContentNode[] =>
  parent ? parent.children.filter(isElement).flatMap(one) : [];

const part = (parent: XmlElement, name: string): ContentNode => row(inside(child(parent, name)));

function property(of: XmlElement, properties: string, name: string): string | null {
  const holder = child(of, properties);
  const found = holder && child(holder, name);
  return found ? attr(found, 'val') : null;
}

function one(m: XmlElement): ContentNode[] {
  switch (m.name) {
    case 'r':
      return tokens(
        elements(m, 't')
          .map((t) => t.children.map((c) => (c.type === 'text' ? c.text : '')).join(''))
          .join(''),
        property(m, 'rPr', 'sty') === 'p' || child(child(m, 'rPr') ?? m, 'nor') !== null,
      );
    case 'f': {
      const bar = property(m, 'fPr', 'type');
      const parts = [part(m, 'num'), part(m, 'den')];
      if (bar === 'lin') return [row([parts[0]!, operator('/'), parts[1]!])];
      return [element('mfrac', parts, bar === 'noBar' ? { linethickness: '0' } : {})];
    }
    case 'sSup':
      return [element('msup', [part(m, 'e'), part(m, 'sup')])];
    case 'sSub':
      return [element('msub', [part(m, 'e'), part(m, 'sub')])];
    case 'sSubSup':
      return [element('msubsup', [part(m, 'e'), part(m, 'sub'), part(m, 'sup')])];
    case 'sPre':
      return [
        element('mmultiscripts', [part(m, 'e'), element('mprescripts'), part(m, 'sub'), part(m, 'sup')]),
      ];
    case 'rad': {
      const degree = inside(child(m, 'deg'));
      return degree.length === 0
        ? [element('msqrt', [part(m, 'e')])]
        : [element('mroot', [part(m, 'e'), row(degree)])];
    }
    case 'd': {
      const open = property(m, 'dPr', 'begChr') ?? '(';
      const close = property(m, 'dPr', 'endChr') ?? ')';
      const between = property(m, 'dPr', 'sepChr') ?? '|';
      const parts = elements(m, 'e').flatMap((e, at) => [
        ...(at === 0 ? [] : [operator(between)]),
        row(inside(e)),
      ]);
      return [
        element('mrow', [
          ...(open === '' ? [] : [operator(open)]),
          ...parts,
          ...(close === '' ? [] : [operator(close)]),
        ]),
      ];
    }
    case 'nary': {
      const sign = operator(property(m, 'naryPr', 'chr') ?? '∫');
      const [sub, sup] = [inside(child(m, 'sub')), inside(child(m, 'sup'))];
      const beside = property(m, 'naryPr', 'limLoc') === 'subSup';
      const limits = [sub.length > 0, sup.length > 0];
      const name =
        limits[0] && limits[1]
          ? beside
            ? 'msubsup'
            : 'munderover'
          : limits[0]
            ? beside
              ? 'msub'
              : 'munder'
            : beside
              ? 'msup'
              : 'mover';
      const signed =
        limits[0] || limits[1]
          ? element(name, [sign, ...(limits[0] ? [row(sub)] : []), ...(limits[1] ? [row(sup)] : [])])
          : sign;
      return [row([signed, part(m, 'e')])];
    }
    case 'func':
      return [row([part(m, 'fName'), operator('\u2061'), part(m, 'e')])];
    case 'limLow':
      return [element('munder', [part(m, 'e'), part(m, 'lim')])];
    case 'limUpp':
      return [element('mover', [part(m, 'e'), part(m, 'lim')])];
    case 'acc':
      return [
        element('mover', [part(m, 'e'), operator(property(m, 'accPr', 'chr') ?? '\u0302')], {
          accent: 'true',
        }),
      ];
    case 'bar':
      return [
        property(m, 'barPr', 'pos') === 'top'
          ? element('mover', [part(m, 'e'), operator('\u00AF')])
          : element('munder', [part(m, 'e'), operator('_')]),
      ];
    case 'groupChr': {
      const sign = operator(property(m, 'groupChrPr', 'chr') ?? '\u23DF');
      return [
        property(m, 'groupChrPr', 'pos') === 'top'
          ? element('mover', [part(m, 'e'), sign])
          : element('munder', [part(m, 'e'), sign]),
      ];
    }
    case 'm':
      return [
        element(
          'mtable',
          elements(m, 'mr').map((mr) =>
            element(
              'mtr',
              elements(mr, 'e').map((e) => element('mtd', inside(e))),
            ),
          ),
        ),
      ];
    case 'eqArr':
      return [
        element(
          'mtable',
          elements(m, 'e').map((e) => element('mtr', [element('mtd', inside(e))])),
        ),
      ];
    case 'e':
    case 'box':
    case 'borderBox':
    case 'phant':
    case 'oMath':
      return m.name === 'e' || m.name === 'oMath' ? inside(m) : [part(m, 'e')];
    default:
      return m.name.endsWith('Pr') ? [] : inside(m);
  }
}

const OPERATORS = /[-+−±∓×÷·⋅∗*/=≠<>≤≥≈≡~∼∝→←↔⇒∞∂∇∑∏∫√∈∉∪∩⊂⊃∧∨¬∀∃(){}[\]|,;:!'′″°%‰]/u;

/** Letters, numbers and signs of a run, each as its own token. */
function tokens(run: string, upright: boolean): ContentNode[] {
  const out: ContentNode[] = [];
  for (const found of run.matchAll(/\p{Nd}+(?:[.,]\p{Nd}+)?|\p{L}[\p{L}\p{M}]*|\s+|./gsu)) {
    const [piece] = found;
    if (piece.trim() === '') continue;
    if (/^\p{Nd}/u.test(piece)) out.push(element('mn', [text(piece)]));
    else if (OPERATORS.test(piece)) out.push(operator(piece));
    else if (upright) out.push(element('mi', [text(piece)], { mathvariant: 'normal' }));
    else for (const letter of piece) out.push(element('mi', [text(letter)]));
  }
  return out;
}
