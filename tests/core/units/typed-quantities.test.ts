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
    ['0.2 bar', 'pressure', 0.2, 'bar'],
    ['230 mb', 'pressure', 230, 'mbar'],
    ['6.8 inHg', 'pressure', 6.8, 'inHg'],
    ['170 mmHg', 'pressure', 170, 'mmHg'],
    ['170 torr', 'pressure', 170, 'Torr'],
    ['0.2 atm', 'pressure', 0.2, 'atm'],
    ['230 cmH2O', 'pressure', 230, 'cmH2O'],
    ['92"', 'pressure', 92, 'inH2O'],
    ['92 in', 'pressure', 92, 'inH2O'],
    ['92 inches WC', 'pressure', 92, 'inH2O'],
    ['60 mm2', 'area', 60, 'mm2'],
    ['6 cm²', 'area', 6, 'cm2'],
    ['2 sq in', 'area', 2, 'in2'],
    ['2 in²', 'area', 2, 'in2'],
    ['3 square feet', 'area', 3, 'ft2'],
    ['1 1/2"', 'length', 1.5, 'in'],
    ['1-1/2 in', 'length', 1.5, 'in'],
    ['7/8 in', 'length', 0.875, 'in'],
    ['6\'6"', 'length', 78, 'in'],
    ['6 ft 6 1/2 in', 'length', 78.5, 'in'],
    ['12 um', 'length', 12, 'um'],
    ['Ø 38 mm', 'length', 38, 'mm'],
    ['⌀38mm', 'length', 38, 'mm'],
    ['dia. 4 in', 'length', 4, 'in'],
    ['2.1 m3/min', 'flow', 2.1, 'm3/min'],
    ['29 litres/s', 'flow', 29, 'L/s'],
    ['61 acfm', 'flow', 61, 'cfm'],
    ['60 ft/s', 'velocity', 60, 'ft/s'],
    ['72 km/h', 'velocity', 72, 'km/h'],
    ['2 h', 'duration', 2, 'h'],
    ['2.5 hours', 'duration', 2.5, 'h'],
    ['1:30', 'duration', 90, 's'],
    ['1:30:00', 'duration', 5400, 's'],
    ['900 counts/L', 'countConcentration', 900, '1/L'],
    ['900 #/ft3', 'countConcentration', 900, '1/ft3'],
    ['12 /cm3', 'countConcentration', 12, '1/cm3'],
    ['230 VAC', 'voltage', 230, 'V'],
    ['20 degrees Celsius', 'temperature', 20, 'degC'],
    ['68 degrees F', 'temperature', 68, 'degF'],
    ['1 lb 4 oz', 'mass', 20, 'oz'],
    ["23'000 Pa", 'pressure', 23_000, 'Pa'],
    ["1'200 mm", 'length', 1200, 'mm'],
  ] as const)('reads "%s"', (text, kind, number, unit) => {
    expect(parsed(text, kind)).toMatchObject({ number, unit });
    expect(parsed(text, kind).valueSi).toBeCloseTo(toSi(kind, number, unit), 9);
  });

  // 1 bar = 100 kPa exactly; conventional mercury and water columns, atmosphere and torr: NIST SP 811 (2008), B.8, as printed.
  it.each([
    ['1 bar', 1e5],
    ['1 inHg', 3.386389e3],
    ['1 mmHg', 1.333224e2],
    ['1 torr', 1.333224e2],
    ['1 atm', 1.01325e5],
    ['1 cmH2O', 9.80665e1],
  ] as const)('%s is %d Pa', (text, pascals) => {
    expect(parsed(text, 'pressure').valueSi / pascals).toBeCloseTo(1, 6);
  });

  it('a clock in a field of hours is hours and minutes; a fraction is as fine as its marks', () => {
    expect(parsed('1:30', 'duration', 'h')).toMatchObject({ valueSi: 5400, resolutionSi: 60 });
    expect(parsed('1:30:00', 'duration', 'h')).toMatchObject({ valueSi: 5400, resolutionSi: 1 });
    expect(parsed('1 1/2"', 'length').resolutionSi).toBeCloseTo(0.0127, 9);
    expect(parsed('7/16 in', 'length').resolutionSi).toBeCloseTo(0.0254 / 16, 9);
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
    ['61 scfm', 'flow', 'quantity.unknown-unit'],
    ['92"', 'flow', 'quantity.wrong-unit'],
    ["6'6", 'length', 'quantity.unknown-unit'],
    ['6\'13"', 'length', 'quantity.unknown-unit'],
    ["23'000 in", 'length', 'quantity.unknown-unit'],
    ['5/4 in', 'length', 'quantity.unknown-unit'],
    ['1/3 in', 'length', 'quantity.unknown-unit'],
    ['1:75', 'duration', 'quantity.unknown-unit'],
    ['1:30', 'length', 'quantity.unknown-unit'],
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
