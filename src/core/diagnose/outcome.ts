import { CLASS_HOSE_VELOCITY } from '../constants/limits';
import { flowLamp } from '../path/indicator';
import type { FaultKind, MachineTraits } from './fault';
import type { Operation } from './operation';
import type { Signature, Suspect } from './signature';

/** What a test gave. */
export type Outcome =
  /** SI: m3/s for a flow, Pa for a pressure, V, Pa for a supply. */
  | { readonly kind: 'number'; readonly valueSi: number }
  | { readonly kind: 'word'; readonly word: string };

/** What a test is expected to give under one explanation. */
export type Expected =
  | { readonly kind: 'number'; readonly mean: number; readonly relative: number }
  | { readonly kind: 'words'; readonly words: Readonly<Record<string, number>> };

export interface TestBench {
  readonly suspect: Suspect;
  readonly traits: MachineTraits;
  /** What it would read with nothing wrong. */
  readonly sound: Signature;
  readonly hoseM: number | null;
  readonly nominalVolts: number;
  /** Stages out of the machine now. */
  readonly out: readonly number[];
  /** Stages that have had a new part in this case. */
  readonly fresh: readonly number[];
}

/** Flow and suction as read, and the model's own doubt: today may sit several per cent off with nothing wrong. Moorwind defaults. */
const FLOW_DOUBT = 0.06;
const SUCTION_DOUBT = 0.03;
/** A severity between two grades reads between their readings: half a step of the grid. */
const GRADE_DOUBT = 0.09;
const DP_DOUBT = 0.15;
const VOLT_DOUBT = 0.015;
const SUPPLY_DOUBT = 0.05;
/** No look is certain: this share goes to the other words. */
const SLIP = 0.03;

const logistic = (x: number): number => 1 / (1 + Math.exp(-x));

/** Shares that sum to 1, none of them 0. */
const words = (raw: Readonly<Record<string, number>>): Expected => {
  const keys = Object.keys(raw);
  const total = keys.reduce((sum, k) => sum + Math.max(0, raw[k] ?? 0), 0);
  return { kind: 'words', words: Object.fromEntries(keys.map((k) => [k, SLIP / keys.length + (1 - SLIP) * (total > 0 ? Math.max(0, raw[k] ?? 0) / total : 1 / keys.length)])) };
};
const yesNo = (yes: string, no: string, share: number): Expected => words({ [yes]: share, [no]: 1 - share });
const number = (mean: number, relative: number): Expected => ({ kind: 'number', mean, relative });

/** A reading that moves with the severity is in doubt by the grid too. */
const graded = (s: Signature, mean: number, relative: number): Expected => number(mean, s.faults.length > 0 ? Math.hypot(relative, GRADE_DOUBT) : relative);

const severityOf = (s: Signature, kinds: readonly FaultKind[], position?: number): number =>
  Math.max(0, ...s.faults.filter((f) => kinds.includes(f.kind) && (position === undefined || f.position === position)).map((f) => f.severity));

const has = (s: Signature, kind: FaultKind, position?: number): boolean => s.faults.some((f) => f.kind === kind && (position === undefined || f.position === position));

/** A hand cannot see 10 to 20 %: the words overlap by that much. Source: common practice, no published source. */
const handWords = (ratio: number): Expected => {
  const edges = [0.12, 0.6, 1.25].map((edge) => logistic((ratio - edge) / (0.12 * Math.max(0.3, edge))));
  const [some = 0, much = 0, more = 0] = edges;
  return words({ none: 1 - some, weak: some - much, normal: much - more, strong: more });
};

const listening = (s: Signature, sound: Signature): Expected => {
  const [now, was] = [s.inUse(), sound.inUse()];
  if (!now || !was || was.fanFlowM3s === 0) return words({ normal: 1, blocked: 1, free: 1, grumble: 1 });
  const ratio = now.fanFlowM3s / was.fanFlowM3s;
  // A slow fan moves less without labouring: what is heard is the lift against what its speed would give.
  const speed = s.faults.some((f) => f.kind === 'weakFan' || f.kind === 'lowVoltage' || f.kind === 'wrongSetting');
  const blocked = speed ? 0.1 : logistic((0.75 - ratio) / 0.07);
  const free = logistic((ratio - 1.08) / 0.03);
  return words({ normal: Math.max(0.05, 1 - blocked - free), blocked, free, grumble: has(s, 'bearings') ? 6 : 0 });
};

