import { Parser } from 'htmlparser2';
import { decodeHTML } from 'entities';
import type { ContentNode } from '../model/content.ts';
import type { OpenElement, XmlNode } from '../xml/tree.ts';
import { buildContent, type ContentContext } from './build.ts';

const MAX_DEPTH = 150;
const KNOWN_TAG =
  /&lt;\/?(?:p|div|span|img|br|b|i|u|strong|em|table|ul|ol|li|sub|sup|h[1-6]|a|tbody|tr|td)\b/iu;

/**
 * Content from an HTML fragment as it stands in text/html material: forgiving, as browsers are.
 * HTML that was escaped once too often is unescaped once more.
 */
export function htmlContent(html: string, context: ContentContext): readonly ContentNode[] {
  if (!/[<&]/u.test(html)) return html ? [{ kind: 'text', text: html }] : [];
  if (/<[a-z!/]/iu.test(html) || !KNOWN_TAG.test(html)) return buildContent(parseHtml(html), context);
  context.note('markup-escaped-twice', 'note');
  return buildContent(parseHtml(decodeHTML(html)), context);
}

/**
 * Parses HTML into the XML tree's shape, so that one builder serves both. Nesting beyond a cap is flattened.
 */
export function parseHtml(html: string): readonly XmlNode[] {
  const root = makeElement('root', {}, null);
  let current: OpenElement = root;
  let depth = 0;
  let flattened = 0;
  const parser = new Parser(
    {
      onopentag(name, attrs) {
        if (depth >= MAX_DEPTH) {
          flattened += 1;
          return;
        }
        const made = makeElement(name, attrs, current);
        current.children.push(made);
        current = made;
        depth += 1;
      },
      ontext(text) {
        // The parser hands text over in pieces, cut at each entity.
        const before = current.children.at(-1);
        if (before?.type === 'text')
          current.children[current.children.length - 1] = { type: 'text', text: before.text + text };
        else current.children.push({ type: 'text', text });
      },
      onclosetag() {
        if (flattened > 0) {
          flattened -= 1;
          return;
        }
        if (current.parent) {
          current = current.parent as OpenElement;
          depth -= 1;
        }
      },
    },
    { decodeEntities: true, lowerCaseTags: true, lowerCaseAttributeNames: true },
  );
  parser.write(html);
  parser.end();
  return root.children;
}

function makeElement(raw: string, attrs: Record<string, string>, parent: OpenElement | null): OpenElement {
  const colon = raw.indexOf(':');
  return {
    type: 'element',
    name: colon < 0 ? raw : raw.slice(colon + 1),
    prefix: colon < 0 ? '' : raw.slice(0, colon),
    attrs,
    children: [],
    parent,
    start: 0,
    end: 0,
  };
}
