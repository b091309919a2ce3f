import { INSPECTION_WORDS } from '../constants/word-shares';
import type { Fault, MachineTraits } from './fault';
import {
  bagWords,
  cleanSideWords,
  gaugeWords,
  handWords,
  has,
  soundWords,
  lampWords,
  particleWords,
  purgeWords,
  settingWords,
  severityOf,
  weightWords,
} from './expected-words';
import { type Operation, operationKey } from './operation';
import { type Expected, yesNo } from './outcome';
import type { Interventions, FaultSimulator, Signature } from './signature';
import type { Hypothesis } from './hypotheses';

/** The machine a case is about, as the model knows it. */
export interface CaseSubject {
  readonly faultSimulator: FaultSimulator;
  readonly traits: MachineTraits;
  readonly hoseM: number | null;
  readonly nominalVolts: number;
  /** Measured against its own baselines; otherwise on typical figures, which are in doubt themselves. */
  readonly calibrated: boolean;
  /** What the machine itself read when sound, SI, by the key of the test: the model is brought to it. */
  readonly baselines: Readonly<Partial<Record<string, number>>>;
}

/** The model's doubt and the meter's together: today may sit several per cent off with nothing wrong. Moorwind defaults. */
const DOUBT = { flow: 0.05, sealed: 0.03, stageDp: 0.28, voltage: 0.015, supply: 0.05 } as const;
/** On typical figures a machine's own flow is known to about this much. */
const UNCALIBRATED = 0.2;
/** Below this share of the sound figure two readings are alike. */
const FLOOR = 0.02;
const FLOOR_DP_PA = 12;

type Measured = keyof typeof DOUBT;

const numberOf = (
  what: Measured,
  { mean, scale, subject }: { readonly mean: number; readonly scale: number; readonly subject: CaseSubject },
): Expected => {
  const own = what === 'voltage' || what === 'supply';
  const relative = Math.hypot(DOUBT[what], subject.calibrated || own ? 0 : UNCALIBRATED);
  return { kind: 'number', mean, relative, floor: what === 'stageDp' ? FLOOR_DP_PA : FLOOR * scale + 1e-12 };
};

/** A figure of the model, brought to what the machine itself read when it was sound. */
const brought = (
  op: Operation,
  [modelled, sound]: readonly [modelled: number, sound: number],
  subject: CaseSubject,
): { readonly mean: number; readonly scale: number } => {
  const scale = subject.baselines[operationKey(op)] ?? sound;
  return { mean: sound > 0 ? (modelled * scale) / sound : modelled, scale };
};

const flowOf = (s: Signature, place: 'toolEnd' | 'hoseEnd' | 'inlet', subject: CaseSubject): Expected =>
  numberOf('flow', {
    ...brought(
      { kind: 'flow', place },
      [s.air.flowM3s(place), subject.faultSimulator.sound.air.flowM3s(place)],
      subject,
    ),
    subject,
  });

const nominalSupply = (subject: CaseSubject): number => {
  const air = subject.faultSimulator.suspect.model.stages.find((x) => x.kind === 'fan')?.spec.air;
  return air?.form === 'fan' && air.curve.kind === 'pneumatic' ? air.curve.nominalSupplyPa : 0;
};

const sizeOfFirst = (s: Signature, kind: Fault['kind'], subject: CaseSubject): number => {
  const fault = s.faults.find((f) => f.kind === kind);
  return fault ? subject.faultSimulator.sizeOf(fault) : 1;
};

const firstMedium = ({ faultSimulator }: CaseSubject): number =>
  faultSimulator.suspect.model.stages.findIndex((x) => x.spec.air.form === 'medium');

/** The state of the machine in which a test is read: a part out, a new part in, the cover off. */
export const handlingOf = (op: Operation, interventions: Interventions, subject: CaseSubject): Interventions => {
  if (op.kind === 'takeOut')
    return interventions.out.includes(op.position)
      ? interventions
      : { ...interventions, out: [...interventions.out, op.position] };
  if (op.kind === 'swap')
    return { ...interventions, repairs: [...interventions.repairs, { kind: 'newPart', position: op.position }] };
  if (op.kind !== 'lampCoverOff') return interventions;
  const before = Array.from({ length: Math.max(0, firstMedium(subject)) }, (_, i) => i);
  return { ...interventions, out: [...new Set([...interventions.out, ...before])] };
};

const underNozzle = (s: Signature, subject: CaseSubject): Expected => {
  const w = INSPECTION_WORDS.underNozzle;
  const was = subject.faultSimulator.sound.air.flowM3s('toolEnd');
  const weak = was > 0 ? 1 - s.air.flowM3s('toolEnd') / was : 0;
  return yesNo(
    'dirtDropped',
    'clean',
    Math.min(
      w.most,
      w.without + w.byLoss * Math.max(0, weak - w.fromLoss) + w.byBlocked * severityOf(s.faults, ['blocked'], 0),
    ),
  );
};

