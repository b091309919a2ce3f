import { useState } from 'react';
import type { OpenJobReply } from '@/contracts/job';
import type { Machine } from '@/core/machine/machine';
import { InitialsField } from '@/ui/text-fields';
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
          <div className="float-right">
            <InitialsField value={by} onValue={setBy} />
          </div>
          <Integrity machine={p.machine} standing={standing} by={by} onDone={() => window.location.reload()} />
        </div>
      ))}
    </>
  );
};
