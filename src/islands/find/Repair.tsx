import { ShieldAlert, Wrench } from 'lucide-react';
import type { CaseAction } from '@/contracts/find';
import type { SwapStep } from '@/core/diagnose/swap-steps';
import { sayCause } from '@/messages/find';
import { sayHowRepair, sayRepair } from '@/messages/repairs';
import type { RepairKind } from '@/core/diagnose/repair';
import { offersOf } from '@/core/procedure/choose';
import { sayCaution } from '@/messages/words';
import { FieldProblems } from '@/ui/problems';
import type { BenchPart } from './parts';
import { sayProbability } from '@/messages/format';

type Advised = Extract<BenchPart['findings']['advice'], { kind: 'repair' }>;

/** The steps of this change as a card: on dust that wants them a trial is opened and closed as a change is. */
const StepsLink = ({
  machine,
  position,
  hazard,
}: {
  readonly machine: BenchPart['machine'];
  readonly position: number;
  readonly hazard: string;
}) => {
  const stage = machine.stages[position];
  const school = stage ? Object.keys(offersOf(machine, stage))[0] : undefined;
  if (school === undefined) return null;
  return (
    <p className="mt-1 text-sm">
      <a
        className="text-primary font-semibold underline"
        href={`/m/${encodeURIComponent(machine.tag)}/card?kind=change&hazard=${hazard}&stage=${position}&school=${school}`}
      >
        Steps for opening and closing it, as a card
      </a>
      . Whatever carries its class is proven anew afterwards.
    </p>
  );
};

const Caution = ({ record }: Pick<BenchPart, 'record'>) => (
  <p className="tone-watch mt-1 flex items-start gap-2 text-sm font-semibold">
    <ShieldAlert size={18} aria-hidden="true" className="mt-0.5 shrink-0" />
    <span>{sayCaution(record.hazard, 'cutOff')}</span>
  </p>
);

/** Repairs that open nothing dust lies in. */
const STAYS_CLOSED: ReadonlySet<RepairKind> = new Set<RepairKind>(['supply', 'settings', 'indicator']);

/** From this chance on it is put right; below it is tried. */
const LIKELY_TO_HELP = 0.65;

/** The repair that is due: the change page for a part, then whether it was so, then the retest. */
export const RepairCard = ({ advice, ...p }: BenchPart & { readonly advice: Advised }) => {
  const { machine, setup, changes, ui, dispatch, doIt } = p;
  const { stages } = setup.model;
  const { repair, fault, use } = advice;
  const stage = machine.stages[repair.position];
  const change = changes.find((c) => c.stageId === stage?.id) ?? null;
  const isPart = repair.kind === 'newPart';
  const done = (found: 'yes' | 'no' | 'unseen') =>
    doIt({
      kind: 'repair',
      repair,
      fault: { kind: fault.kind, position: fault.position },
      found,
      changeId: change?.id ?? null,
    });
  return (
    <section aria-labelledby="repair" className="panel p-3" style={{ borderLeft: '6px solid var(--color-primary)' }}>
      <p className="caption text-primary flex items-center gap-1 font-bold">
        <Wrench size={16} aria-hidden="true" /> {use >= LIKELY_TO_HELP ? 'Put it right' : 'Try this next'}
      </p>
      <h2 id="repair" className="text-xl leading-tight font-bold sm:text-2xl">
        {sayRepair(repair, stages)}
      </h2>
      <p className="mt-0.5">
        {sayCause(fault, stages)}: {sayProbability(fault.probability)}.{' '}
        {use - fault.probability > 0.02 && `With what else it cures, ${sayProbability(use)} that it helps. `}
        Another test would cost more than doing this for nothing.
      </p>
      <p className="soft mt-1 text-sm">{sayHowRepair(repair, stages)}</p>
      {!STAYS_CLOSED.has(repair.kind) && <Caution record={p.record} />}
      {isPart && stage && (
        <p className="mt-2">
          {change ? (
            <span className="tone-good font-bold">The change of the {stage.name} is on record.</span>
          ) : (
            <span className="flex flex-wrap gap-1">
              <a
                className="go inline-flex items-center"
                href={`/m/${encodeURIComponent(machine.tag)}/change?stage=${stage.id}&case=1`}
              >
                Change the {stage.name}
              </a>
              <a
                className="choice inline-flex items-center font-semibold"
                href={`/m/${encodeURIComponent(machine.tag)}/job?stage=${stage.id}`}
              >
                Guide me through it
              </a>
            </span>
          )}
        </p>
      )}
      <p className="caption mt-3">Done. What did you find?</p>
      <div className="grid gap-1 sm:grid-cols-3">
        <button type="button" className="choice min-h-14 font-bold" disabled={ui.sending} onClick={() => done('yes')}>
          Fault confirmed
        </button>
        <button type="button" className="choice min-h-14 font-bold" disabled={ui.sending} onClick={() => done('no')}>
          Part OK
        </button>
        <button
          type="button"
          className="choice min-h-14 font-bold"
          disabled={ui.sending}
          onClick={() => done('unseen')}
        >
          Could not tell
        </button>
      </div>
      <p className="soft mt-1 text-sm">Then repeat the complaint reading at the same place.</p>
      <button type="button" className="choice mt-2" onClick={() => dispatch({ type: 'askOn' })}>
        Keep testing
      </button>
      <FieldProblems id="repair-problems" problems={ui.problems} />
    </section>
  );
};

