import { useEffect, useState } from 'react';
import type { PathView } from '@/core/calibrate/path-view';
import { withHose } from '@/core/calibrate/load';
import { AS_NEW } from '@/core/path/as-new';
import { fromSi, parseQuantity, show, showPercent, type UnitSystem, significant } from '@/core/units';
import { problemsOf } from '@/messages/failures';
import { FieldProblems } from '@/ui/problems';

interface HoseProps {
  readonly view: PathView;
  readonly units: UnitSystem;
}

const LONGEST_M = 60;
const WIDEST_M = 0.5;

/** A quantity typed with or without its unit. */
const read = (text: string, unit: string, most: number) => {
  const parsed = parseQuantity(text, 'length', unit);
  if (!parsed.ok) return { value: null, problems: problemsOf(parsed.failures) };
  const { valueSi } = parsed.value;
  const fits = valueSi >= 0.005 && valueSi <= most;
  return fits
    ? { value: valueSi, problems: [] }
    : {
        value: null,
        problems: problemsOf([
          {
            code: 'quantity.out-of-range',
            path: '',
            facts: { kind: 'length', value: valueSi, low: 0.005, high: most },
          },
        ]),
      };
};

const Answer = ({ view, units, hose }: HoseProps & { readonly hose: { boreM: number; lengthM: number } }) => {
  const { model, parameters } = view;
  const solved = withHose({ model, parameters, state: AS_NEW }, hose);
  if (!solved.ok || !view.asNew)
    return <FieldProblems id="hose-answer" problems={problemsOf(solved.ok ? [] : solved.failures)} />;
  const [was, would] = [view.asNew.flowPerToolM3s, solved.value.flowPerToolM3s];
  const change = would / was - 1;
  const velocity = solved.value.hoseVelocityMs;
  return (
    <div role="status">
      <p className="text-xl leading-snug font-bold">
        Clean, it would move {show('flow', would, units)} at the tool:{' '}
        {Math.abs(change) < 0.005 ? 'the same' : `${showPercent(change)} ${change < 0 ? 'less' : 'more'}`} than with its
        own.
      </p>
      {velocity !== null && (
        <p className={view.lamp && velocity < view.lamp.belowMs ? 'tone-stop font-bold' : 'soft'}>
          {show('velocity', velocity, units)} in it
          {view.lamp && velocity < view.lamp.belowMs
            ? `, below the ${show('velocity', view.lamp.belowMs, units)} of its class even when clean`
            : ''}
          . Set the hose selector to this bore, and take a new baseline with this hose.
        </p>
      )}
    </div>
  );
};

/** "What would the baseline be with a 10 m hose?" */
export const HoseQuestion = ({ view, units }: HoseProps) => {
  useEffect(() => {
    document.documentElement.dataset['hose'] = 'ready';
  }, []);
  const [length, setLength] = useState(units === 'us' ? '33 ft' : '10 m');
  const [bore, setBore] = useState(
    view.hoseM === null
      ? ''
      : `${significant(fromSi('length', view.hoseM, units === 'us' ? 'in' : 'mm'), 3)} ${units === 'us' ? 'in' : 'mm'}`,
  );
  const [lengthRead, boreRead] = [
    read(length, units === 'us' ? 'ft' : 'm', LONGEST_M),
    read(bore, units === 'us' ? 'in' : 'mm', WIDEST_M),
  ];
  const field = (label: string, value: string, set: (v: string) => void) => (
    <label className="block">
      <span className="caption">{label}</span>
      <input className="field" value={value} maxLength={20} onChange={(e) => set(e.currentTarget.value)} />
    </label>
  );
  return (
    <div className="space-y-2">
      <div className="grid max-w-md grid-cols-2 gap-3">
        {field('Length', length, setLength)}
        {field('Bore', bore, setBore)}
      </div>
      <FieldProblems id="hose-problems" problems={[...lengthRead.problems, ...boreRead.problems]} />
      {lengthRead.value !== null && boreRead.value !== null && (
        <Answer view={view} units={units} hose={{ boreM: boreRead.value, lengthM: lengthRead.value }} />
      )}
    </div>
  );
};
