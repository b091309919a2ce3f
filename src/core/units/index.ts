export { fromSi, toSi } from './convert';
export { fixed, significant, toDecimals, toDigits } from './decimals';
export {
  prettyUnit,
  show,
  showFine,
  showParts,
  showPercent,
  SHOWN,
  showTwo,
  type ShownQuantity,
  UNIT_SYSTEMS,
  type UnitSystem,
} from './display';
export { findUnit, quantityOfUnit, QUANTITY_KINDS, siUnit, UNITS, type QuantityKind, type Unit } from './kinds';
export { parseQuantity, type ParsedQuantity } from './parse';
