import type { FactValue } from '@/core/failure/failure';
import { type QuantityKind, siUnit } from '@/core/units';
import { QUANTITY_WORDS } from '../words';

/** What a failure knows besides its code. */
export type Facts = Readonly<Record<string, FactValue>>;
/** Title, sentence, and what to do. */
export type Text = readonly [title: string, sentence: string, hint: string];

export const quantity = (fact: FactValue | undefined): string => QUANTITY_WORDS[String(fact)] ?? 'quantity';
export const whole = (fact: FactValue | undefined): string => String(Math.round(Number(fact)));
export const text = (fact: FactValue | undefined): string => String(fact ?? '');
export const inWords = (f: Facts, key: string): string => {
  const value = Number(f[key]);
  return f['kind'] === 'length'
    ? `${Number((value * 1000).toPrecision(4))} mm`
    : `${Number(value.toPrecision(4))} ${siUnit(f['kind'] as QuantityKind)}`;
};

export const percent = (fact: FactValue | undefined): string => `${Number((100 * Number(fact)).toPrecision(3))} %`;
export const litres = (fact: FactValue | undefined): string => `${Number((1000 * Number(fact)).toPrecision(3))} L/s`;