const lampLit = (s: Signature, { traits, hoseM, suspect }: TestBench, coverOff: boolean): Expected => {
  if (has(s, 'indicatorOut')) return yesNo('lit', 'out', 0.9);
  const bag = suspect.model.stages.findIndex((x) => x.spec.air.form === 'medium');
  const flowM3s = coverOff ? s.flowWith({ out: Array.from({ length: Math.max(0, bag) }, (_, i) => i), fresh: [] }) : (s.inUse()?.flowPerToolM3s ?? 0);
  if (hoseM === null) return yesNo('lit', 'out', 0.5);
  const wrong = has(s, 'wrongSelector');
  const selectorM = (traits.selectorM ?? hoseM) * (wrong ? 1.33 : 1);
  const { warnsAtMs } = flowLamp({ selectorM, belowMs: CLASS_HOSE_VELOCITY.value }, { flowM3s, hoseM });
  const velocity = (4 * flowM3s) / (Math.PI * hoseM ** 2);
  return yesNo('lit', 'out', logistic((warnsAtMs - velocity) / (0.06 * warnsAtMs)));
};

const gaugeWords = (s: Signature, { suspect }: TestBench, position: number): Expected => {
  const gauge = suspect.model.stages[position]?.spec.fit.gaugePa;
  const pa = s.inUse()?.steps[position]?.dropPa ?? 0;
  if (has(s, 'indicatorOut') || !gauge) return words({ green: 1, amber: 1, red: 1 });
  const above = (limit: number) => logistic((pa - limit) / (0.1 * limit));
  return words({ green: 1 - above(gauge.amberPa), amber: above(gauge.amberPa) - above(gauge.redPa), red: above(gauge.redPa) });
};

const LETS_PAST: readonly FaultKind[] = ['torn', 'misseated', 'missing'];

const bagWords = (s: Signature, position: number): Expected => {
  const full = severityOf(s, ['blocked'], position);
  return words({
    clean: 1,
    full: full >= 0.6 ? 6 : full >= 0.4 ? 1 : 0.05,
    looseDirt: 8 * severityOf(s, ['misseated'], position) + 3 * severityOf(s, ['torn'], position),
    torn: 8 * severityOf(s, ['torn'], position),
    missing: has(s, 'missing', position) ? 60 : 0,
  });
};

const particleWords = (s: Signature, { suspect }: TestBench): Expected => {
  const finest = suspect.model.stages.findLastIndex((x) => x.spec.air.form === 'medium' && x.kind !== 'gas');
  const past = severityOf(s, LETS_PAST, finest);
  return words({ below: past > 0 ? 0.3 : 6, notShown: 1, above: 8 * past });
};

const cleanSideWords = (s: Signature, position: number): Expected => {
  const past = severityOf(s, LETS_PAST, position);
  return yesNo('dirty', 'clean', past > 0 ? 0.5 + 0.45 * past : 0.03);
};

const loadWords = (s: Signature, { sound }: TestBench, position: number): Expected => {
  const loaded = severityOf(s, ['blocked'], position);
  const base = sound.inUse()?.steps[position]?.dropPa ?? 0;
  const heavy = logistic((loaded - 0.5) / 0.08);
  return words({ nearNew: 1 - heavy, heavier: base > 0 ? 0.25 : 0.1, severalTimes: heavy });
};

