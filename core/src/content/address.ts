/** Addresses that content may hold: told by what a browser makes of them, not by how they are written. */

/** A browser drops these inside and around a scheme. */
// eslint-disable-next-line no-control-regex
const DROPPED = /[\u0000-\u0020\u007F-\u009F\u00AD\u200B-\u200F\u2028-\u202E\u2060-\u2064\uFEFF]+/gu;
const SCHEME = /^([a-z][a-z0-9+.-]*):/iu;
const HARMLESS: ReadonlySet<string> = new Set(['http', 'https', 'mailto', 'tel']);
/** Schemes that run something, or lead to what is not of the package. */
const ACTIVE =
  /^(?:javascript|vbscript|livescript|mocha|data|file|blob|filesystem|jar|mhtml|about|view-source|chrome|resource|wyciwyg|ms-[a-z-]+)$/u;
/** Percent-encoding within percent-encoding is undone this often; what is deeper is no address. */
const DEEPEST = 4;

/** The schemes of an address as a browser reads it, and as it is once percent-encoding is undone, in small letters. */
function* schemesOf(address: string): Generator<string> {
  let now = address;
  for (let depth = 0; depth < DEEPEST; depth++) {
    const scheme = SCHEME.exec(now.replace(DROPPED, ''))?.[1];
    if (scheme !== undefined) yield scheme.toLowerCase();
    if (!now.includes('%')) return;
    const next = now.replace(/%([0-9a-f]{2})/giu, (_, hex: string) =>
      String.fromCharCode(Number.parseInt(hex, 16)),
    );
    if (next === now) return;
    now = next;
  }
}

/** The scheme of an address in small letters, however it is hidden; null where it has none. */
export function schemeOf(address: string): string | null {
  for (const scheme of schemesOf(address)) return scheme;
  return null;
}

/** Whether an address leads outside, to what a link may lead to. */
export const isHarmless = (address: string): boolean => HARMLESS.has(schemeOf(address) ?? '');

/**
 * Whether an address would run something or open what is none of the package's. Pictures in base64 are told apart
 * before this is asked.
 */
export function isActive(address: string): boolean {
  for (const scheme of schemesOf(address)) if (ACTIVE.test(scheme)) return true;
  return false;
}

/** An address of content as it is written: what would run something leads nowhere; pictures in base64 stay. */
export const writtenAddress = (address: string): string =>
  isActive(address) && !address.startsWith('data:image/') ? '#' : address;

const ATTRIBUTE = /(\s)([\w:.-]{1,100})(\s{0,20}=\s{0,20})(?:"([^"<]*)"|'([^'<]*)')/gu;
/** Character references that letters of a scheme can be written as. */
const REFERENCE = /&(?:#(\d{1,7})|#x([0-9a-f]{1,6})|(colon|tab|newline));?/giu;
const NAMED: Readonly<Record<string, string>> = { colon: ':', tab: '\t', newline: '\n' };

const withoutReferences = (value: string): string =>
  value.replace(REFERENCE, (_, decimal?: string, hex?: string, name?: string) => {
    if (name) return NAMED[name.toLowerCase()]!;
    const code = decimal ? Number(decimal) : Number.parseInt(hex ?? '0', 16);
    return code <= 0x10ffff ? String.fromCodePoint(code) : '';
  });

/**
 * A piece of XML that is carried back as it came, without what would run: handlers of events go, and an address that
 * would run something leads nowhere.
 */
export const harmlessXml = (xml: string): string =>
  xml.replace(
    ATTRIBUTE,
    (whole, space: string, name: string, equals: string, double?: string, single?: string) => {
      if (/^on[a-z]+$/iu.test(name)) return '';
      return isActive(withoutReferences(double ?? single ?? '')) ? `${space}${name}${equals}"#"` : whole;
    },
  );