const throughHose = (s: Signature, subject: CaseSubject): Expected => {
  const w = INSPECTION_WORDS.throughHose;
  const hose = subject.faultSimulator.suspect.model.stages.findIndex((x) => x.kind === 'hose' || x.kind === 'duct');
  return yesNo(
    'blocked',
    'clear',
    has(s.faults, 'blocked', hose) ? w.base + w.bySeverity * severityOf(s.faults, ['blocked'], hose) : w.without,
  );
};

const smoke = (s: Signature): Expected => {
  const w = INSPECTION_WORDS.smoke;
  const [leak, seat, hole] = [
    severityOf(s.faults, ['leakingSeal']),
    severityOf(s.faults, ['misseated']),
    severityOf(s.faults, ['hoseHoled']),
  ];
  return yesNo(
    'leak',
    'tight',
    Math.min(
      w.most,
      w.without + (leak > 0 ? w.seal + w.sealBySeverity * leak : 0) + (seat > 0 ? w.seat : 0) + (hole > 0 ? w.hole : 0),
    ),
  );
};

/** Seen while it was being repaired: what is there is nearly always recognised, and what is not there seldom is. */
const FOUND = { there: 0.93, not: 0.06 } as const;

const found = (op: Extract<Operation, { kind: 'found' }>, faults: Hypothesis['faults']): Expected =>
  yesNo('yes', 'no', faults.some((f) => f.kind === op.fault && f.position === op.position) ? FOUND.there : FOUND.not);

/** What a test reads on a machine as it stands. `bias` is how a hand takes it: 1 for as it is. */
export const expectedIn = (op: Operation, s: Signature, subject: CaseSubject, bias = 1): Expected => {
  const { sound, suspect } = subject.faultSimulator;
  switch (op.kind) {
    case 'flow':
      return flowOf(s, op.place, subject);
    case 'takeOut':
    case 'swap':
      return flowOf(s, 'toolEnd', subject);
    case 'hand': {
      const was = sound.air.flowM3s(op.place);
      return handWords(was > 0 ? (bias * s.air.flowM3s(op.place)) / was : 0);
    }
    case 'sealed':
      return numberOf('sealed', {
        ...brought(op, [s.air.sealedPa(op.place), sound.air.sealedPa(op.place)], subject),
        subject,
      });
    case 'stageDp':
      return numberOf('stageDp', {
        ...brought(op, [Math.max(0, s.air.dropPa(op.position)), sound.air.dropPa(op.position)], subject),
        subject,
      });
    case 'gauge':
      return gaugeWords(s, suspect.model, op.position);
    case 'purge':
      return purgeWords(s, suspect.model, op.position);
    case 'listen':
      return soundWords(s, sound);
    case 'settings':
      return settingWords(s.faults, subject.traits);
    case 'lookNozzle':
      return underNozzle(s, subject);
    case 'lookHose':
      return throughHose(s, subject);
    case 'lookBag':
      return bagWords(s.faults, op.position);
    case 'weigh':
      return weightWords(s.faults, op.position);
    case 'lamp':
    case 'lampCoverOff':
      return lampWords(s.faults, s.air.flowM3s('toolEnd'), subject);
    case 'disc':
      return yesNo(
        'good',
        'bad',
        has(s.faults, 'indicatorOut') || has(s.faults, 'wrongSelector')
          ? INSPECTION_WORDS.disc.goodWithFault
          : INSPECTION_WORDS.disc.goodWithout,
      );
    case 'cleanSide':
      return cleanSideWords(s.faults, op.position);
    case 'particles':
      return particleWords(s.faults, suspect.model);
    case 'smell':
      return yesNo(
        'smells',
        'none',
        has(s.faults, 'spentGas') ? INSPECTION_WORDS.smell.spent : INSPECTION_WORDS.smell.without,
      );
    case 'smoke':
      return smoke(s);
    case 'voltage':
      return numberOf('voltage', {
        mean: subject.nominalVolts * sizeOfFirst(s, 'lowVoltage', subject) ** 2,
        scale: subject.nominalVolts,
        subject,
      });
    case 'supply':
      return numberOf('supply', {
        mean: nominalSupply(subject) * sizeOfFirst(s, 'lowSupply', subject),
        scale: nominalSupply(subject),
        subject,
      });
    case 'found':
      return found(op, s.faults);
  }
};

/** What a test would give on a machine with these faults, after what was done to it. Source: the air-path model; looks are Moorwind defaults. */
export const expectedOf = (
  op: Operation,
  faults: Hypothesis['faults'],
  { interventions, subject }: { readonly interventions: Interventions; readonly subject: CaseSubject },
): Expected =>
  expectedIn(op, subject.faultSimulator.signature(faults, handlingOf(op, interventions, subject)), subject);
