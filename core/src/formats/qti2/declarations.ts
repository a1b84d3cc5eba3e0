// <responseDeclaration identifier="RESPONSE" cardinality="single" baseType="identifier"><correctResponse><value>A</value>…
import { BASE_TYPES, type AreaMapping, type BaseType, type Cardinality, type LookupTable, type Mapping, type OutcomeDeclaration, type ResponseDeclaration, type Scalar, type Shape } from '../../model/scoring.ts'; // prettier-ignore
import { attrOf, booleanAttr, numberAttr } from '../../xml/attrs.ts';
import { child, elements, textOf, type XmlElement } from '../../xml/tree.ts';
import { parseScalar } from './values.ts';

export function baseTypeOf(element: XmlElement): BaseType | null {
  const given = attrOf(element, 'baseType');
  return (BASE_TYPES as readonly string[]).includes(given) ? (given as BaseType) : null;
}

function cardinalityOf(element: XmlElement): Cardinality {
  const given = attrOf(element, 'cardinality');
  return given === 'multiple' || given === 'ordered' || given === 'record' ? given : 'single';
}

function valuesIn(holder: XmlElement | null, baseType: BaseType | null): Scalar[] {
  if (!holder) return [];
  return elements(holder, 'value').flatMap((value) => {
    const parsed = parseScalar(textOf(value), baseType ?? baseTypeOf(value));
    return parsed === null ? [] : [parsed];
  });
}

export function readResponseDeclaration(element: XmlElement): ResponseDeclaration {
  const baseType = baseTypeOf(element);
  const mapping = child(element, 'mapping');
  const areaMapping = child(element, 'areaMapping');
  return {
    id: attrOf(element, 'identifier'),
    cardinality: cardinalityOf(element),
    baseType,
    correct: valuesIn(child(element, 'correctResponse'), baseType),
    mapping: mapping ? readMapping(mapping, baseType) : null,
    areaMapping: areaMapping ? readAreaMapping(areaMapping) : null,
  };
}

const bounds = (element: XmlElement) => ({
  lowerBound: numberAttr(element, 'lowerBound'),
  upperBound: numberAttr(element, 'upperBound'),
  defaultValue: numberAttr(element, 'defaultValue') ?? 0,
});

/** caseSensitive defaults to true, as in the 2.x binding (from memory). */
function readMapping(element: XmlElement, baseType: BaseType | null): Mapping {
  return {
    ...bounds(element),
    entries: elements(element, 'mapEntry').flatMap((entry) => {
      const key = parseScalar(entry.attrs['mapKey'] ?? '', baseType);
      const value = numberAttr(entry, 'mappedValue') ?? 0;
      return key === null ? [] : [{ key, value, caseSensitive: booleanAttr(entry, 'caseSensitive', true) }];
    }),
  };
}

function readAreaMapping(element: XmlElement): AreaMapping {
  return {
    ...bounds(element),
    entries: elements(element, 'areaMapEntry').map((entry) => ({
      shape: (attrOf(entry, 'shape') || 'default') as Shape,
      coords: attrOf(entry, 'coords'),
      value: numberAttr(entry, 'mappedValue') ?? 0,
    })),
  };
}

export function readOutcomeDeclaration(element: XmlElement): OutcomeDeclaration {
  const baseType = baseTypeOf(element);
  return {
    id: attrOf(element, 'identifier'),
    cardinality: cardinalityOf(element),
    baseType,
    defaultValue: valuesIn(child(element, 'defaultValue'), baseType),
    normalMaximum: numberAttr(element, 'normalMaximum'),
    normalMinimum: numberAttr(element, 'normalMinimum'),
    externalScored: attrOf(element, 'externalScored') !== '' && attrOf(element, 'externalScored') !== 'none',
    lookup: readLookup(element, baseType),
  };
}

function readLookup(element: XmlElement, baseType: BaseType | null): LookupTable | null {
  const match = child(element, 'matchTable');
  const table = match ?? child(element, 'interpolationTable');
  if (!table) return null;
  const otherwise = table.attrs['defaultValue'];
  return {
    kind: match ? 'match' : 'interpolation',
    entries: elements(table, match ? 'matchTableEntry' : 'interpolationTableEntry').map((entry) => ({
      source: numberAttr(entry, 'sourceValue') ?? 0,
      target: parseScalar(entry.attrs['targetValue'] ?? '', baseType) ?? 0,
      includeBoundary: booleanAttr(entry, 'includeBoundary', true),
    })),
    defaultValue: otherwise === undefined ? null : parseScalar(otherwise, baseType),
  };
}
