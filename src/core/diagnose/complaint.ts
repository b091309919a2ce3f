import { BASELINE_WARN_LOSS } from '../constants/limits';
import type { MachineModel } from '../path/machine-path';
import { type FaultKind, type FaultPlace, isSilent, type MachineTraits } from './fault';
import type { Operation } from './operation';
import type { Outcome } from './outcome';

/** Complaints, in the trade's words. */
export const COMPLAINTS = ['noSuction', 'light', 'dust', 'smell', 'labours', 'round'] as const;
export type Complaint = (typeof COMPLAINTS)[number];

/** Weight of a complaint for a kind of fault; 1 is neutral. Moorwind defaults, modelling choices. */
const SPEAKS: Record<Complaint, { readonly silent: number; readonly kinds: Partial<Record<FaultKind, number>> }> = {
  noSuction: { silent: 0.35, kinds: { indicatorOut: 0.2, wrongSelector: 0.2, bearings: 0.4 } },
  light: { silent: 0.35, kinds: { indicatorOut: 4, wrongSelector: 4, bearings: 0.3 } },
  dust: { silent: 8, kinds: { blocked: 0.5, indicatorOut: 0.1, wrongSelector: 0.1, bearings: 0.2, leakingSeal: 0.5 } },
  smell: { silent: 0.6, kinds: { spentGas: 15, bearings: 2, indicatorOut: 0.1, wrongSelector: 0.1 } },
  labours: {
    silent: 0.3,
    kinds: { bearings: 8, weakFan: 1.5, blocked: 1.2, lowVoltage: 2, indicatorOut: 0.1, wrongSelector: 0.1 },
  },
  round: { silent: 1, kinds: {} },
};

export const complaintFactor =
  (complaint: Complaint, model: MachineModel) =>
  (place: FaultPlace): number => {
    const { silent, kinds } = SPEAKS[complaint];
    return (kinds[place.kind] ?? 1) * (isSilent(place, model) && place.kind !== 'spentGas' ? silent : 1);
  };

/**
 * Phrases of complaints, and their weights. Source: common practice, no published source; weights are Moorwind
 * defaults.
 */
const SAID: readonly (readonly [RegExp, Partial<Record<FaultKind, number>>])[] = [
  [/grumbl|rattl|bearing|screech/i, { bearings: 4 }],
  [/whistl|hiss/i, { leakingSeal: 2, hoseHoled: 2 }],
  [
    /after (the |a |its )?(new )?(bag|filter|change|service)/i,
    { misseated: 2, missing: 2, reversed: 2, leakingSeal: 1.5 },
  ],
  [/screw|nail|\bpin\b|clip|\brag\b|stuck|swallow|sucked up/i, { blocked: 1.5, torn: 1.5 }],
  [/brush|roller|\bbelt\b/i, { brushJammed: 4 }],
  [/generator|extension|shore power|long lead|socket/i, { lowVoltage: 5 }],
  [/compressor|ring main|air line|second tool/i, { lowSupply: 3 }],
  [/swapped|other hose|new hose|lent|borrowed/i, { wrongSelector: 3, wrongSetting: 1.5 }],
  [/smell|stink|odou?r/i, { spentGas: 3 }],
  [/hot|sparks?|burnt/i, { weakFan: 2, bearings: 2 }],
];

/** Weight of a complaint's words for a fault; 1 is neutral. */
export const wordsFactor =
  (words: string) =>
  ({ kind }: FaultPlace): number =>
    SAID.reduce((factor, [said, kinds]) => (said.test(words) ? factor * (kinds[kind] ?? 1) : factor), 1);

/** Faults that are harmless but for the complaint made of them. */
const COMPLAINED_OF: Partial<Record<Complaint, readonly FaultKind[]>> = {
  light: ['indicatorOut', 'wrongSelector'],
  labours: ['bearings'],
};

export const complainedOf = (complaint: Complaint, kind: FaultKind): boolean =>
  (COMPLAINED_OF[complaint] ?? []).includes(kind);

/** The measures that must be back in their band before the case closes, at the complaint's own place. Source: common practice, no published source. */
export const measuresOf = (complaint: Complaint, { hasLamp, hasBrush }: MachineTraits): readonly Operation[] => {
  const flow: Operation = { kind: 'flow', place: 'toolEnd' };
  switch (complaint) {
    case 'dust':
      return [{ kind: 'particles' }, flow];
    case 'smell':
      return [{ kind: 'smell' }, flow];
    // A light going out is a poor closing test: flow is measured too.
    case 'light':
      return hasLamp ? [flow, { kind: 'lamp' }] : [flow];
    case 'labours':
      return [flow, { kind: 'listen' }];
    case 'noSuction':
      return hasBrush ? [flow, { kind: 'settings' }] : [flow];
    case 'round':
      return [flow];
  }
};

/** Share of the sound machine's flow at which the flow counts as back: the band a loss is warned at, with the reading's own doubt. */
const BACK_SHARE = 1 - BASELINE_WARN_LOSS.value;

/** Words that say a measure is in its band. */
const IN_BAND: Partial<Record<Operation['kind'], readonly string[]>> = {
  particles: ['below', 'notShown'],
  smell: ['none'],
  lamp: ['out'],
  listen: ['normal', 'free'],
  settings: ['right'],
};

/** Whether what a measure gave is in its band. `soundSi` is what the sound machine gives. */
export const inBand = (operation: Operation, outcome: Outcome, soundSi: number): boolean =>
  outcome.kind === 'number'
    ? outcome.valueSi >= BACK_SHARE * soundSi
    : (IN_BAND[operation.kind] ?? []).includes(outcome.word);
