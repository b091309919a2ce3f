import { type ChangeReason, type ChangeRecord } from '@/core/record/records';
import type { Problem } from '@/messages/failures';
import { toLocalField } from '@/ui/local-moment';

export interface ChangeState {
  readonly clientId: string;
  readonly stageId: number | null;
  readonly reason: ChangeReason | null;
  /** Whether a new part is taken from stock; otherwise the old one went back, cleaned. */
  readonly fromStock: boolean;
  readonly quantity: number;
  readonly beforeTestId: number | null;
  readonly by: string;
  readonly note: string;
  /** datetime-local text; '' is now. */
  readonly when: string;
  readonly correctionReason: string;
  /** For an unguided change: who did it, and the containment. */
  readonly doneBy: string;
  readonly doneHow: string;
  readonly sending: boolean;
  readonly problems: readonly Problem[];
}

export type ChangeAction =
  | { readonly type: 'stage'; readonly id: number }
  | { readonly type: 'reason'; readonly reason: ChangeReason }
  | { readonly type: 'fromStock'; readonly value: boolean }
  | { readonly type: 'quantity'; readonly by: 1 | -1 }
  | { readonly type: 'before'; readonly id: number | null }
  | {
      readonly type: 'text';
      readonly field: 'by' | 'note' | 'when' | 'correctionReason' | 'doneBy' | 'doneHow';
      readonly value: string;
    }
  | { readonly type: 'sending' }
  | { readonly type: 'refused'; readonly problems: readonly Problem[] };

const MOST = 20;

const clear = (state: ChangeState, path: string) => state.problems.filter((p) => p.path !== path);

const PATH_OF = {
  by: 'by',
  note: 'note',
  when: 'performedAt',
  correctionReason: 'correctionReason',
  doneBy: 'how',
  doneHow: 'how',
} as const;

/** The one way the change sheet changes. */
export const changeReducer = (state: ChangeState, action: ChangeAction): ChangeState => {
  switch (action.type) {
    case 'stage':
      return { ...state, stageId: action.id, fromStock: true, problems: clear(state, 'stageId') };
    case 'reason':
      return { ...state, reason: action.reason, problems: clear(state, 'reason') };
    case 'fromStock':
      return { ...state, fromStock: action.value, problems: clear(state, 'partId') };
    case 'quantity':
      return { ...state, quantity: Math.min(MOST, Math.max(1, state.quantity + action.by)) };
    case 'before':
      return { ...state, beforeTestId: action.id };
    case 'text':
      return { ...state, [action.field]: action.value, problems: clear(state, PATH_OF[action.field]) };
    case 'sending':
      return { ...state, sending: true, problems: [] };
    case 'refused':
      return { ...state, sending: false, problems: action.problems };
  }
};

interface Start {
  readonly clientId: string;
  readonly by: string;
  readonly stageId: number | null;
  readonly beforeTestId: number | null;
}

export const startChange = ({ clientId, by, stageId, beforeTestId }: Start): ChangeState => ({
  clientId,
  stageId,
  reason: null,
  fromStock: true,
  quantity: 1,
  beforeTestId,
  by,
  note: '',
  when: '',
  correctionReason: '',
  doneBy: by,
  doneHow: '',
  sending: false,
  problems: [],
});

export const changeOfRecord = (record: ChangeRecord, clientId: string): ChangeState => ({
  ...startChange({ clientId, by: record.by, stageId: record.stageId, beforeTestId: record.beforeTestId }),
  reason: record.reason,
  fromStock: record.partId !== null,
  quantity: Math.max(1, record.quantity),
  note: record.note,
  when: toLocalField(record.performedAt),
  doneBy: record.how?.by ?? record.by,
  doneHow: record.how?.how ?? '',
});
