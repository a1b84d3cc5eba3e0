import { decode } from '../intake/decode.ts';
import { finding, type Finding } from '../model/finding.ts';
import { parseXml } from '../xml/parse.ts';
import { lineFinder } from '../xml/places.ts';
import type { XmlDocument } from '../xml/tree.ts';

/** A document that has been parsed, and where in its text an offset is. */
export interface ParsedDocument {
  readonly document: XmlDocument;
  readonly place: (offset: number) => { line: number; column: number };
}

/** Entities that are named in one finding. */
const MAX_NAMED = 20;

/**
 * Parses a document of a package; what is amiss with it is told as findings.
 * @param maxDepth of elements in each other; as the parser has it where it is left out
 * @returns null where it is not there, or no XML
 */
export function parseFile(
  path: string,
  bytes: Uint8Array | null,
  maxDepth: number | undefined,
  add: (found: Finding) => void,
): ParsedDocument | null {
  if (!bytes) return null;
  const { text, repaired } = decode(bytes);
  if (repaired)
    add(finding('encoding-repaired', 'note', { path }, { declared: repaired.declared, used: repaired.used }));
  const result = parseXml(text, { maxDepth });
  if (!result.ok) {
    const { code, detail, line, column } = result.problem;
    add(finding(code, 'error', { path, line, column }, { detail }));
    return null;
  }
  const { document } = result;
  if (document.knownEntities.length > 0)
    add(
      finding(
        'xml-entity-known',
        'note',
        { path },
        { names: document.knownEntities.slice(0, MAX_NAMED).join(', ') },
      ),
    );
  if (document.declaredEntities.length > 0) {
    add(
      finding(
        'xml-entity-refused',
        'warning',
        { path, line: 1 },
        { names: document.declaredEntities.slice(0, MAX_NAMED).join(', ') },
      ),
    );
  } else if (document.hasDoctype) add(finding('doctype-ignored', 'note', { path, line: 1 }));
  return { document, place: lineFinder(text) };
}
