import { useState } from 'react';
import type { OpenJobReply } from '@/contracts/job';
import type { Machine } from '@/core/machine/machine';
import { Integrity } from './Integrity';

interface OwedProps {
  readonly machine: Machine;
  readonly integrity: OpenJobReply['integrity'];
  readonly by: string;
}

/** The looks at filter seats that are owed before the next job. */
export const OwedLooks = (p: OwedProps) => {
  const [by, setBy] = useState(p.by);
  return (
    <>
      {p.integrity.map((standing) => (
        <div key={standing.stageId} className="panel mt-3 max-w-3xl p-4">
          <label className="float-right block w-20">
            <span className="caption">Initials</span>
            <input
              className="field"
              value={by}
              maxLength={12}
              autoComplete="off"
              onChange={(e) => setBy(e.currentTarget.value)}
            />
          </label>
          <Integrity machine={p.machine} standing={standing} by={by} onDone={() => window.location.reload()} />
        </div>
      ))}
    </>
  );
};
