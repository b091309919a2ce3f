import { filterBefore } from '../path/filter-before';
import { CLASS_HOSE_VELOCITY } from '../constants/limits';
import { INSPECTION_WORDS } from '../constants/word-shares';
import { flowLamp } from '../path/indicator';
import type { MachineModel } from '../path/machine-path';
import { isBleed } from './effects';
import { blowsOut, type Fault, type FaultKind, type MachineTraits } from './fault';
import { type Expected, wordShares, yesNo } from './outcome';
import type { Signature } from './signature';

// How likely each word is when something is looked at, felt or heard. Shares are Moorwind defaults, modelling choices.

/** The logistic function, 0 to 1. Source: standard definition, 1 / (1 + exp(-x)). Valid: any x. */
export const logistic = (x: number): number => 1 / (1 + Math.exp(-x));

const above = (ratio: number, { at, width }: { readonly at: number; readonly width: number }): number =>
  logistic((ratio - at) / width);
const below = (ratio: number, { at, width }: { readonly at: number; readonly width: number }): number =>
  logistic((at - ratio) / width);

/** How severe the worst of some faults is, 0 where there is none. Source: common practice, no published source. Valid: severities of 0 to 1. */
export const severityOf = (faults: readonly Fault[], kinds: readonly FaultKind[], position?: number): number => {
  let worst = 0;
  for (const f of faults)
    if (f.severity > worst && kinds.includes(f.kind) && (position === undefined || f.position === position))
      worst = f.severity;
  return worst;
};

export const has = (faults: readonly Fault[], kind: FaultKind, position?: number): boolean =>
  severityOf(faults, [kind], position) > 0;

export const LETS_PAST: readonly FaultKind[] = ['torn', 'misseated'];

/** A hand cannot see 10 to 20 %: the words overlap by that much. Source: common practice, no published source. */
export const handWords = (ratio: number): Expected => {
  const [some, much, more] = [
    above(ratio, INSPECTION_WORDS.hand.some),
    above(ratio, INSPECTION_WORDS.hand.normal),
    above(ratio, INSPECTION_WORDS.hand.strong),
  ];
  return wordShares({ none: 1 - some, weak: some - much, normal: much - more, strong: more });
};

/** Labouring or pitch up: little air through the fan. Free-running: much. A slow fan moves less without labouring. */
export const soundWords = (s: Signature, sound: Signature): Expected => {
  const was = sound.air.fanFlowM3s();
  if (was === 0) return wordShares({ normal: 1, blocked: 1, free: 1, grumble: 1 });
  const ratio = s.air.fanFlowM3s() / was;
  const slow =
    has(s.faults, 'weakFan') ||
    has(s.faults, 'lowVoltage') ||
    s.faults.some((f) => f.kind === 'wrongSetting' && !isBleed(f)) ||
    has(s.faults, 'lowSupply');
  const { sound: at } = INSPECTION_WORDS;
  const blocked = slow ? at.laboursWhenSlow : at.laboursMost * below(ratio, at.labours);
  const free = at.freeMost * above(ratio, at.free);
  return wordShares({
    normal: Math.max(at.normalLeast, 1 - blocked - free),
    blocked,
    free,
    grumble: has(s.faults, 'bearings') ? at.rumbleWithBearings : at.rumbleWithout,
  });
};

export interface LampContext {
  readonly traits: MachineTraits;
  readonly hoseM: number | null;
}

/** A low-flow light: a threshold on the flow in the hose, as the selector takes it. */
export const lampWords = (faults: readonly Fault[], flowM3s: number, { traits, hoseM }: LampContext): Expected => {
  if (has(faults, 'indicatorOut')) return yesNo('lit', 'out', INSPECTION_WORDS.lamp.falseLit);
  if (hoseM === null) return yesNo('lit', 'out', INSPECTION_WORDS.lamp.unknownHose);
  const selectorM =
    (traits.selectorM ?? hoseM) * (has(faults, 'wrongSelector') ? INSPECTION_WORDS.lamp.wrongSelectorTimes : 1);
  const { warnsAtMs } = flowLamp({ selectorM, belowMs: CLASS_HOSE_VELOCITY.value }, { flowM3s, hoseM });
  const velocity = (4 * flowM3s) / (Math.PI * hoseM ** 2);
  return yesNo('lit', 'out', logistic((warnsAtMs - velocity) / (INSPECTION_WORDS.lamp.width * warnsAtMs)));
};

/**
 * Words for a gauge with its two marks. Where nobody has said what it reads across: its own stage, or the filter before
 * it as well, with equal chance. Choice: Moorwind defaults, modelling choices. Valid: a stage of the path.
 */
