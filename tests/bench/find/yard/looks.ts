// How the other yard's people and meters see it: each with a bias of their own for the whole day, each look with its slip.
import type { Operation } from '@/core/diagnose/operation';
import type { Outcome } from '@/core/diagnose/outcome';
import { cures, type Repair } from '@/core/diagnose/repair';
import type { Interventions } from '@/core/diagnose/signature';
import type { Random } from '../../../../demo/random';
import { type OwnAir, settle } from './air';
import { kindsOf, type OwnFault, toolFlow } from './faults';
import { gapAt, type OwnMachine, range, spread } from './machines';

/** Who looks, and with what, on the day of the case. */
export interface Day {
  /** A hand that takes every draught for more or less than it is. */
  readonly hand: number;
  /** Eyes and ears, 0 to 1. */
  readonly care: number;
  /** The flow meter against the day of the baselines. */
  readonly meter: number;
  readonly gauge: number;
  /** How the rig sits at each place today. */
  readonly rig: Readonly<Record<string, number>>;
  readonly volts: number;
  /** Lights go on below this flow and out above a little more. */
  readonly lightM3s: number | null;
}

export const dayOf = (random: Random, lightM3s: number | null): Day => ({
  hand: spread(random, 0.18),
  care: range(random, 0.65, 1),
  meter: spread(random, 0.025),
  gauge: spread(random, 0.06),
  rig: { toolEnd: spread(random, 0.02), hoseEnd: spread(random, 0.02), inlet: spread(random, 0.02) },
  volts: 230 * (1 + 0.015 * random.normal()),
  lightM3s,
});

export interface Seen {
  readonly machine: OwnMachine;
  readonly faults: readonly OwnFault[];
  readonly day: Day;
  readonly random: Random;
}

export const leftOf = (faults: readonly OwnFault[], repairs: readonly Repair[]): readonly OwnFault[] =>
  faults.filter((f) => !repairs.some((r) => cures(r, f)));

/** Out of the way it drops next to nothing. */
const OUT = 1e-3;

/** The machine as it stands: new parts are clean, what is out is open, what is not cured is there. */
export const airOf = (
  { machine, faults }: Pick<Seen, 'machine' | 'faults'>,
  { out, repairs }: Interventions,
): OwnAir => {
  const renewed = new Set(repairs.filter((r) => r.kind === 'newPart' || r.kind === 'newHose').map((r) => r.position));
  const base: OwnAir = {
    ...machine.air,
    segments: machine.air.segments.map((s, i) => (renewed.has(i) ? (machine.clean[i] ?? s) : s)),
  };
  const faulty = leftOf(faults, repairs).reduce((air, f) => f.lay(air), base);
  return { ...faulty, segments: faulty.segments.map((s, i) => (out.includes(i) ? { ...s, a: s.a * OUT } : s)) };
};

const word = (w: string): Outcome => ({ kind: 'word', word: w });
const number = (valueSi: number): Outcome => ({ kind: 'number', valueSi: Math.max(0, valueSi) });

/** Draws with what is noticed, given the day's care. */
const notices = ({ day, random }: Seen, chance: number): boolean => random.uniform() < chance * day.care;
const slips = ({ random }: Seen, chance: number): boolean => random.uniform() < chance;

const flowAt = (s: Seen, air: OwnAir, place: 'toolEnd' | 'hoseEnd' | 'inlet'): number => {
  const point = settle(air, { gap: gapAt(kindsOf(s.machine), place), sealed: false });
  return place === 'toolEnd' ? point.entersM3s / s.machine.tools : point.entersM3s;
};

const metered = (s: Seen, flowM3s: number, place: string): Outcome =>
  number(flowM3s * s.day.meter * (s.day.rig[place] ?? 1) * spread(s.random, 0.015) + 0.0002 * s.random.normal());

const handWord = (s: Seen, ratio: number): string => {
  const felt = ratio * s.day.hand * spread(s.random, 0.1);
  return felt < 0.12 ? 'none' : felt < 0.62 ? 'weak' : felt < 1.35 ? 'normal' : 'strong';
};

const earWord = (s: Seen, air: OwnAir, faults: readonly OwnFault[]): string => {
  if (faults.some((f) => f.kind === 'bearings') && notices(s, 0.95)) return 'grumble';
  const [now, was] = [air, s.machine.air].map((a) => settle(a, { gap: 0, sealed: false }).fanM3s);
  // A fan that turns slower does not sing higher for want of air.
  const pitch =
    ((was ?? 1) / Math.max(1e-9, now ?? 1)) ** 0.5 * (air.fan.speed / s.machine.air.fan.speed) * spread(s.random, 0.05);
  if (pitch > 1.18 && notices(s, 0.9)) return 'blocked';
  return pitch < 0.92 && notices(s, 0.7) ? 'free' : slips(s, 0.05) ? 'blocked' : 'normal';
};

