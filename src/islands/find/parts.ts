import type { Dispatch } from 'react';
import type { CaseAction, OpenCaseReply } from '@/contracts/find';
import type { CaseRecord, CaseState } from '@/core/diagnose/case-log';
import type { CaseSetup } from '@/core/diagnose/case-setup';
import type { Machine } from '@/core/machine/machine';
import type { UnitSystem } from '@/core/units';
import type { FindAction, FindState } from './state';
import type { Findings } from './use-findings';

/** What every part of the case's bench is given. */
export interface BenchPart {
  readonly machine: Machine;
  readonly setup: CaseSetup;
  readonly record: CaseRecord;
  readonly state: CaseState;
  readonly changes: OpenCaseReply['changes'];
  readonly findings: Findings;
  readonly units: UnitSystem;
  readonly ui: FindState;
  readonly dispatch: Dispatch<FindAction>;
  readonly doIt: (action: CaseAction) => void;
  /** How often each root cause was the answer before, by "kind position". */
  readonly before: Readonly<Record<string, number>>;
}

export type PresentedTest = Extract<Findings['advice'], { kind: 'test' }>['test'];
