import type { FactValue } from '@/core/failure/failure';
import { type QuantityKind, siUnit, toDigits } from '@/core/units';
import { QUANTITY_WORDS } from '../words';

/** Facts of a failure besides its code. */
export type Facts = Readonly<Record<string, FactValue>>;
/** Title, sentence, and what to do. */
export type Text = readonly [title: string, sentence: string, hint: string];

export const quantity = (fact: FactValue | undefined): string => QUANTITY_WORDS[String(fact)] ?? 'quantity';
export const whole = (fact: FactValue | undefined): string => String(Math.round(Number(fact)));
export const text = (fact: FactValue | undefined): string => String(fact ?? '');
export const inWords = (f: Facts, key: string): string => {
  const value = Number(f[key]);
  return f['kind'] === 'length'
    ? `${toDigits(value * 1000, 4)} mm`
    : `${toDigits(value, 4)} ${siUnit(f['kind'] as QuantityKind)}`;
};

export const percent = (fact: FactValue | undefined): string => `${toDigits(100 * Number(fact), 3)} %`;
export const litres = (fact: FactValue | undefined): string => `${toDigits(1000 * Number(fact), 3)} L/s`;

/** Names of form fields, by the last part of their path. */
const FIELD_NAMES: Readonly<Record<string, string>> = {
  by: 'Initials',
  performedAt: 'When',
  correctionReason: 'The reason for the correction',
  because: 'The reason',
  note: 'The note',
  name: 'The name',
  place: 'The place',
  maker: 'The maker',
  text: 'Collected dust',
  day: 'The day',
  from: 'The first day',
  to: 'The last day',
  why: 'The reason',
  hours: 'Hours run',
  dust: 'The dust',
  share: 'How full',
  reason: 'The reason for the change',
  stageId: 'The stage',
  partId: 'The part',
  quantity: 'The number of pieces',
  counted: 'The count',
  packs: 'The number of packs',
  arrivesOn: 'The due date',
  tag: 'The tag',
  words: 'The complaint',
  rootCause: 'The root cause',
  followUp: 'Prevention',
  configuration: 'The configuration',
  profileFactor: 'The profile factor',
  paper: 'The number of the paper',
  contractor: 'The contractor',
  examiner: 'The examiner',
  found: 'Finding',
  tester: 'The tester',
  method: 'The method',
  certificate: 'The certificate',
  wasteKg: 'The weight of the waste',
  school: 'The way it is done',
  how: 'How it was contained',
};

/** The field a failure is about, as the form calls it. */
export const fieldOf = (f: Facts): string => {
  const name = text(f['field']);
  return Object.hasOwn(FIELD_NAMES, name) ? (FIELD_NAMES[name] ?? 'This field') : 'This field';
};
