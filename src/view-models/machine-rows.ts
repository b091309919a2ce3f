import { type RegisterColumn, registerRow, type RegisterRow } from '@/contracts/register-row';
import type { BoardTag } from './board-tags';

export const MACHINE_COLUMNS: readonly RegisterColumn[] = [
  { id: 'tag', label: 'Tag', numeric: false, tight: true },
  { id: 'name', label: 'Name', numeric: false },
  { id: 'need', label: 'Needs next', numeric: false },
  { id: 'life', label: 'Life left', numeric: true },
  { id: 'place', label: 'Place', numeric: false },
];

const RANK = { stop: 0, watch: 1, open: 2, good: 3 } as const;
const UNKNOWN_LIFE = 2;

/** A machine of the board as a row; sorted by need, the most urgent come first. */
export const machineRow = (t: BoardTag): RegisterRow =>
  registerRow(`/m/${encodeURIComponent(t.tag)}`, [
    { text: t.tag },
    { text: t.name, note: t.kindText },
    { text: t.need, tone: t.tone, sort: `${RANK[t.tone]}${t.need}`, ...(t.flag === null ? {} : { note: t.flag }) },
    t.remaining === null
      ? { text: '', sort: UNKNOWN_LIFE }
      : { text: `${Math.max(0, Math.round(100 * t.remaining))} %`, sort: t.remaining },
    { text: t.place },
  ]);
