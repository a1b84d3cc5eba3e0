import { composed } from '../model/composed.ts';

const TAG = /<(\/?)([^\s<>/]+)((?:\s+[^\s<>=]+\s*=\s*(?:"[^"]*"|'[^']*'))*)\s*(\/?)>/gu;
const ATTRIBUTE = /(?<![^\s=])([^\s=]+)\s*=\s*(?:"([^"]*)"|'([^']*)')/gu;

/** One name for an element or attribute in both bindings of QTI: "qti-catalog-info" and "catalogInfo". */
const plainName = (name: string): string =>
  name
    .replace(/^[^:]*:/u, '')
    .replace(/^qti-/u, '')
    .replaceAll('-', '')
    .toLowerCase();

/** A kept piece of XML in which attribute order, prefixes, namespaces and insignificant white space are gone. */
export function canonicalXml(xml: string): string {
  const tags = xml.replace(TAG, (_, close: string, name: string, attributes: string, empty: string) => {
    const kept = [...attributes.matchAll(ATTRIBUTE)]
      .filter(([, key]) => !key!.startsWith('xmlns'))
      .map(([, key, double, single]) => `${plainName(key!)}="${double ?? single ?? ''}"`)
      .sort();
    const head = [plainName(name), ...kept].join(' ');
    return close ? `</${plainName(name)}>` : empty ? `<${head}></${plainName(name)}>` : `<${head}>`;
  });
  return composed(tags).replace(/\s+/gu, ' ').replace(/> </gu, '><').trim();
}
