import type { Operation } from '@/core/diagnose/operation';
import type { Outcome } from '@/core/diagnose/outcome';
import { cures, type Repair } from '@/core/diagnose/repair';
import type { Interventions } from '@/core/diagnose/signature';
import { CLEAN } from '@/core/path/machine-path';
import { pressureProfile } from '@/core/path/pressure-profile';
import { chance, pick, type Standing, trueFlow, trueSealed } from './true-machine';
import { layAll, type TrueCase, type TrueFault } from './true-case';

/** Faults that are still there after some repairs. */
export const left = (c: TrueCase, repairs: readonly Repair[]): readonly TrueFault[] =>
  c.faults.filter((f) => !repairs.some((r) => cures(r, f)));

export const standing = (c: TrueCase, { out, repairs }: Interventions): Standing => {
  const renewed = repairs.filter((r) => r.kind === 'newPart').map((r) => r.position);
  const stages = { ...c.machine.state.stages };
  for (const i of renewed) stages[i] = CLEAN;
  const m = layAll({ ...c.machine, state: { ...c.machine.state, stages } }, left(c, repairs));
  const removed = { ...m.state.stages };
  for (const i of out) removed[i] = { ...CLEAN, removed: true };
  return { ...m, state: { ...m.state, stages: removed } };
};

const word = (w: string): Outcome => ({ kind: 'word', word: w });
const number = (valueSi: number): Outcome => ({ kind: 'number', valueSi: Math.max(0, valueSi) });

const firstMedium = (c: TrueCase) => c.machine.model.stages.findIndex((s) => s.spec.air.form === 'medium');
const finest = (c: TrueCase) =>
  c.machine.model.stages.findLastIndex((s) => s.spec.air.form === 'medium' && s.kind !== 'gas');

/** How the air moves against the sound machine, as a hand or an ear takes it. */
const handWord = (c: TrueCase, ratio: number): string => {
  const felt = ratio * Math.exp(0.13 * c.random.normal());
  return felt < 0.1 ? 'none' : felt < 0.65 ? 'weak' : felt < 1.3 ? 'normal' : 'strong';
};

const earWord = (c: TrueCase, m: Standing, faults: readonly TrueFault[]): string => {
  if (faults.some((f) => f.kind === 'bearings') && chance(c.random, 0.92)) return 'grumble';
  const now = pressureProfile(m);
  const was = pressureProfile(c.machine);
  const ratio = now.ok && was.ok ? now.value.fanFlowM3s / was.value.fanFlowM3s : 1;
  const slow = faults.some((f) => ['weakFan', 'lowVoltage', 'lowSupply', 'wrongSetting'].includes(f.kind));
  if (!slow && ratio * (1 + 0.07 * c.random.normal()) < 0.7 && chance(c.random, 0.85)) return 'blocked';
  return ratio * (1 + 0.04 * c.random.normal()) > 1.12 && chance(c.random, 0.7)
    ? 'free'
    : chance(c.random, 0.04)
      ? pick(c.random, ['blocked', 'free', 'grumble'])
      : 'normal';
};

const bagWord = (c: TrueCase, at: readonly TrueFault[]): string => {
  const of = (kind: string) => at.find((f) => f.kind === kind);
  if (of('missing')) return 'missing';
  if (of('torn') && chance(c.random, 0.65)) return 'torn';
  if ((of('misseated') || of('torn')) && chance(c.random, 0.85)) return 'looseDirt';
  const blocked = of('blocked');
  if (blocked && chance(c.random, blocked.leaves < 0.7 ? 0.88 : 0.6)) return 'full';
  return chance(c.random, 0.04) ? 'full' : chance(c.random, 0.02) ? 'looseDirt' : 'clean';
};

const cleanSideWord = (c: TrueCase, at: readonly TrueFault[]): string => {
  if (at.some((f) => f.kind === 'missing')) return 'missing';
  if (at.some((f) => f.kind === 'reversed') && chance(c.random, 0.9)) return 'reversed';
  const lets = at.find((f) => f.kind === 'torn' || f.kind === 'misseated');
  if (!lets) return chance(c.random, 0.03) ? pick(c.random, ['edge', 'middle']) : 'clean';
  if (!chance(c.random, 0.72 + 0.22 * lets.past)) return 'clean';
  return (lets.kind === 'misseated') === chance(c.random, 0.82) ? 'edge' : 'middle';
};

const weightWord = (c: TrueCase, at: readonly TrueFault[]): string => {
  const blocked = at.find((f) => f.kind === 'blocked');
  if (!blocked) return chance(c.random, 0.12) ? 'heavier' : 'nearNew';
  return chance(c.random, blocked.leaves < 0.65 ? 0.85 : 0.55)
    ? 'severalTimes'
    : chance(c.random, 0.6)
      ? 'heavier'
      : 'nearNew';
};

const settingWord = (c: TrueCase, faults: readonly TrueFault[]): string => {
  const seen = faults.find((f) => f.kind === 'wrongSetting' || f.kind === 'wrongSelector' || f.kind === 'brushJammed');
  if (!seen || chance(c.random, 0.06)) return 'right';
  return seen.kind === 'wrongSetting' ? 'setting' : seen.kind === 'wrongSelector' ? 'selector' : 'brush';
};

