import type { OwnTool } from '@/core/for-work/own-tool';
import { fromSi, show, type UnitSystem, toDigits } from '@/core/units';
import { type RegisterColumn, registerRow, type RegisterRow } from '@/contracts/register-row';
import { hoseSize, TOOL_WORDS } from '@/messages/work';

export const TOOL_COLUMNS: readonly RegisterColumn[] = [
  { id: 'name', label: 'Tool', numeric: false },
  { id: 'like', label: 'Kind', numeric: false },
  { id: 'size', label: 'Size', numeric: true },
  { id: 'air', label: 'Air its maker asks for', numeric: true },
  { id: 'amps', label: 'Draws', numeric: true },
];

const UNKNOWN = { text: '–', sort: -1 };

export const toolRow = (t: OwnTool, units: UnitSystem): RegisterRow =>
  registerRow(
    `/tools/${t.key}`,
    [
      { text: t.name, note: t.retired ? 'no longer used' : '' },
      { text: TOOL_WORDS[t.like] },
      t.sizeM === null ? UNKNOWN : { text: hoseSize(t.sizeM, units), sort: t.sizeM },
      t.airM3s === null ? UNKNOWN : { text: show('flow', t.airM3s, units), sort: t.airM3s },
      t.amps === null ? UNKNOWN : { text: `${toDigits(fromSi('current', t.amps, 'A'), 3)} A`, sort: t.amps },
    ],
    { gone: t.retired },
  );
