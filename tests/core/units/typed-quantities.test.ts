import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseQuantity, type QuantityKind, toSi, UNITS, type Unit } from '@/core/units';

const parsed = (text: string, kind: QuantityKind, unit: string | null = null) => {
  const result = parseQuantity(text, kind, unit);
  if (!result.ok) throw new Error(`${text}: ${result.failures[0]?.code}`);
  return result.value;
};

const code = (text: string, kind: QuantityKind, unit: string | null = null) => {
  const result = parseQuantity(text, kind, unit);
  return result.ok ? 'accepted' : result.failures[0]?.code;
};

describe('what a technician types', () => {
  it.each([
    ['61 cfm', 'flow', 61, 'cfm'],
    ['29 L/s', 'flow', 29, 'L/s'],
    ['29,5 l/s', 'flow', 29.5, 'L/s'],
    ['104 m³/h', 'flow', 104, 'm3/h'],
    ['92 inH2O', 'pressure', 92, 'inH2O'],
    ['92 in. H₂O', 'pressure', 92, 'inH2O'],
    ['92 in w.g.', 'pressure', 92, 'inH2O'],
    ['\u221292 inH2O', 'pressure', -92, 'inH2O'],
    ['230 mbar', 'pressure', 230, 'mbar'],
    ['230hPa', 'pressure', 230, 'mbar'],
    ['1.234,5 Pa', 'pressure', 1234.5, 'Pa'],
    ['1,234.5 Pa', 'pressure', 1234.5, 'Pa'],
    ['1 234 Pa', 'pressure', 1234, 'Pa'],
    ['1,234,567 Pa', 'pressure', 1234567, 'Pa'],
    ['0,125 m', 'length', 0.125, 'm'],
    ['2.2e4 Pa', 'pressure', 22000, 'Pa'],
    ['3523 ft/min', 'velocity', 3523, 'fpm'],
    ['2"', 'length', 2, 'in'],
    ['5 1/L', 'countConcentration', 5, '1/L'],
    ['.5 kPa', 'pressure', 0.5, 'kPa'],
  ] as const)('reads "%s"', (text, kind, number, unit) => {
    expect(parsed(text, kind)).toMatchObject({ number, unit });
    expect(parsed(text, kind).valueSi).toBeCloseTo(toSi(kind, number, unit), 9);
  });

  it('takes the unit typed last for a bare number', () => {
    expect(parsed('61', 'flow', 'cfm').valueSi).toBeCloseTo(61 * 4.719474432e-4, 12);
  });

  it('knows what the display could resolve', () => {
    expect(parsed('29.5 L/s', 'flow').resolutionSi).toBeCloseTo(1e-4, 12);
    expect(parsed('92 inH2O', 'pressure').resolutionSi).toBeCloseTo(249.08891, 6);
  });

  it.each([
    ['', 'flow', 'quantity.empty'],
    ['   ', 'flow', 'quantity.empty'],
    ['strong', 'flow', 'quantity.not-a-number'],
    ['NaN', 'flow', 'quantity.not-a-number'],
    ['Infinity L/s', 'flow', 'quantity.not-a-number'],
    ['1e400 L/s', 'flow', 'quantity.not-a-number'],
    ['1.2.3.4,5 L/s', 'flow', 'quantity.not-a-number'],
    ['1,234 Pa', 'pressure', 'quantity.ambiguous-comma'],
    ['61', 'flow', 'quantity.unit-missing'],
    ['61 parsecs', 'flow', 'quantity.unknown-unit'],
    ['61 fpm', 'flow', 'quantity.wrong-unit'],
    ['40 pounds', 'pressure', 'quantity.pounds'],
    ['40 lbs', 'pressure', 'quantity.pounds'],
    ['9'.repeat(41), 'flow', 'quantity.too-long'],
  ] as const)('refuses "%s" for %s as %s', (text, kind, wanted) => {
    expect(code(text, kind)).toBe(wanted);
  });

  it('reads back what it would print, for every unit', () => {
    const units = (Object.keys(UNITS) as QuantityKind[]).flatMap((kind) =>
      (UNITS[kind] as readonly Unit[]).map((u) => ({ kind, symbol: u.symbol })),
    );
    fc.assert(
      fc.property(
        fc.constantFrom(...units),
        fc.integer({ min: -99_999, max: 99_999 }),
        fc.integer({ min: 0, max: 4 }),
        (u, mantissa, decimals) => {
          const text = (mantissa / 10 ** decimals).toFixed(decimals);
          expect(parsed(`${text} ${u.symbol}`, u.kind)).toMatchObject({ number: Number(text) + 0, unit: u.symbol });
        },
      ),
    );
  });

  it('never throws, whatever is typed', () => {
    fc.assert(fc.property(fc.string({ maxLength: 60 }), (text) => void parseQuantity(text, 'pressure', 'Pa')));
  });
});
