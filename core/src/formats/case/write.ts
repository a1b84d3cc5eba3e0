import type { Finding } from '../../model/finding.ts';
import type { Rubric } from '../../model/rubric.ts';

/** A fixed time, so that the same content gives the same bytes; CASE asks for one in every object. */
const CHANGED = '2000-01-01T00:00:00.000Z';
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/iu;

/**
 * A CASE 1.0 package with rubrics alone: identifiers and addresses are made where the source has none
 * (1EdTech CASE 1.0,
 * "CFRubric", "CFRubricCriterion", "CFRubricCriterionLevel"; from memory).
 */
export function writeCase(rubrics: readonly Rubric[]): { text: string; findings: Finding[] } {
  const document = uuid('document');
  const CFRubrics = rubrics.map((r) => {
    const identifier = uuid(r.id);
    const ranges: Record<string, number> = {};
    const CFRubricCriteria = r.criteria.map((c, at) => {
      const criterion = uuid(c.id, `${r.id} ${at}`);
      return {
        identifier: criterion,
        uri: `urn:uuid:${criterion}`,
        category: c.title,
        description: c.description,
        ...(c.outcome === null ? {} : { CFItemURI: c.outcome }),
        ...(c.weight === null ? {} : { weight: c.weight }),
        position: at + 1,
        rubricId: identifier,
        lastChangeDateTime: CHANGED,
        CFRubricCriterionLevels: c.levels.map((l, n) => {
          const level = uuid(l.id, `${r.id} ${at} ${n}`);
          if (l.points && l.points.low !== l.points.high) ranges[level] = l.points.low;
          return {
            identifier: level,
            uri: `urn:uuid:${level}`,
            description: l.description,
            quality: l.title,
            ...(l.points === null ? {} : { score: l.points.high }),
            feedback: l.feedback,
            position: n + 1,
            rubricCriterionId: criterion,
            lastChangeDateTime: CHANGED,
          };
        }),
      };
    });
    const scored = r.criteria.some((c) => c.levels.some((l) => l.points !== null));
    // What CASE has no field for stands in its extensions.
    const own = {
      ...(r.mode === (scored ? 'points' : 'unscored') ? {} : { mode: r.mode }),
      ...(Object.keys(ranges).length > 0 ? { lows: ranges } : {}),
      ...(r.freeComments === undefined ? {} : { freeComments: r.freeComments }),
    };
    return {
      identifier,
      uri: `urn:uuid:${identifier}`,
      title: r.title,
      description: r.description,
      lastChangeDateTime: CHANGED,
      ...Object.fromEntries(r.metadata.map((f) => [f.label, f.value])),
      CFRubricCriteria,
      ...(Object.keys(own).length > 0 ? { extensions: { alforja: own } } : {}),
    };
  });
  const CFDocument = {
    identifier: document,
    uri: `urn:uuid:${document}`,
    creator: 'Alforja',
    title: rubrics[0]?.title || 'Rubrics',
    lastChangeDateTime: CHANGED,
    CFPackageURI: { title: 'Rubrics', identifier: document, uri: `urn:uuid:${document}` },
  };
  const whole = { CFDocument, CFItems: [], CFAssociations: [], CFRubrics };
  return { text: `${JSON.stringify(whole, null, 2)}\n`, findings: [] };
}

/** The identifier itself where it is a UUID, else one that the same name always gives. */
function uuid(id: string, name = id): string {
  if (UUID.test(id)) return id.toLowerCase();
  let hex = '';
  for (let part = 0; part < 4; part++) hex += hash(`${part} ${name}`).toString(16).padStart(8, '0');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

/** FNV-1a, 32 bits (common practice); not for secrets. */
function hash(text: string): number {
  let h = 0x811c9dc5;
  for (let at = 0; at < text.length; at++) h = Math.imul(h ^ text.charCodeAt(at), 0x01000193) >>> 0;
  return h;
}
