import { characterEntities } from 'character-entities';

/** XML 1.0, section 4.6: known to every document. */
const XML_ENTITIES = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };

/** What named entities mean without a DTD: XML's own, and HTML's. */
export const KNOWN_ENTITIES: Readonly<Record<string, string>> = Object.assign(
  Object.create(null) as Record<string, string>,
  characterEntities,
  XML_ENTITIES,
);

/** Whether it is one of the five that need no declaration. */
export const isXmlEntity = (name: string): boolean => Object.hasOwn(XML_ENTITIES, name);
