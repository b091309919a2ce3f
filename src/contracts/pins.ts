import type { z } from 'zod';
import type { CaseEvent, Snapshot } from '@/core/diagnose/case-log';
import type { CaseSetup } from '@/core/diagnose/case-setup';
import type { Progress } from '@/core/diagnose/evaluate-case';
import type { Operation } from '@/core/diagnose/operation';
import type { Outcome } from '@/core/diagnose/outcome';
import type { Dust } from '@/core/dust/dust';
import type { DustStatement } from '@/core/dust/assess';
import type { Rule } from '@/core/interval/rules';
import type { PathSnapshot } from '@/core/machine/path-edit';
import type { Accuracy } from '@/core/measure/accuracy';
import type { MethodDetail } from '@/core/measure/detail';
import type { MachineModel } from '@/core/path/machine-path';
import type { StageSpec } from '@/core/path/stage-spec';
import type { PlanProblem } from '@/core/plan/problem';
import type { JobScope } from '@/core/procedure/choose';
import type { JobEvent } from '@/core/procedure/job-log';
import type { Procedure } from '@/core/procedure/step';
import type { TestUse } from '@/core/record/records';
import type * as Air from './air-path-messages';
import type * as Dusts from './dust';
import type * as Find from './find';
import type * as Jobs from './job';
import type * as Columns from './json-columns';
import type * as Edit from './machine-edit';
import type * as Plans from './plan';
import type * as Specs from './stage-spec';

/**
 * Compile-time checks that a schema and the core agree, in both directions: a name that only one side has does not
 * compile, so stored records still parse.
 */

type Frozen<T> =
  T extends ReadonlySet<infer Item>
    ? ReadonlySet<Item>
    : T extends object
      ? { readonly [K in keyof T]: Frozen<T[K]> }
      : T;

/** `true` where each is assignable to the other; else it names the side that has more. */
type Same<Read, Core> = [Read] extends [Core]
  ? [Core] extends [Frozen<Read>]
    ? true
    : 'the core has more than the schema reads'
  : 'the schema reads more than the core knows';

type Pin<T extends true> = T;
type Reads<S extends z.ZodType> = z.output<S>;

export type Pins = [
  Pin<Same<Reads<typeof Jobs.ProcedureJson>, Procedure>>,
  Pin<Same<Reads<typeof Jobs.JobEventJson>, JobEvent>>,
  Pin<Same<Reads<typeof Jobs.JobJson>, JobScope>>,
  Pin<Same<Reads<typeof Find.CaseEventJson>, CaseEvent>>,
  Pin<Same<Reads<typeof Find.SnapshotJson>, Snapshot>>,
  Pin<Same<Reads<typeof Find.OperationJson>, Operation>>,
  Pin<Same<Reads<typeof Find.OutcomeJson>, Outcome>>,
  Pin<Same<Reads<typeof Find.CaseSetupJson>, CaseSetup>>,
  Pin<Same<Reads<typeof Find.ProgressJson>, Progress>>,
  Pin<Same<Reads<typeof Air.MachineModelJson>, MachineModel>>,
  Pin<Same<Reads<typeof Columns.AccuracyJson>, Accuracy>>,
  Pin<Same<Reads<typeof Columns.RuleJson>, Rule>>,
  Pin<Same<Reads<typeof Columns.DetailJson>, MethodDetail>>,
  Pin<Same<Reads<typeof Columns.UseJson>, TestUse>>,
  Pin<Same<Reads<typeof Specs.StageSpecJson>, StageSpec>>,
  Pin<Same<Reads<typeof Edit.PathSnapshotJson>, PathSnapshot>>,
  Pin<Same<Reads<typeof Dusts.DustShape>, Dust>>,
  Pin<Same<Reads<typeof Dusts.DustStatementJson>, DustStatement>>,
  Pin<Same<Reads<typeof Plans.PlanProblemJson>, PlanProblem>>,
];
