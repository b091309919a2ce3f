import { describe, expect, it } from 'vitest';
import { type QuantityKind, show, showFine, SHOWN, showPercent, toSi, UNITS } from '@/core/units';

describe('figures for people', () => {
  it.each([
    ['flow', 0.0288, 'metric', '28.8 L/s'],
    ['flow', toSi('flow', 61, 'cfm'), 'us', '61.0 cfm'],
    ['pressure', toSi('pressure', 92, 'inH2O'), 'us', '92.0 inH₂O'],
    ['velocity', 20, 'us', '3937 fpm'],
    ['temperature', 293.15, 'us', '68 °F'],
    ['temperatureDifference', 5, 'us', '9.0 °F'],
    ['relativeHumidity', 0.5, 'metric', '50 %'],
  ] as const)('%s %d in %s is %s', (kind, si, system, text) => {
    expect(show(kind, si, system)).toBe(text);
  });

  it('never shows a minus zero, keeps four digits in a working, and shares of under ten per cent their decimal', () => {
    expect(show('flow', -1e-9, 'metric')).toBe('0.0 L/s');
    expect(showFine('area', 5.7256e-4, 'metric')).toBe('0.0005726 m²');
    expect([showPercent(0.312), showPercent(-0.0123)]).toEqual(['31 %', '1.2 %']);
  });

  it('shows every quantity in a unit of its own, in both systems', () => {
    for (const system of ['metric', 'us'] as const) {
      for (const kind of Object.keys(UNITS) as QuantityKind[]) {
        expect(
          UNITS[kind].some((u) => u.symbol === SHOWN[system][kind].unit),
          `${kind} in ${system}`,
        ).toBe(true);
      }
    }
  });
});
