import type { Failure, FailureCode } from '@/core/failure/failure';
import { DOOR_TEXTS } from './failure-texts/door';
import { DUST_TEXTS } from './failure-texts/dust';
import type { Facts, Text } from './failure-texts/facts';
import { MEASURE_TEXTS } from './failure-texts/measure';
import { PATH_TEXTS } from './failure-texts/path';
import { PEOPLE_TEXTS } from './failure-texts/people';
import { REGISTER_TEXTS } from './failure-texts/registers';
import { QUANTITY_TEXTS } from './failure-texts/quantity';
import { RECORD_TEXTS } from './failure-texts/record';
import { UPGRADE_TEXTS } from './failure-texts/upgrade';
import { WORK_TEXTS } from './failure-texts/work';
import type { Problem } from './problem';

export type { Problem } from './problem';

const TEXTS: Record<FailureCode, (f: Facts) => Text> = {
  ...QUANTITY_TEXTS,
  ...MEASURE_TEXTS,
  ...PATH_TEXTS,
  ...UPGRADE_TEXTS,
  ...WORK_TEXTS,
  ...RECORD_TEXTS,
  ...DUST_TEXTS,
  ...DOOR_TEXTS,
  ...PEOPLE_TEXTS,
  ...REGISTER_TEXTS,
};

/** The sentence of a failure: the same on the form, from the endpoint and on the command line. */
export const problemOf = (f: Failure): Problem => {
  const field = f.path.split('.').at(-1) ?? '';
  const [title, sentence, hint] = TEXTS[f.code]({ field, ...f.facts });
  return { code: f.code, path: f.path, title, sentence, hint };
};

export const problemsOf = (failures: readonly Failure[]): readonly Problem[] => failures.map(problemOf);
