export { fromSi, toSi } from './convert';
export {
  prettyUnit,
  show,
  showFine,
  showParts,
  showPercent,
  SHOWN,
  showTwo,
  type ShownQuantity,
  type UnitSystem,
} from './display';
export { findUnit, quantityOfUnit, siUnit, UNITS, type QuantityKind, type Unit } from './kinds';
export { parseQuantity, type ParsedQuantity } from './parse';
