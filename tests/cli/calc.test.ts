import { describe, expect, it } from 'vitest';
import { AirflowTestOutput } from '@/contracts/calc/airflow-test';
import { runCli } from '../../cli/run';

const run = async (args: readonly string[], input: unknown = {}) => {
  const out: string[] = [];
  const err: string[] = [];
  const code = await runCli({
    args,
    readInput: () => Promise.resolve(typeof input === 'string' ? input : JSON.stringify(input)),
    write: (text) => out.push(text),
    complain: (text) => err.push(text),
    env: {},
    now: () => '2026-11-24T10:00:00.000Z',
  });
  return { code, out: out.join('\n'), err: err.join('\n') };
};

const test = async (input: object) => {
  const { code, out, err } = await run(['calc', 'airflow-test'], input);
  if (code !== 0) throw new Error(err);
  return AirflowTestOutput.parse(JSON.parse(out));
};

const cfm = (value: number) => ({ value, unit: 'cfm' });

describe('calc', () => {
  it('lists its calculations and prints their schema', async () => {
    expect((await run(['calc', '--list'])).out).toContain('airflow-test');
    const schema = JSON.parse((await run(['calc', 'airflow-test', '--schema'])).out) as { properties: object };
    expect(Object.keys(schema.properties)).toContain('readings');
  });

  it('takes quantities with units and answers with units', async () => {
    const result = await test({
      method: 'flowMeter',
      place: 'hoseEnd',
      readings: [cfm(21.3), cfm(21.1), { value: 9.95, unit: 'L/s' }],
      hoseBore: { value: 27, unit: 'mm' },
      machineKind: 'mExtractor',
      baseline: { readings: [cfm(30.5), cfm(30.4), cfm(30.6)] },
    });
    expect(result.mean).toEqual({ value: expect.closeTo((21.3 + 21.1 + 0.00995 / 4.719474432e-4) * (4.719474432e-4 / 3), 9), unit: 'm3/s' });
    expect(result.verdicts.map((v) => v.outcome)).toEqual(['act', 'fail']);
    expect(result.lossFraction).toBeCloseTo(1 - result.mean.value / (30.5 * 4.719474432e-4), 12);
  });

  it('a suction of 92 inH2O is 22.9 kPa', async () => {
    const reading = { value: 92, unit: 'inH2O' };
    const result = await test({ method: 'sealedSuction', place: 'inlet', readings: [reading, reading, reading] });
    expect(result.mean.value).toBeCloseTo(92 * 249.08891, 6);
    expect(result.standardFlow).toBeNull();
  });

  it.each([
    ['nonsense', '{', 'request.malformed'],
    ['a wrong unit', { method: 'flowMeter', place: 'inlet', readings: [{ value: 1, unit: 'kPa' }] }, 'quantity.wrong-unit'],
    ['an impossible suction', { method: 'sealedSuction', place: 'inlet', readings: [{ value: 40, unit: 'psi' }] }, 'suction.impossible'],
    ['no reading', { method: 'flowMeter', place: 'inlet', readings: [] }, 'field.invalid'],
    ['no bore', { method: 'anemometer', place: 'inlet', readings: [10] }, 'bore.missing'],
  ])('refuses %s with a problem and exit code 1', async (_what, input, code) => {
    const result = await run(['calc', 'airflow-test'], input);
    expect(result.code).toBe(1);
    expect(result.err).toContain(code);
    expect(result.out).toBe('');
  });

  it('says what it does not know', async () => {
    expect((await run(['calc', 'constructor'])).err).toContain('calc.unknown');
    expect((await run(['dance'])).code).toBe(2);
  });
});