const lampWord = (c: TrueCase, m: Standing, faults: readonly TrueFault[]): string => {
  if (faults.some((f) => f.kind === 'indicatorOut')) return chance(c.random, 0.93) ? 'lit' : 'out';
  const limit = (c.lampM3s ?? 0) * (faults.some((f) => f.kind === 'wrongSelector') ? 1.7 : 1);
  return trueFlow(m, 'toolEnd') < limit * (1 + 0.05 * c.random.normal()) ? 'lit' : 'out';
};

const noisy = (c: TrueCase, value: number, share: number, floor = 0): Outcome =>
  number(value * (1 + share * c.random.normal()) + floor * c.random.normal());

const mended = ({ repairs }: Interventions) => repairs.some((r) => r.kind === 'supply');

/** What is read, seen or heard on the machine as it really is. */
export const watch = (op: Operation, c: TrueCase, interventions: Interventions): Outcome => {
  const faults = left(c, interventions.repairs);
  const at = (position: number) => faults.filter((f) => f.position === position);
  const m = standing(c, interventions);
  switch (op.kind) {
    case 'flow':
      return noisy(c, trueFlow(m, op.place), 0.035, 0.004 * trueFlow(c.machine, op.place));
    case 'takeOut':
      return noisy(
        c,
        trueFlow(standing(c, { ...interventions, out: [...interventions.out, op.position] }), 'toolEnd'),
        0.035,
      );
    case 'swap':
      return noisy(
        c,
        trueFlow(
          standing(c, {
            ...interventions,
            repairs: [...interventions.repairs, { kind: 'newPart', position: op.position }],
          }),
          'toolEnd',
        ),
        0.035,
      );
    case 'hand':
      return word(handWord(c, trueFlow(m, op.place) / trueFlow(c.machine, op.place)));
    case 'sealed':
      return noisy(c, trueSealed(m, op.place), 0.015, 20);
    case 'stageDp': {
      const s = pressureProfile(m);
      return noisy(c, s.ok ? Math.max(0, s.value.steps[op.position]?.dropPa ?? 0) : 0, 0.05, 8);
    }
    case 'gauge':
    case 'purge': {
      const s = pressureProfile(m);
      const gauge = c.machine.known.model.stages[op.position]?.spec.fit.gaugePa;
      const pa = (s.ok ? (s.value.steps[op.position]?.dropPa ?? 0) : 0) * (1 + 0.08 * c.random.normal());
      return word(!gauge || pa < gauge.amberPa ? 'green' : pa < gauge.redPa ? 'amber' : 'red');
    }
    case 'listen':
      return word(earWord(c, m, faults));
    case 'settings':
      return word(settingWord(c, faults));
    case 'lookNozzle': {
      const weak = 1 - trueFlow(m, 'toolEnd') / trueFlow(c.machine, 'toolEnd');
      return word(
        chance(
          c.random,
          Math.min(0.9, 0.03 + Math.max(0, weak - 0.3) + (at(0).some((f) => f.kind === 'blocked') ? 0.35 : 0)),
        )
          ? 'dirtDropped'
          : 'clean',
      );
    }
    case 'lookHose': {
      const hose = c.machine.model.stages.findIndex((s) => s.kind === 'hose' || s.kind === 'duct');
      const plug = at(hose).find((f) => f.kind === 'blocked');
      return word(chance(c.random, plug ? (plug.leaves < 0.7 ? 0.95 : 0.75) : 0.02) ? 'blocked' : 'clear');
    }
    case 'lookBag':
      return word(bagWord(c, at(op.position)));
    case 'weigh':
      return word(weightWord(c, at(op.position)));
    case 'lamp':
      return word(lampWord(c, m, faults));
    case 'lampCoverOff':
      return word(
        lampWord(
          c,
          standing(c, { ...interventions, out: Array.from({ length: Math.max(0, firstMedium(c)) }, (_, i) => i) }),
          faults,
        ),
      );
    case 'disc':
      return word(
        chance(c.random, faults.some((f) => f.kind === 'indicatorOut' || f.kind === 'wrongSelector') ? 0.06 : 0.95)
          ? 'good'
          : 'bad',
      );
    case 'cleanSide':
      return word(cleanSideWord(c, at(op.position)));
    case 'particles': {
      const past = Math.max(
        0,
        ...faults
          .filter(
            (f) =>
              (f.position === finest(c) && ['torn', 'misseated', 'missing'].includes(f.kind)) ||
              (f.kind === 'leakingSeal' && f.past > 0),
          )
          .map((f) => (f.kind === 'missing' ? 1 : f.past)),
      );
      const shown = chance(c.random, past > 0 ? 0.82 + 0.15 * past : 0.015);
      return word(shown ? 'above' : chance(c.random, 0.2) ? 'notShown' : 'below');
    }
    case 'smell':
      return word(chance(c.random, faults.some((f) => f.kind === 'spentGas') ? 0.88 : 0.03) ? 'smells' : 'none');
    case 'smoke': {
      const shown = faults.some((f) => f.kind === 'leakingSeal')
        ? 0.88
        : faults.some((f) => f.kind === 'hoseHoled' || f.kind === 'misseated')
          ? 0.18
          : 0.03;
      return word(chance(c.random, shown) ? 'leak' : 'tight');
    }
    case 'voltage':
      return noisy(c, mended(interventions) ? 230 : c.volts, 0.008);
    case 'supply':
      return noisy(c, mended(interventions) ? 6.2e5 : (c.supplyPa ?? 0), 0.03);
    case 'found':
      return word(
        chance(c.random, faults.some((f) => f.kind === op.fault && f.position === op.position) ? 0.95 : 0.04)
          ? 'yes'
          : 'no',
      );
  }
};
