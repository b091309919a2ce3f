import { useState } from 'react';
import type { Problem } from '@/messages/failures';
import { setChoice } from '@/ui/cookies';
import { DayField } from '@/ui/day-field';
import { FieldProblems } from '@/ui/problems';
import { usePostOnce } from '@/ui/use-post-once';

interface OrderProps {
  readonly partId: number;
  readonly partName: string;
  readonly packs: number;
  readonly packSize: number;
  readonly arrivesOn: string;
  readonly orders: readonly { readonly id: number; readonly quantity: number; readonly arrivesOn: string }[];
  readonly by: string;
}

/** Orders of a part, and the arrival of an order. */
export const Order = (p: OrderProps) => {
  const [packs, setPacks] = useState(String(p.packs));
  const [day, setDay] = useState(p.arrivesOn);
  const [by, setBy] = useState(p.by);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const post = usePostOnce();
  const send = async (url: string, body: object) => {
    const initials = by.trim().toUpperCase();
    const posted = await post(url, { by: initials, ...body });
    if (!posted) return;
    setProblems(posted.ok ? [] : posted.problems);
    if (!posted.ok) return;
    setChoice('mw_by', initials);
    window.location.reload();
  };
  return (
    <div>
      <p className="caption">
        Order {p.partName}, packs of {p.packSize}
      </p>
      <div className="flex flex-wrap items-end gap-1">
        <label className="block w-16">
          <span className="caption">Packs</span>
          <input
            className="field"
            inputMode="numeric"
            value={packs}
            maxLength={3}
            onChange={(e) => setPacks(e.currentTarget.value)}
          />
        </label>
        <div className="w-40">
          <DayField label="Due on" value={day} onValue={setDay} />
        </div>
        <label className="block w-20">
          <span className="caption">Ordered by</span>
          <input
            className="field"
            value={by}
            maxLength={12}
            autoComplete="off"
            onChange={(e) => setBy(e.currentTarget.value)}
          />
        </label>
        <button
          type="button"
          className="choice font-semibold"
          onClick={() => void send('/api/stock/orders', { partId: p.partId, packs: Number(packs), arrivesOn: day })}
        >
          Ordered
        </button>
        {p.orders.map((o) => (
          <button
            key={o.id}
            type="button"
            className="choice font-semibold"
            onClick={() => void send('/api/stock/arrivals', { orderId: o.id })}
          >
            {o.quantity} arrived
          </button>
        ))}
      </div>
      <FieldProblems id={`order-${p.partId}`} problems={problems} />
    </div>
  );
};
