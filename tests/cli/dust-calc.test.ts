import { describe, expect, it } from 'vitest';
import { CheckFindOutput, DustOutput, IntegrityOutput } from '@/contracts/calc/dust';
import { MACHINE_KINDS } from '@/core/machine/kinds';
import { runCli } from '../../cli/run';

const run = async (name: string, input: unknown) => {
  const [out, err]: [string[], string[]] = [[], []];
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
const dust = async (text: string, over: object = {}) => DustOutput.parse((await run('dust', { text, ...over })).json);

describe('calc dust', () => {
  it('says what is refused, by whom it is done, and hands out no equipment for it', async () => {
    const d = await dust('chrysotile rope');
    expect(d).toMatchObject({ level: 'contained', refused: { instead: 'licensedContractor' }, equipment: [] });
    expect(d.matches[0]).toMatchObject({ family: 'asbestos', chance: 1, toConfirm: false });
    expect(d.sentences.join(' ')).toMatch(/[Cc]ontractor/);
  });

  it('shows both rule sets where they disagree, by the one asked for (EU/UK practice M, 29 CFR 1926.1153 HEPA; from memory of the sources)', async () => {
    expect(await dust('concrete')).toMatchObject({
      level: 'contained',
      neededClass: 'M',
      bothRuleSets: { eu_uk: 'M', us: 'HEPA' },
    });
    expect((await dust('concrete', { ruleSet: 'us' })).neededClass).toBe('HEPA');
  });

  it('a likeness and the open questions, then what answers make of it', async () => {
    const d = await dust('crysotile');
    expect(d.matches[0]).toMatchObject({ key: 'asbestos', toConfirm: true });
    expect(d.matches[0]?.chance).toBeLessThan(1);
    expect((await dust('crysotile', { confirmed: ['asbestos'] })).refused).not.toBeNull();
    const unknown = await dust('gubbins');
    expect([unknown.level, unknown.questions.length]).toEqual(['contained', 9]);
    expect(
      (await dust('gubbins', { answers: Object.fromEntries(unknown.questions.map((q) => [q.key, 'no'])) })).level,
    ).toBe('contained');
  });

  it.each<[string, object, string]>([
    ['nothing typed', { text: '  ' }, 'text.missing text'],
    ['a dust that is not in the register', { text: 'sand', confirmed: ['unobtainium'] }, 'dust.unknown confirmed'],
  ])('%s is refused in a sentence', async (_, input, expected) => {
    const { code, json } = await run('dust', input);
    expect([code === 0, `${json.problems?.[0]?.code} ${json.problems?.[0]?.path}`]).toEqual([false, expected]);
  });
});

describe('calc integrity', () => {
  const side = (count: number, seconds = '60') => ({
    count,
    time: { value: Number(seconds), unit: 's' },
    flow: { value: 2.83, unit: 'L/min' },
  });
  const judged = async (through: number, challenge: number, machineClass = 'H', over: object = {}) =>
    IntegrityOutput.parse(
      (await run('integrity', { through: side(through), challenge: side(challenge), machineClass, ...over })).json,
    );

  it('600 of 900 fails, a long clean count screens and proves no class, a short one cannot tell, each with the best it could show', async () => {
    expect(await judged(600, 900)).toMatchObject({ outcome: 'fails', classLimit: 0.00005 });
    const clean = await judged(0, 2547);
    expect([clean.outcome, clean.provesLimit, clean.ratio]).toEqual(['screened', false, 0]);
    expect(clean.bestSuchACountCouldShow).toBeCloseTo(0.00118, 5);
    expect((await judged(0, 300)).outcome).toBe('notShown');
    expect((await judged(0, 900)).sentence).toMatch(/0\.33 %/);
    expect((await judged(0, 0)).high).toBeNull();
  });

  it('refuses half particles and no time', async () => {
    for (const [through, path] of [
      [{ ...side(1), count: 0.5 }, 'particles.whole through.count'],
      [side(1, '0'), 'particles.counting through'],
    ] as const) {
      const { json } = await run('integrity', { through, challenge: side(900), machineClass: 'H' });
      expect(`${json.problems?.[0]?.code} ${json.problems?.[0]?.path}`).toBe(path);
    }
  });
});

describe('calc check-find', () => {
  it('proves every kind at every level, offers taking out with plain dust only, and names a stage it lacks', async () => {
    for (const kind of Object.keys(MACHINE_KINDS)) {
      for (const level of ['plain', 'controlled', 'contained']) {
        const out = CheckFindOutput.parse((await run('check-find', { machine: { kind }, level })).json);
        expect([kind, level, out.proven, out.violations]).toEqual([kind, level, true, []]);
        if (level !== 'plain') expect(out.takeOutOffered).toBe(false);
      }
    }
    const out = CheckFindOutput.parse(
      (
        await run('check-find', {
          machine: { kind: 'hExtractor', machineClass: 'H', missing: ['mainFilter'] },
          level: 'contained',
        })
      ).json,
    );
    expect(out.proven).toBe(true);
    expect(
      (await run('check-find', { machine: { kind: 'hExtractor', missing: ['gas'] }, level: 'plain' })).json
        .problems?.[0]?.code,
    ).toBe('stage.unknown');
    expect((await run('check-find', { machine: { kind: 'timeMachine' }, level: 'plain' })).code).not.toBe(0);
  });
});
