import { toDecimals } from '@/core/units';
import Papa from 'papaparse';
import { addDays } from '@/core/calendar/calendar-date';
import { plainCell as text } from '../house/csv';
import { loadStockDesk } from './stock-desk';
import type { Context } from '../yard/user-action';

/** What to order today, as CSV: code, name, packs, pieces, why. */
export const orderList = async (context: Context): Promise<string> => {
  const { lines, yard } = await loadStockDesk(context);
  const rows = lines
    .filter((l) => l.reorder.packs > 0)
    .map(({ part, reorder, orders, usedBy }) => ({
      code: text(part.code),
      name: text(part.name),
      packs: reorder.packs,
      pack_size: part.packSize,
      pieces: reorder.packs * part.packSize,
      price_per_piece: part.price,
      on_hand: part.onHand,
      on_order: orders.reduce((sum, o) => sum + o.quantity, 0),
      reorder_point: Math.ceil(reorder.point.point),
      per_month: toDecimals(reorder.perDay * 30, 2),
      lead_days: part.leadDays,
      here_by: addDays(yard.today, part.leadDays),
      for_machines: text(usedBy.join(' ')),
    }));
  return Papa.unparse({
    fields: [
      'code',
      'name',
      'packs',
      'pack_size',
      'pieces',
      'price_per_piece',
      'on_hand',
      'on_order',
      'reorder_point',
      'per_month',
      'lead_days',
      'here_by',
      'for_machines',
    ],
    data: rows,
  });
};
