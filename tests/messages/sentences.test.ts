import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import type { FailureCode } from '@/core/failure/failure';
import { failure } from '@/core/failure/failure';
import type { BaselineVerdict } from '@/core/measure/judge-baseline';
import type { ClassVerdict } from '@/core/measure/judge-class';
import { judgeParticles } from '@/core/measure/particle-count';
import { judgeRoomCount, judgeScreening } from '@/core/measure/penetration-ratio';
import type { TestFinding } from '@/core/status/test-findings';
import type { Need } from '@/core/status/machine-status';
import { problemOf } from '@/messages/failures';
import { sayScreening } from '@/messages/job';
import { dueIn, sayNeed, sayGap } from '@/messages/needs';
import { sayFinding } from '@/messages/findings';
import { sayMass, sayOther, sayWord } from '@/messages/outcomes';
import { pressingFirst, sayBaseline, sayComparison, sayHose } from '@/messages/verdicts';
import { howFar } from '@/messages/format';

const CODES = [...readFileSync('src/core/failure/failure.ts', 'utf8').matchAll(/^ {2}\| '([^']+)'/gm)].map(
  (m) => m[1] as FailureCode,
);

/** Statements heard in the trade that must never be repeated as true (common practice, no published source). */
const FALSE_CLAIMS = [
  /0\.03 micron/i,
  /one step below HEPA/i,
  /pounds of suction/i,
  /kit makes it compliant/i,
  /so it filters/i,
];