/** What a test would give if an explanation were true. Source: the air-path model; looks are Moorwind defaults. */
export const expectedOf = (op: Operation, given: Signature, bench: TestBench): Expected => {
  const s = bench.fresh.length > 0 ? given.renewed(bench.fresh) : given;
  switch (op.kind) {
    case 'flow':
      return graded(s, bench.out.length > 0 && op.place === 'toolEnd' ? s.flowWith({ out: bench.out, fresh: [] }) : s.flowM3s(op.place), FLOW_DOUBT);
    case 'hand': {
      const was = bench.sound.flowM3s(op.place);
      return handWords(was > 0 ? s.flowM3s(op.place) / was : 0);
    }
    case 'sealed':
      return number(s.sealedPa(op.place), SUCTION_DOUBT);
    case 'stageDp':
      return graded(s, s.inUse()?.steps[op.position]?.dropPa ?? 0, DP_DOUBT);
    case 'gauge':
      return gaugeWords(s, bench, op.position);
    case 'listen':
      return listening(s, bench.sound);
    case 'settings':
      return yesNo('wrong', 'right', has(s, 'wrongSetting') || has(s, 'wrongSelector') ? 0.95 : 0.01);
    case 'lookNozzle': {
      const was = bench.sound.flowM3s('toolEnd');
      const weak = was > 0 ? 1 - s.flowM3s('toolEnd') / was : 0;
      return yesNo('dirtDropped', 'clean', Math.min(0.9, Math.max(0, weak - 0.3) + 0.7 * severityOf(s, ['blocked'], 0)));
    }
    case 'lookHose': {
      const hose = bench.suspect.model.stages.findIndex((x) => x.kind === 'hose' || x.kind === 'duct');
      return yesNo('blocked', 'clear', logistic((severityOf(s, ['blocked'], hose) - 0.42) / 0.06));
    }
    case 'lookBag':
      return bagWords(s, op.position);
    case 'weigh':
      return loadWords(s, bench, op.position);
    case 'takeOut':
      return graded(s, s.flowWith({ out: [...bench.out, op.position], fresh: [] }), FLOW_DOUBT);
    case 'swap':
      return graded(s, s.flowWith({ out: bench.out, fresh: [op.position] }), FLOW_DOUBT);
    case 'lamp':
      return lampLit(s, bench, false);
    case 'lampCoverOff':
      return lampLit(s, bench, true);
    case 'disc':
      return yesNo('good', 'bad', has(s, 'indicatorOut') || has(s, 'wrongSelector') ? 0.1 : 0.95);
    case 'cleanSide':
      return cleanSideWords(s, op.position);
    case 'particles':
      return particleWords(s, bench);
    case 'smoke':
      return yesNo('leak', 'tight', Math.min(0.92, 0.9 * Math.sign(severityOf(s, ['leakingSeal'])) * (0.5 + 0.5 * severityOf(s, ['leakingSeal'])) + 0.4 * severityOf(s, ['misseated'])));
    case 'voltage':
      return number(bench.nominalVolts * (1 - 0.25 * severityOf(s, ['lowVoltage'])) ** 2, VOLT_DOUBT);
    case 'supply': {
      const air = bench.suspect.model.stages.find((x) => x.kind === 'fan')?.spec.air;
      const nominal = air?.form === 'fan' && air.curve.kind === 'pneumatic' ? air.curve.nominalSupplyPa : 0;
      return number(nominal * (1 - 0.7 * severityOf(s, ['lowSupply'])), SUPPLY_DOUBT);
    }
  }
};

/** A reading this far out is a slip of the meter, not of the model: no explanation is ever quite impossible. */
const WILD = 1e-4;

/** How likely an outcome is under what was expected; above 0 always. A number's is a density per relative step. */
export const likelihood = (outcome: Outcome, expected: Expected): number => {
  if (outcome.kind === 'word') return expected.kind === 'words' ? Math.max(WILD, expected.words[outcome.word] ?? 0) : 1;
  if (expected.kind !== 'number') return 1;
  // A floor keeps a flow of nothing comparable with a flow of next to nothing.
  const sd = expected.relative * Math.max(Math.abs(expected.mean), 0.02 * Math.abs(outcome.valueSi), 1e-12);
  const z = (outcome.valueSi - expected.mean) / sd;
  return WILD + Math.exp(-0.5 * z * z) * (expected.relative * Math.abs(outcome.valueSi || 1e-12)) / sd;
};
