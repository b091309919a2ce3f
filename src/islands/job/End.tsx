import { useState } from 'react';
import { entails } from '@/core/deed/entails';
import { QuantityField } from '@/ui/quantity-field';
import { type PlayerProps } from './player-props';

/** After the last step: the remaining proofs, and the end. */
export const End = ({ p }: { readonly p: PlayerProps }) => {
  const [wasteKg, setWasteKg] = useState<number | null>(null);
  const [bad, setBad] = useState(false);
  const { state } = p;
  const { clears } = entails(p.machine, { kind: 'finished', procedure: p.record.procedure, state });
  const wasted = state.moves.some((m) => m.move === 'disposeOld');
  return (
    <section className="panel mt-2 p-4" aria-labelledby="step" style={{ borderLeft: '6px solid var(--color-success)' }}>
      <h2 id="step" className="text-2xl font-bold">
        All steps are done
      </h2>
      <p>
        {state.leftOut.size === 0
          ? 'Every check was answered yes.'
          : `${state.leftOut.size} left out: ${[...state.leftOut.values()].join('; ')}.`}
      </p>
      {p.record.procedure.id === 'decontamination' && (
        <p className={`font-bold ${clears ? 'tone-good' : 'tone-stop'}`}>
          {clears
            ? 'Nothing was left out: this clears the machine of its dust.'
            : 'Something was left out: this does not clear the machine. It is opened as before.'}
        </p>
      )}
      <div className="mt-3 flex flex-wrap items-end gap-2">
        {wasted && (
          <div className="w-40">
            <QuantityField
              id="waste"
              label="Waste, if weighed"
              kind="mass"
              valueSi={wasteKg}
              units={p.units}
              low={0.001}
              high={500}
              mayBeEmpty
              onValue={setWasteKg}
              onBad={(_, isBad) => setBad(isBad)}
            />
          </div>
        )}
        <button
          type="button"
          className="go min-h-16 flex-1 text-xl"
          disabled={p.sending || bad}
          onClick={() => p.act({ kind: 'finished', wasteKg })}
        >
          Finish, and see the report
        </button>
      </div>
    </section>
  );
};
