// <responseDeclaration identifier="RESPONSE" cardinality="single"
// baseType="identifier"><correctResponse><value>A</value>…
import {
  BASE_TYPES,
  type AreaMapping,
  type BaseType,
  type Cardinality,
  type LookupTable,
  type Mapping,
  type OutcomeDeclaration,
  type ResponseDeclaration,
  type Scalar,
  type TemplateDeclaration,
} from '../../model/scoring.ts';
import { attrOf, booleanAttr, numberAttr } from '../../xml/attrs.ts';
import { child, elements, textOf, type XmlElement } from '../../xml/tree.ts';
import { shapeOf } from './pictures.ts';
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

/**
 * `caseByDefault`: whether map entries tell capitals apart where they do not say (true in QTI 2, false in QTI
 * 3; from memory).
 */
export function readResponseDeclaration(element: XmlElement, caseByDefault = true): ResponseDeclaration {
  const baseType = baseTypeOf(element);
  const mapping = child(element, 'mapping');
  const areaMapping = child(element, 'areaMapping');
  const defaultValue = valuesIn(child(element, 'defaultValue'), baseType);
  return {
    id: attrOf(element, 'identifier'),
    cardinality: cardinalityOf(element),
    baseType,
    correct: valuesIn(child(element, 'correctResponse'), baseType),
    mapping: mapping ? readMapping(mapping, baseType, caseByDefault) : null,
    areaMapping: areaMapping ? readAreaMapping(areaMapping) : null,
    ...(defaultValue.length > 0 ? { defaultValue } : {}),
  };
}

const bounds = (element: XmlElement) => ({
  lowerBound: numberAttr(element, 'lowerBound'),
  upperBound: numberAttr(element, 'upperBound'),
  defaultValue: numberAttr(element, 'defaultValue') ?? 0,
});

function readMapping(element: XmlElement, baseType: BaseType | null, caseByDefault: boolean): Mapping {
  return {
    ...bounds(element),
    entries: elements(element, 'mapEntry').flatMap((entry) => {
      const key = parseScalar(entry.attrs['mapKey'] ?? '', baseType);
      const value = numberAttr(entry, 'mappedValue') ?? 0;
      return key === null
        ? []
        : [{ key, value, caseSensitive: booleanAttr(entry, 'caseSensitive', caseByDefault) }];
    }),
  };
}

function readAreaMapping(element: XmlElement): AreaMapping {
  return {
    ...bounds(element),
    entries: elements(element, 'areaMapEntry').map((entry) => ({
      shape: shapeOf(entry),
      coords: attrOf(entry, 'coords'),
      value: numberAttr(entry, 'mappedValue') ?? 0,
    })),
  };
}

const OUTCOME_ATTRIBUTES = ['view', 'interpretation', 'longInterpretation'];

export function readOutcomeDeclaration(element: XmlElement): OutcomeDeclaration {
  const baseType = baseTypeOf(element);
  const masteryValue = numberAttr(element, 'masteryValue');
  const attrs = Object.fromEntries(
    OUTCOME_ATTRIBUTES.flatMap((key) => (attrOf(element, key) ? [[key, attrOf(element, key)]] : [])),
  );
  return {
    id: attrOf(element, 'identifier'),
    cardinality: cardinalityOf(element),
    baseType,
    defaultValue: valuesIn(child(element, 'defaultValue'), baseType),
    normalMaximum: numberAttr(element, 'normalMaximum'),
    normalMinimum: numberAttr(element, 'normalMinimum'),
    externalScored: attrOf(element, 'externalScored') !== '' && attrOf(element, 'externalScored') !== 'none',
    lookup: readLookup(element, baseType),
    ...(masteryValue !== null ? { masteryValue } : {}),
    ...(Object.keys(attrs).length > 0 ? { attrs } : {}),
  };
}

export function readTemplateDeclaration(element: XmlElement): TemplateDeclaration {
  const baseType = baseTypeOf(element);
  const { identifier: _id, cardinality: _c, baseType: _b, ...attrs } = element.attrs;
  return {
    id: attrOf(element, 'identifier'),
    cardinality: cardinalityOf(element),
    baseType,
    defaultValue: valuesIn(child(element, 'defaultValue'), baseType),
    attrs,
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
