import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fromSi, type QuantityKind, toSi, UNITS, type Unit } from '@/core/units';

/** Source: NIST SP 811 (2008), Appendix B.8 and B.9, factors as printed, seven digits or exact. */
const SP811: readonly (readonly [QuantityKind, string, number])[] = [
  ['pressure', 'inH2O', 2.490889e2],
  ['pressure', 'mmH2O', 9.80665],
  ['pressure', 'mbar', 1e2],
  ['pressure', 'psi', 6.894757e3],
  ['flow', 'cfm', 4.719474e-4],
  ['velocity', 'fpm', 5.08e-3],
  ['length', 'in', 2.54e-2],
  ['length', 'ft', 3.048e-1],
  ['area', 'ft2', 9.290304e-2],
  ['mass', 'oz', 2.834952e-2],
  ['mass', 'lb', 4.535924e-1],
  ['power', 'hp', 7.456999e2],
  ['volume', 'gal', 3.785412e-3],
  ['volume', 'ft3', 2.831685e-2],
  ['density', 'lb/ft3', 1.601846e1],
];

const everyUnit = (Object.keys(UNITS) as QuantityKind[]).flatMap((kind) =>
  (UNITS[kind] as readonly Unit[]).map((unit) => ({ kind, symbol: unit.symbol })),
);

describe('conversion to SI', () => {
  it.each(SP811)('one %s in %s is as NIST SP 811 prints it', (kind, symbol, factor) => {
    expect(toSi(kind, 1, symbol) / factor).toBeCloseTo(1, 6);
  });

  it('temperatures have their offset, differences do not (NIST SP 811 B.8)', () => {
    expect(toSi('temperature', 32, 'degF')).toBeCloseTo(273.15, 9);
    expect(toSi('temperature', 212, 'degF')).toBeCloseTo(373.15, 9);
    expect(toSi('temperature', 20, 'degC')).toBeCloseTo(293.15, 9);
    expect(toSi('temperatureDifference', 9, 'degF')).toBeCloseTo(5, 12);
  });

  it('converts there and back for every unit', () => {
    expect(everyUnit.length).toBeGreaterThan(35);
    fc.assert(
      fc.property(
        fc.constantFrom(...everyUnit),
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        ({ kind, symbol }, value) => {
          expect(Math.abs(fromSi(kind, toSi(kind, value, symbol), symbol) - value)).toBeLessThanOrEqual(
            1e-9 * (1 + Math.abs(value)) + 1e-9,
          );
        },
      ),
    );
  });

  it('throws for a unit the quantity lacks', () => {
    expect(() => toSi('flow', 1, 'inH2O')).toThrow(RangeError);
  });
});