const bagWord = (s: Seen, at: readonly OwnFault[]): string => {
  const of = (kind: string) => at.find((f) => f.kind === kind);
  if (of('missing')) return 'missing';
  if (of('torn') && notices(s, 0.75)) return 'torn';
  if ((of('misseated') ?? of('torn')) && notices(s, 0.9)) return 'looseDirt';
  const blocked = of('blocked');
  if (blocked && notices(s, blocked.leaves < 0.6 ? 0.97 : 0.7)) return 'full';
  return slips(s, 0.05) ? 'full' : slips(s, 0.02) ? 'looseDirt' : 'clean';
};

const cleanSideWord = (s: Seen, at: readonly OwnFault[]): string => {
  if (at.some((f) => f.kind === 'missing')) return 'missing';
  if (at.some((f) => f.kind === 'reversed') && notices(s, 0.95)) return 'reversed';
  const lets = at.find((f) => f.kind === 'torn' || f.kind === 'misseated');
  if (!lets) return slips(s, 0.04) ? 'edge' : 'clean';
  if (!notices(s, 0.78 + 0.2 * lets.past)) return 'clean';
  return (lets.kind === 'misseated') === s.random.uniform() < 0.8 ? 'edge' : 'middle';
};

const weightWord = (s: Seen, at: readonly OwnFault[]): string => {
  const blocked = at.find((f) => f.kind === 'blocked');
  if (!blocked) return slips(s, 0.15) ? 'heavier' : 'nearNew';
  return notices(s, blocked.leaves < 0.55 ? 0.95 : 0.6) ? 'severalTimes' : slips(s, 0.7) ? 'heavier' : 'nearNew';
};

const SETTING_WORDS: Partial<Record<OwnFault['kind'], string>> = {
  wrongSetting: 'setting',
  wrongSelector: 'selector',
  brushJammed: 'brush',
};

const settingWord = (s: Seen, faults: readonly OwnFault[]): string => {
  const seen = faults.find((f) => SETTING_WORDS[f.kind] !== undefined);
  return seen && notices(s, 1) ? (SETTING_WORDS[seen.kind] ?? 'right') : 'right';
};

const lightWord = (s: Seen, air: OwnAir, faults: readonly OwnFault[]): string => {
  if (faults.some((f) => f.kind === 'indicatorOut')) return slips(s, 0.94) ? 'lit' : 'out';
  const limit = (s.day.lightM3s ?? 0) * (faults.some((f) => f.kind === 'wrongSelector') ? 1.7 : 1);
  const flow = flowAt(s, air, 'toolEnd');
  if (flow < limit) return 'lit';
  // Between on and out it shows what it showed last.
  return flow < 1.12 * limit ? (slips(s, 0.5) ? 'lit' : 'out') : 'out';
};

const gaugeWord = (s: Seen, air: OwnAir, position: number): string => {
  const { dropsPa } = settle(air, { gap: 0, sealed: false });
  const marks = s.machine.known.model.stages[position]?.spec.fit.gaugePa;
  // Its hose is let in before the pre-filter: it reads both.
  const pa = ((dropsPa[position] ?? 0) + (dropsPa[position - 1] ?? 0)) * s.day.gauge * spread(s.random, 0.03);
  return !marks || pa < marks.amberPa ? 'green' : pa < marks.redPa ? 'amber' : 'red';
};

const behind = (f: OwnFault, m: OwnMachine): boolean => {
  const last = m.known.model.stages.findLastIndex((x) => x.spec.air.form === 'medium' && x.kind !== 'gas');
  return (f.position === last && f.kind !== 'blocked' && f.past > 0) || (f.kind === 'leakingSeal' && f.past > 0);
};