const clean = (text: string) => {
  expect(text.length).toBeGreaterThan(2);
  expect(text).not.toMatch(/undefined|NaN|null|\[object|Infinity/);
  for (const claim of FALSE_CLAIMS) expect(text).not.toMatch(claim);
};

describe('every failure has a sentence', () => {
  it('reads the codes at all', () => expect(CODES.length).toBeGreaterThan(40));
  it.each(CODES)('%s', (code) => {
    const facts = {
      kind: 'flow',
      wanted: 'flow',
      is: 'velocity',
      typed: 'x',
      unit: 'fpm',
      number: 3,
      length: 50,
      most: 40,
      value: 2,
      low: 0.005,
      high: 1,
      barometricPa: 101_325,
      pressurePa: 101_325,
      altitudeM: 1200,
      count: 90,
      factor: 2,
      reads: 'flow',
      day: '2027-01-01',
      inServiceOn: '2024-01-01',
      tag: 'CR-99',
      stage: 'fan',
      fits: 'bag',
      what: 'asbestos',
      freeM3s: 0.05,
      flowM3s: 0.04,
      lowM3s: 0.01,
      haveM: 0.004,
      needM: 0.012,
      sheetM: 0.008,
      highM3s: 0.03,
      efficiency: 1.2,
      bypass: 3,
      name: 'x',
      best: 0.001,
      figure: 0.005,
      sizeUm: 0.03,
      faceMs: 0,
      level: 'contained',
      words: 'asbesots',
      names: 'asbestos',
      because: 'dust',
      word: 'lead',
      instead: 'licensedContractor',
      celsius: 3,
      relativeHumidity: 2,
    };
    const problem = problemOf(failure(code, 'field', facts));
    [problem.title, problem.sentence, problem.hint].forEach(clean);
    expect(problem.sentence).toMatch(/[.]$/);
  });

  it('explains pounds and an impossible suction', () => {
    expect(problemOf(failure('quantity.pounds', '', { number: 40 })).sentence).toContain('inches of water');
    expect(
      problemOf(failure('suction.impossible', '', { number: 40, unit: 'psi', barometricPa: 84_556 })).sentence,
    ).toContain('84.6 kPa');
  });
});

describe('verdicts are sentences in either unit', () => {
  const interval = { lossFraction: 0.312, expanded: 0.01, straddles: 0.15, warnsAt: 0.15 };
  const baselines: readonly BaselineVerdict[] = [
    { outcome: 'noBaseline' },
    { outcome: 'notUsable' },
    { outcome: 'tooFew', lossFraction: 0.2, repeats: 1, needed: 3 },
    ...(['fine', 'warn', 'act', 'more', 'cannotTell'] as const).map((outcome) => ({ outcome, ...interval })),
  ];
  it.each(baselines)('baseline: $outcome', (verdict) => {
    const said = sayBaseline(verdict, 'flow');
    [said.mark, said.sentence, said.detail].forEach(clean);
  });

  it('more than the baseline asks for the filters, and is no praise', () => {
    const said = sayBaseline(
      { outcome: 'more', lossFraction: -0.09, expanded: 0.01, straddles: null, warnsAt: 0.15 },
      'flow',
    );
    expect(said.tone).toBe('watch');
    expect(said.sentence).toMatch(/9\.0 % above baseline\. Is every filter in/);
  });

  const hoses: readonly ClassVerdict[] = [
    { outcome: 'tooFew', velocityMs: 17, limitMs: 20 },
    ...(['pass', 'fail', 'cannotTell'] as const).map((outcome) => ({
      outcome,
      velocityMs: 17.4,
      expandedMs: 1,
      limitMs: 20,
    })),
    { outcome: 'notJudged', because: 'hoseOff' },
  ];
  it.each(hoses)('hose: $outcome', (verdict) => {
    for (const units of ['metric', 'us'] as const) clean(sayHose(verdict, units)?.sentence ?? '');
  });

  it('says nothing of the hose where there is no limit', () => {
    expect(sayHose({ outcome: 'notJudged', because: 'noLimit' }, 'metric')).toBeNull();
  });

  it('+17.3 % is said as such, and one reading a side claims nothing', () => {
    const c = {
      difference: 0.0398,
      relative: 0.17327,
      expanded: null,
      degreesOfFreedom: null,
      p: null,
      differs: [] as const,
      displayLimited: false,
    };
    expect(sayComparison({ outcome: 'tooFew', ...c }, 'flow').sentence).toBe(
      'Flow changed by +17 %; too few readings to tell how much is noise.',
    );
    expect(sayComparison({ outcome: 'more', ...c, expanded: 0.001, p: 0.0001 }, 'flow')).toMatchObject({
      tone: 'good',
      sentence: 'Flow is up 17 %, and the gain is real.',
    });
  });
});

describe('two counts in words', () => {
  const of = (exhaust: number, room: number) => {
    const counted = { exhaust: { count: exhaust, volumeM3: 0.00283 }, room: { count: room, volumeM3: 0.00283 } };
    return sayOther(
      { form: 'particles', particles: judgeParticles(counted), sizeUm: 0.3, counted, passed: judgeRoomCount(counted) },
      'metric',
      'HEPA',
    );
  };

  it('fewer than the room clears nothing: 600 of 900 leaks, 6 of 333 says what may pass, none says the same', () => {
    expect(of(600, 900)).toMatchObject({
      tone: 'stop',
      mark: 'Fine dust passes',
      sentence: expect.stringMatching(/^67 % of what is in the room comes out of it/),
    });
    expect(of(6, 333)).toMatchObject({
      tone: 'open',
      sentence: expect.stringMatching(/^1.8 % of what is in the room comes through; up to 3.6 % may/),
    });
    expect(of(0, 300)).toMatchObject({ tone: 'open', mark: 'At most 1 %' });
    expect(of(900, 300).tone).toBe('stop');
    for (const said of [of(600, 900), of(6, 333), of(0, 300)])
      expect(`${said.sentence} ${said.detail}`).not.toMatch(/no gross leak|passed|clean/i);
  });

  it('what a screening count proves is said with what it could never show', () => {
    const said = (through: number, challenge: number) =>
      sayScreening(
        judgeScreening(
          { through: { count: through, volumeM3: 1 }, challenge: { count: challenge, volumeM3: 1 } },
          { limit: 0.00005 },
        ),
      );
    expect(said(600, 900)).toMatch(/^Failed: at least 61 % passes, the class allows 0.005 %/);
    expect(said(0, 2547)).toMatch(/^Screened: at most 0.12 % passes.*does not prove the class.*no better than 0.12 %/);
    expect(said(0, 300)).toMatch(/^Cannot tell: up to 1 % may pass/);
  });

  it('a withdrawn class says all that brings it back, for H and HEPA with the penetration test', () => {
    const stage = { id: 1, name: 'main filter' } as never;
    for (const because of ['missing', 'foreign', 'reversed', 'untested', 'failed', 'unproven'] as const) {
      expect(sayGap({ stage, because }, 'H')).toMatch(/penetration test/);
      if (because !== 'unproven') expect(sayGap({ stage, because }, 'M')).toMatch(/screened\.$/);
    }
  });
});

describe('findings and other outcomes', () => {
  const c = {
    outcome: 'less' as const,
    difference: -0.001,
    relative: -0.05,
    expanded: 0.0002,
    degreesOfFreedom: 5,
    p: 0.001,
    differs: [],
    displayLimited: false,
  };
  const findings: readonly TestFinding[] = [
    { kind: 'selector', mismatch: { hoseM: 0.036, selectorM: 0.027, warnsAtMs: 11.25, warnFlowM3s: 0.01145 } },
    ...(['pass', 'fail', 'cannotTell', 'tooFew'] as const).flatMap((decision): TestFinding[] => [
      { kind: 'wheel', wheelM: 0.115, needM3s: 0.053, flowM3s: 0.04, decision },
      { kind: 'duct', load: 'woodChips', lowMs: 18, highMs: 20, velocityMs: 17, decision },
    ]),
    { kind: 'voltage', volts: 207, off: -0.1, flowShare: -0.051 },
    { kind: 'density', nowKgM3: 1.1, thenKgM3: 1.2 },
    { kind: 'rig' },
    { kind: 'settle', of: 'loss', how: { by: 'repeats', more: 1 } },
    { kind: 'settle', of: 'hoseVelocity', how: { by: 'method', neededExpanded: 0.4 } },
    { kind: 'previous', comparison: c, measurand: 'flow', day: '2026-11-01' },
  ];
  it.each(findings)('$kind', (finding) => {
    for (const units of ['metric', 'us'] as const) {
      const said = sayFinding(finding, units);
      [said.mark, said.sentence, said.detail].forEach(clean);
    }
  });

  it('a wheel that has its flow is still no claim of compliance', () => {
    const said = sayFinding({ kind: 'wheel', wheelM: 0.115, needM3s: 0.053, flowM3s: 0.06, decision: 'pass' }, 'us');
    expect(said.detail).toMatch(/one part of that table only.*shroud.*respirator/s);
  });

  it('green is no proof, a hand is no meter, a light judged early says nothing', () => {
    expect(sayWord({ kind: 'zone', stageId: 1, zone: 'green' }, 'bag').detail).toContain(
      'does not prove that it filters',
    );
    expect(sayWord({ kind: 'hand', word: 'strong' }, '').detail).toContain('cannot feel a loss of 10 to 20 %');
    expect(sayWord({ kind: 'light', name: '', light: 'off', afterS: 4 }, '')).toMatchObject({ mark: 'Too early' });
  });

  it('a filter at four times its new weight is blocked (common practice, no published source)', () => {
    expect([sayMass(0.4, 0.1), sayMass(0.2, 0.1), sayMass(0.11, 0.1)].map((s) => s.tone)).toEqual([
      'stop',
      'watch',
      'good',
    ]);
  });

  it('the most pressing sentence comes first, the rest in order', () => {
    const said = (tone: 'stop' | 'watch' | 'open' | 'good', mark: string) => ({ tone, mark, sentence: '', detail: '' });
    expect(
      pressingFirst([said('good', 'a'), said('open', 'b'), said('stop', 'c'), said('open', 'd')]).map((s) => s.mark),
    ).toEqual(['c', 'a', 'b', 'd']);
  });
});

describe('needs and days', () => {
  const needs: readonly Need[] = [
    { kind: 'missingStage', stageName: 'HEPA', because: 'missing', urgency: 0 },
    { kind: 'belowClassLimit', velocityMs: 17, urgency: 0 },
    { kind: 'lowFlow', lossFraction: 0.3, act: true, suction: false, urgency: 0 },
    { kind: 'moreFlow', gainFraction: 0.1, urgency: 0 },
    { kind: 'measureAgain', because: 'changed', urgency: 0 },
    { kind: 'due', stageName: 'bag', daysLeft: -3, changeRecorded: true, urgency: 0 },
    { kind: 'nothing', stageName: null, daysLeft: null, urgency: 0 },
  ];
  it.each(needs)('$kind', (need) => clean(sayNeed(need, 'us').sentence));

  it('counts days in words', () => {
    expect([-1, 0, 1, 6, 21, 200].map(dueIn)).toEqual([
      'overdue by 1 day',
      'due today',
      'due tomorrow',
      'due in 6 days',
      'due in 3 weeks',
      'due in 7 months',
    ]);
    expect(howFar(-30)).toBe('4 weeks');
  });
});