export const gaugeWords = (s: Signature, model: MachineModel, position: number): Expected => {
  const gauge = model.stages[position]?.spec.fit.gaugePa;
  if (has(s.faults, 'indicatorOut') || !gauge) return wordShares({ green: 1, amber: 1, red: 1 });
  const own = s.air.dropPa(position);
  const before = filterBefore(model.stages, position);
  const both = before === null ? own : own + Math.max(0, s.air.dropPa(before));
  const spans = { own: [own], withBefore: [both], unknown: [own, both] }[gauge.spans];
  const past = (limit: number) =>
    spans.reduce((sum, pa) => sum + logistic((pa - limit) / (INSPECTION_WORDS.gauge.width * limit)), 0) / spans.length;
  return wordShares({
    green: 1 - past(gauge.amberPa),
    amber: past(gauge.amberPa) - past(gauge.redPa),
    red: past(gauge.redPa),
  });
};

/** After a purge a light load is gone and the gauge is green again; a caked filter stays where it was. */
export const purgeWords = (s: Signature, model: MachineModel, position: number): Expected => {
  const caked = severityOf(s.faults, ['blocked'], position);
  const before = gaugeWords(s, model, position);
  const share = before.kind === 'words' ? before.words : {};
  const freed = caked > 0 ? INSPECTION_WORDS.purge.frees * (1 - caked) : 0;
  const [amber, red] = [share['amber'] ?? 0, share['red'] ?? 0];
  return wordShares({
    green: (share['green'] ?? 0) + freed * (amber + red),
    amber: (1 - freed) * amber,
    red: (1 - freed) * red,
  });
};

/** Full, loose dirt beside it, torn, not there: what the open compartment shows. */
export const bagWords = (faults: readonly Fault[], position: number): Expected => {
  const { bag: at } = INSPECTION_WORDS;
  const full = severityOf(faults, ['blocked'], position);
  const [beside, tear] = [severityOf(faults, ['misseated'], position), severityOf(faults, ['torn'], position)];
  return wordShares({
    clean: 1,
    full: full > 0 ? at.full.base + at.full.bySeverity * full : at.full.without,
    looseDirt:
      beside > 0
        ? at.looseDirt.base + at.looseDirt.bySeverity * beside
        : tear > 0
          ? at.looseDirt.withTear * (1 + tear)
          : at.looseDirt.without,
    torn: tear > 0 ? at.torn.base + at.torn.bySeverity * tear : 0,
    missing: has(faults, 'missing', position) ? at.missing : 0,
  });
};

/** The position of the finest filter of a path; -1 where it has none. Source: common practice, no published source. Total. */
export const finestAt = (model: MachineModel): number =>
  model.stages.findLastIndex((x) => x.spec.air.form === 'medium' && x.kind !== 'gas' && !x.missing);

export const particleWords = (faults: readonly Fault[], model: MachineModel): Expected => {
  const { particles: at } = INSPECTION_WORDS;
  const finest = finestAt(model);
  const past = Math.max(
    severityOf(faults, LETS_PAST, finest),
    has(faults, 'missing', finest) ? 1 : 0,
    ...faults.filter((f) => f.kind === 'leakingSeal' && blowsOut(model, f.position)).map((f) => f.severity),
  );
  return wordShares(
    past > 0
      ? { below: at.past.below, notShown: at.past.notShown, above: at.past.above + at.past.bySeverity * past }
      : at.sound,
  );
};

/** The clean side of a filter: dirt at its edge came past the seat, dirt in its middle through a tear; a look also shows that it is there, and its arrow. */
export const cleanSideWords = (faults: readonly Fault[], position: number): Expected => {
  const { cleanSide: at } = INSPECTION_WORDS;
  const [seat, tear] = [severityOf(faults, ['misseated'], position), severityOf(faults, ['torn'], position)];
  return wordShares({
    clean: seat + tear > 0 ? at.cleanWithFault : at.cleanWithout,
    edge: seat > 0 ? at.own + seat : tear > 0 ? at.other : at.without,
    middle: tear > 0 ? at.own + tear : seat > 0 ? at.other : at.without,
    missing: has(faults, 'missing', position) ? at.missing : 0,
    reversed: has(faults, 'reversed', position) ? at.reversed : 0,
  });
};

/** Weight against a new part: a blocked one is several times heavier. Source: common practice, no published source. */
export const weightWords = (faults: readonly Fault[], position: number): Expected => {
  const loaded = severityOf(faults, ['blocked'], position);
  const { weight: at } = INSPECTION_WORDS;
  const heavy = loaded > 0 ? at.heavyBase + at.heavyBySeverity * loaded : at.heavyWithout;
  return wordShares({ nearNew: at.near * (1 - heavy), heavier: at.heavier, severalTimes: at.several * heavy });
};

export const settingWords = (faults: readonly Fault[], traits: MachineTraits): Expected =>
  wordShares({
    right: 1,
    setting: has(faults, 'wrongSetting') ? INSPECTION_WORDS.settings.wrong : 0,
    ...(traits.selectorM === null
      ? {}
      : { selector: has(faults, 'wrongSelector') ? INSPECTION_WORDS.settings.wrong : 0 }),
    ...(traits.hasBrush ? { brush: has(faults, 'brushJammed') ? INSPECTION_WORDS.settings.wrong : 0 } : {}),
  });
