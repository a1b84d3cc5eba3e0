import type { Finding } from '../model/finding.ts';
import type { Holding } from '../model/holding.ts';
import type { XmlElement } from '../xml/tree.ts';
import type { Draft, DocumentContext } from './draft.ts';

/** What an XML document is, by its root element and namespace, never by its name. */
export interface Detected {
  /** The format's own word for what the document holds: `item`, `test` … */
  readonly kind: string;
  /** "1.2", "2.0" … where the root tells. */
  readonly version: string | null;
}

/** What the package says of a document beside its content. */
export interface ResourceFacts {
  readonly id: string;
  readonly category: string | null;
}

/** Documents of one standard: how they are known, and how they are read. */
export interface DocumentFormat {
  /** Names of root elements, and the kind of document each is. */
  readonly roots: Readonly<Record<string, string>>;
  readonly version: (root: string, attributes: string) => string | null;
  /** Whether its documents say which format the package is of. */
  readonly namesPackage: boolean;
  readonly read: (detected: Detected, context: DocumentContext, resource: ResourceFacts) => Draft;
  /**
   * What a document really is, where the package declares another type.
   * @param declared the type in lower case; empty where none is
   * @returns null where they agree
   */
  readonly contradiction: (declared: string, detected: Detected, root: XmlElement) => string | null;
}

/** Packages of one standard: what they can say, and how they are written. */
export interface PackageFormat<T extends string = string> {
  readonly targets: readonly T[];
  /** What a target cannot say of a holding, without writing anything. */
  readonly forecast: (holding: Holding, target: T) => readonly Finding[];
  /** One package, or a series where one cannot hold everything: entries by path. */
  readonly write: (
    holding: Holding,
    target: T,
    readFile: (path: string) => Uint8Array | null,
  ) => {
    readonly packages: readonly ReadonlyMap<string, Uint8Array>[];
    readonly findings: readonly Finding[];
  };
}
