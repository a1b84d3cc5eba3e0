import type { ContentNode } from '../model/content.ts';
import { attributes, escapeText } from '../xml/write.ts';
import { isModestAttribute } from './modest.ts';
import { MATHML, MATH_ATTRIBUTES } from './allow.ts';

const NAMESPACE = 'http://www.w3.org/1998/Math/MathML';

/**
 * A formula as mark-up that an HTML page takes as it stands: allowed elements and attributes only, all text
 * escaped. Fences become operators in a row, since MathML Core (W3C, section 3.5) leaves `mfenced` out.
 */
export function mathMarkup(formula: Extract<ContentNode, { kind: 'math' }>): string {
  return element('math', { xmlns: NAMESPACE, ...kept(formula.attrs) }, formula.children.map(write).join(''));
}

function write(node: ContentNode): string {
  if (node.kind === 'text') return escapeText(node.text);
  if (node.kind !== 'element' || !MATHML.has(node.name)) return '';
  const children = node.children.map(write);
  return node.name === 'mfenced'
    ? fenced(node.attrs, children)
    : element(node.name, kept(node.attrs), children.join(''));
}

/** MathML 3, 3.3.8: parentheses and commas where nothing else is said; the last separator is repeated. */
function fenced(attrs: Readonly<Record<string, string>>, children: readonly string[]): string {
  const { open = '(', close = ')', separators = ',' } = attrs;
  const marks = [...separators.replace(/\s+/gu, '')];
  const row = children.flatMap((child, at) => {
    const mark = marks[Math.min(at, marks.length) - 1] ?? marks.at(-1);
    return at === 0 || mark === undefined ? [child] : [operator(mark, 'separator'), child];
  });
  return element('mrow', {}, [operator(open, 'fence'), ...row, operator(close, 'fence')].join(''));
}

const operator = (text: string, role: 'fence' | 'separator'): string =>
  text === '' ? '' : element('mo', { [role]: 'true' }, escapeText(text));

const element = (name: string, attrs: Readonly<Record<string, string>>, inner: string): string =>
  `<${name}${attributes(attrs)}>${inner}</${name}>`;

/** Also of what was stored before these rules held. */
const kept = (attrs: Readonly<Record<string, string>>): Record<string, string> =>
  Object.fromEntries(
    Object.entries(attrs).filter(([key, value]) => MATH_ATTRIBUTES.has(key) && isModestAttribute(key, value)),
  );