/** Its essential filter is not in: nothing runs before it is. */
export const FitFirstCard = ({ position, ...p }: BenchPart & { readonly position: number }) => {
  const { machine } = p;
  const stage = machine.stages[position];
  const base = `/m/${encodeURIComponent(machine.tag)}`;
  return (
    <section aria-labelledby="fit-first" className="panel p-3" style={{ borderLeft: '6px solid var(--color-error)' }}>
      <p className="caption tone-stop font-bold">Do not run it</p>
      <h2 id="fit-first" className="text-xl leading-tight font-bold sm:text-2xl">
        Fit the {stage?.name ?? 'filter'} first
      </h2>
      <p className="mt-0.5">
        Nothing keeps the dust out of the room. Do not run this machine until the {stage?.name ?? 'filter'} is in and
        its change is on record.
      </p>
      <Caution record={p.record} />
      {stage && (
        <p className="mt-2 flex flex-wrap gap-1">
          <a className="go inline-flex items-center" href={`${base}/job?stage=${stage.id}`}>
            Guide me through it
          </a>
          <a className="choice inline-flex items-center font-semibold" href={`${base}/change?stage=${stage.id}&case=1`}>
            Already changed: record it
          </a>
        </p>
      )}
    </section>
  );
};

type Moving = Exclude<SwapStep, { kind: 'watch' | 'none' }>;

const swapWords = (step: Moving, name: (position: number) => string): string => {
  switch (step.kind) {
    case 'fit':
      return `Fit a new ${name(step.position)} on trial. Bag and tag the old one and keep it until the new one is proven.`;
    case 'keep':
      return `It was ${step.positions.map((i) => `the ${name(i)}`).join(' and ')}. Leave the new one in; the old one goes to waste.`;
    case 'putBack':
      return `Not the ${name(step.position)} alone. Put the ORIGINAL ${name(step.position)} back and return the new one to stock. Then fit a new ${name(step.next)}.`;
    case 'fitToo':
      return `Not this one alone either: try both. Fit the new ${name(step.position)} too.`;
    case 'putAllBack':
      return 'Neither. Put every original back and return the new parts to stock. Check hose, leaks and fan next.';
  }
};

const swapActions = (
  step: Moving,
  name: (position: number) => string,
): readonly { readonly label: string; readonly action: CaseAction }[] => {
  switch (step.kind) {
    case 'fit':
    case 'fitToo':
      return [
        {
          label: `New ${name(step.position)} is in: take 1 from stock`,
          action: { kind: 'trialIn', position: step.position },
        },
      ];
    case 'keep':
      return step.positions.map((position) => ({
        label: `Keep the new ${name(position)}`,
        action: { kind: 'trialKeep', position },
      }));
    case 'putBack':
      return [
        {
          label: `Original ${name(step.position)} is back: return 1 to stock`,
          action: { kind: 'trialBack', position: step.position },
        },
      ];
    case 'putAllBack':
      return step.positions.map((position) => ({
        label: `Original ${name(position)} is back: return 1 to stock`,
        action: { kind: 'trialBack', position },
      }));
  }
};

/** The next step of the swap school, with the parts it moves. */
export const SwapCard = ({ step, ...p }: BenchPart & { readonly step: SwapStep }) => {
  const { setup, ui, doIt, machine } = p;
  const { stages } = setup.model;
  const name = (i: number) => stages[i]?.name ?? 'stage';
  const spare = (i: number) => machine.stages[i]?.part ?? null;
  const button = (label: string, action: CaseAction) => (
    <button key={label} type="button" className="go" disabled={ui.sending} onClick={() => doIt(action)}>
      {label}
    </button>
  );
  if (step.kind === 'watch' || step.kind === 'none') return null;
  const lacking = step.kind === 'fit' && !spare(step.position);
  return (
    <section aria-labelledby="swap" className="panel p-3" style={{ borderLeft: '6px solid var(--color-primary)' }}>
      <p className="caption text-primary font-bold">Swap in new</p>
      <h2 id="swap" className="text-lg leading-tight font-bold">
        {swapWords(step, name)}
      </h2>
      {step.kind !== 'keep' && <Caution record={p.record} />}
      {step.kind !== 'keep' && p.record.hazard !== 'plain' && (
        <StepsLink
          machine={machine}
          position={'position' in step ? step.position : (step.positions[0] ?? 0)}
          hazard={p.record.hazard}
        />
      )}
      {lacking ? (
        <p className="tone-watch mt-1 font-semibold">
          No spare is kept for it: choose another order of tests, or another test.
        </p>
      ) : (
        <div className="mt-2 flex flex-wrap gap-1">{swapActions(step, name).map((d) => button(d.label, d.action))}</div>
      )}
      <div className="mt-2 flex flex-wrap gap-1">
        <button
          type="button"
          className="choice"
          aria-expanded={ui.showOthers}
          onClick={() => p.dispatch({ type: 'others', show: !ui.showOthers })}
        >
          Choose another
        </button>
        {ui.picked && (
          <button type="button" className="choice" onClick={() => p.dispatch({ type: 'pick', operation: null })}>
            Back to the suggested test
          </button>
        )}
      </div>
      <FieldProblems id="swap-problems" problems={ui.problems} />
    </section>
  );
};
