import { decode } from '../intake/decode.ts';
import { DEFAULT_LIMITS, openArchive, type Allowance, type Archive } from '../intake/archive.ts';
import type { Platform } from '../intake/platform.ts';
import { finding, refuse, type Finding } from '../model/finding.ts';
import { parseXml } from '../xml/parse.ts';
import { elements, type XmlElement } from '../xml/tree.ts';

/** Archives of XML parts, as word processors write them: opened by the one guarded door, parsed strictly. */

const MAX_UNPACKED = 300 * 1024 * 1024;
const MAX_DEPTH = 400;

export interface Parts {
  readonly names: ReadonlySet<string>;
  readonly bytes: (name: string) => Uint8Array | null;
  /** The root of a part; null where there is none. */
  readonly xml: (name: string) => XmlElement | null;
  readonly findings: Finding[];
}

/**
 * @param allowance what is left for the whole upload, where it is one of several
 * @throws Refusal for an archive that cannot be trusted, and for parts that are no XML
 */
export async function openParts(
  path: string,
  bytes: Uint8Array,
  platform: Platform,
  allowance?: Allowance,
): Promise<Parts> {
  const archive: Archive = await openArchive(path, bytes, platform, {
    ...DEFAULT_LIMITS,
    maxUnpacked: MAX_UNPACKED,
    ...(allowance ? { allowance } : {}),
  });
  const findings: Finding[] = [...archive.findings];
  return {
    names: new Set(archive.files.keys()),
    bytes: (name) => archive.read(name),
    findings,
    xml(name) {
      const found = archive.read(name);
      if (!found) return null;
      const result = parseXml(decode(found).text, { maxDepth: MAX_DEPTH });
      const where = { path: `${path}!/${name}` };
      if (!result.ok) {
        const { code, detail, line, column } = result.problem;
        return refuse(code, { ...where, line, column }, { detail });
      }
      const { declaredEntities } = result.document;
      if (declaredEntities.length > 0)
        findings.push(
          finding(
            'xml-entity-refused',
            'warning',
            { ...where, line: 1 },
            { names: declaredEntities.slice(0, 20).join(', ') },
          ),
        );
      return result.document.root;
    },
  };
}

/** Relationships of a part by their id (ECMA-376 part 2, 9.3): inner targets, and addresses outside. */
export function relationshipsOf(
  parts: Parts,
  part: string,
): Map<string, { target: string; external: boolean; type: string }> {
  const folder = part.slice(0, part.lastIndexOf('/') + 1);
  const root = parts.xml(`${folder}_rels/${part.slice(folder.length)}.rels`);
  const out = new Map<string, { target: string; external: boolean; type: string }>();
  for (const element of root ? elements(root, 'Relationship') : []) {
    const target = element.attrs['Target'] ?? '';
    const external = element.attrs['TargetMode'] === 'External';
    out.set(element.attrs['Id'] ?? '', {
      target: external ? target : resolve(folder, target),
      external,
      type: element.attrs['Type'] ?? '',
    });
  }
  return out;
}

function resolve(folder: string, target: string): string {
  if (target.startsWith('/')) return target.slice(1);
  const out: string[] = [];
  for (const part of `${folder}${target}`.split('/')) {
    if (part === '..') out.pop();
    else if (part !== '.' && part !== '') out.push(part);
  }
  return out.join('/');
}

/** An attribute by its local name, whatever its prefix. */
export function attr(element: XmlElement, name: string): string | null {
  for (const [key, value] of Object.entries(element.attrs))
    if (key === name || (key.endsWith(name) && key[key.length - name.length - 1] === ':')) return value;
  return null;
}