/** What is read, seen or heard. */
export const seenBy = (s: Seen, operation: Operation, interventions: Interventions): Outcome => {
  const faults = leftOf(s.faults, interventions.repairs);
  const at = (position: number) => faults.filter((f) => f.position === position);
  const air = airOf(s, interventions);
  const kinds = kindsOf(s.machine);
  switch (operation.kind) {
    case 'flow':
      return metered(s, flowAt(s, air, operation.place), operation.place);
    case 'takeOut':
      return metered(
        s,
        flowAt(s, airOf(s, { ...interventions, out: [...interventions.out, operation.position] }), 'toolEnd'),
        'toolEnd',
      );
    case 'swap':
      return metered(
        s,
        flowAt(
          s,
          airOf(s, {
            ...interventions,
            repairs: [...interventions.repairs, { kind: 'newPart', position: operation.position }],
          }),
          'toolEnd',
        ),
        'toolEnd',
      );
    case 'hand':
      return word(handWord(s, flowAt(s, air, operation.place) / flowAt(s, s.machine.air, operation.place)));
    case 'sealed': {
      const gap = gapAt(kinds, operation.place);
      const pa = settle(air, { gap, sealed: true }).belowPa[gap] ?? 0;
      return number(pa * s.day.gauge ** 0.2 * spread(s.random, 0.01) + 15 * s.random.normal());
    }
    case 'stageDp': {
      const drop = settle(air, { gap: 0, sealed: false }).dropsPa[operation.position] ?? 0;
      return number(drop * spread(s.random, 0.04) + 10 * s.random.normal());
    }
    case 'gauge':
    case 'purge':
      return word(gaugeWord(s, air, operation.position));
    case 'listen':
      return word(earWord(s, air, faults));
    case 'settings':
      return word(settingWord(s, faults));
    case 'lookNozzle': {
      const lost = 1 - flowAt(s, air, 'toolEnd') / flowAt(s, s.machine.air, 'toolEnd');
      const plug = at(0).some((f) => f.kind === 'blocked');
      return word(
        slips(s, Math.min(0.9, 0.04 + 0.7 * Math.max(0, lost - 0.35) + (plug ? 0.4 * s.day.care : 0)))
          ? 'dirtDropped'
          : 'clean',
      );
    }
    case 'lookHose': {
      const hose = kinds.findIndex((k) => k === 'hose' || k === 'duct');
      const plug = at(hose).find((f) => f.kind === 'blocked');
      return word((plug ? notices(s, plug.leaves < 0.6 ? 1 : 0.8) : slips(s, 0.03)) ? 'blocked' : 'clear');
    }
    case 'lookBag':
      return word(bagWord(s, at(operation.position)));
    case 'weigh':
      return word(weightWord(s, at(operation.position)));
    case 'lamp':
      return word(lightWord(s, air, faults));
    case 'lampCoverOff': {
      const first = s.machine.known.model.stages.findIndex((x) => x.spec.air.form === 'medium');
      return word(
        lightWord(
          s,
          airOf(s, { ...interventions, out: Array.from({ length: Math.max(0, first) }, (_, i) => i) }),
          faults,
        ),
      );
    }
    case 'disc':
      return word(
        slips(s, faults.some((f) => f.kind === 'indicatorOut' || f.kind === 'wrongSelector') ? 0.08 : 0.93)
          ? 'good'
          : 'bad',
      );
    case 'cleanSide':
      return word(cleanSideWord(s, at(operation.position)));
    case 'particles': {
      const past = Math.max(0, ...faults.filter((f) => behind(f, s.machine)).map((f) => f.past));
      return word(slips(s, past > 0 ? 0.78 + 0.2 * past : 0.02) ? 'above' : slips(s, 0.25) ? 'notShown' : 'below');
    }
    case 'smell':
      return word(slips(s, faults.some((f) => f.kind === 'spentGas') ? 0.85 : 0.04) ? 'smells' : 'none');
    case 'smoke': {
      const shown = faults.some((f) => f.kind === 'leakingSeal')
        ? 0.95 * s.day.care
        : faults.some((f) => f.kind === 'hoseHoled' || f.kind === 'misseated')
          ? 0.2
          : 0.04;
      return word(slips(s, shown) ? 'leak' : 'tight');
    }
    case 'voltage': {
      const drop = interventions.repairs.some((r) => r.kind === 'supply')
        ? 1
        : Math.min(1, ...s.faults.map((f) => f.volts));
      return number(s.day.volts * drop * spread(s.random, 0.006));
    }
    case 'supply': {
      const drop = interventions.repairs.some((r) => r.kind === 'supply')
        ? 1
        : Math.min(1, ...s.faults.map((f) => f.supply));
      return number(6.2e5 * drop * spread(s.random, 0.025));
    }
    case 'found':
      return word(
        slips(s, faults.some((f) => f.kind === operation.fault && f.position === operation.position) ? 0.93 : 0.06)
          ? 'yes'
          : 'no',
      );
  }
};

/** Tool flow that is left of the sound machine's. */
export const flowLeft = (s: Pick<Seen, 'machine' | 'faults'>, repairs: readonly Repair[]): number =>
  toolFlow(airOf(s, { out: [], repairs })) / toolFlow(s.machine.air);
