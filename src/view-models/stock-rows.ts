import { sayHeld } from '@/messages/job';
import { sayOrder, sayWhyOrder } from '@/messages/stock';
import type { StockLine } from '@/server/services/stock/stock-desk';
import { type RegisterCell, type RegisterColumn, registerRow, type RegisterRow } from '@/contracts/register-row';
import { money } from '@/messages/format';

export const STOCK_COLUMNS: readonly RegisterColumn[] = [
  { id: 'name', label: 'Part', numeric: false },
  { id: 'onHand', label: 'On hand', numeric: true },
  { id: 'order', label: 'To do', numeric: false },
  { id: 'bin', label: 'Bin', numeric: false },
  { id: 'machines', label: 'Machines', numeric: false, tight: true },
  { id: 'price', label: 'Price', numeric: true },
];

const onHandCell = ({ part }: StockLine): RegisterCell => ({
  text: String(part.onHand),
  sort: part.onHand,
  ...(part.retired
    ? {}
    : part.onHand < 0
      ? { tone: 'stop', note: 'count it' }
      : part.onHand === 0
        ? { tone: 'stop' }
        : {}),
});

/** The one thing a part needs next, and what else is known of it in small print. */
const todoCell = ({ part, reorder, orders, planned, held }: StockLine): RegisterCell => {
  const facts = [
    ...(reorder.packs > 0 ? [sayWhyOrder(reorder, part.leadDays)] : []),
    ...orders.map((o) => `${o.quantity} on order, due ${o.arrivesOn}`),
    ...(planned > 0 ? [`${planned} reserved for the next ${part.leadDays} days`] : []),
    ...held.map((h) => sayHeld(h)),
    ...(reorder.spoils > 0 ? [`${reorder.spoils} will pass their shelf life unused`] : []),
  ];
  const note = facts.join('; ');
  const rest = note === '' ? {} : { note };
  return reorder.packs > 0
    ? { text: sayOrder(reorder), tone: 'stop', sort: 0, ...rest }
    : { text: part.retired ? 'retired' : 'enough', sort: 1, ...rest };
};

export const stockRow = (line: StockLine, currency: string): RegisterRow => {
  const { part, usedBy } = line;
  return registerRow(
    `/stock/parts/${part.id}`,
    [
      { text: part.name, note: part.code },
      onHandCell(line),
      todoCell(line),
      { text: part.bin },
      { text: usedBy.join(', '), note: usedBy.length === 0 ? 'none' : '' },
      { text: part.price === 0 ? '' : money(part.price, currency), sort: part.price },
    ],
    { gone: part.retired, also: [part.supplier, part.medium, part.rating].join(' ') },
  );
};
