import { describe, expect, it } from 'vitest';
import { DiagnoseOutput, NextTestOutput } from '@/contracts/calc/diagnose';
import { runCli } from '../../cli/run';

const run = async (name: string, input: unknown) => {
  const out: string[] = [];
  const err: string[] = [];
  const code = await runCli({
    args: ['calc', name],
    readInput: () => Promise.resolve(JSON.stringify(input)),
    write: (t) => out.push(t),
    complain: (t) => err.push(t),
    env: {},
    now: () => '2026-11-24T10:00:00.000Z',
  });
  return {
    code,
    json: JSON.parse((code === 0 ? out : err).join('')) as { problems?: { code: string; path: string }[] },
  };
};

const machine = { kind: 'hepaTank', hoseBore: { value: 32, unit: 'mm' }, hoseLength: 3 };
const flow = (place: string, value: number) => ({ test: { kind: 'flow', place }, value: { value, unit: 'L/s' } });

describe('calc diagnose and next-test', () => {
  it('good at the inlet, bad at the tool: the suspicion stays before the inlet, and the next test says what may come out', async () => {
    const d = DiagnoseOutput.parse(
      (await run('diagnose', { machine, evidence: [flow('toolEnd', 9), flow('inlet', 46)] })).json,
    );
    const before = d.stages
      .filter((s) => ['nozzle', 'hose'].includes(s.stage))
      .reduce((sum, s) => sum + s.probability, 0);
    expect(before).toBeGreaterThan(0.9);
    expect(d.advice).not.toBe('close');
    expect(d.next?.outcomes.length).toBeGreaterThan(0);
    expect(d.stages.find((s) => s.stage === 'hepa')?.probability).toBeLessThan(0.3);
    const next = NextTestOutput.parse(
      (await run('next-test', { machine, school: 'takeOut', evidence: [flow('toolEnd', 9)] })).json,
    );
    expect(next.next).toMatchObject({ test: 'takeOut', stage: 'bag' });
  });

  it.each<[string, object, string]>([
    [
      'a stage the machine lacks',
      { machine, evidence: [{ test: { kind: 'cleanSide', stage: 'gas' }, word: 'dirty' }] },
      'stage.unknown evidence.0.test.stage',
    ],
    ['a look without a word', { machine, evidence: [{ test: { kind: 'listen' } }] }, 'detail.word evidence.0.word'],
    [
      'a reading without a figure',
      { machine, evidence: [{ test: { kind: 'flow', place: 'inlet' } }] },
      'readings.none evidence.0.value',
    ],
    ['asbestos', { machine, lastCollected: 'asbestos board' }, 'dust.refused lastCollected'],
    [
      'a negative flow',
      { machine, evidence: [{ test: { kind: 'flow', place: 'inlet' }, value: -1 }] },
      'path.range evidence.0',
    ],
  ])('%s is refused by name', async (_what, input, code) => {
    const { code: exit, json } = await run('diagnose', input);
    expect(exit).toBe(1);
    expect(json.problems?.map((p) => `${p.code} ${p.path}`)).toEqual([code]);
  });
});
