import type { Operation } from '@/core/diagnose/operation';
import type { Problem } from '@/messages/failures';

/** State of the page; the case itself is its log. */
export interface FindState {
  readonly by: string;
  /** A test chosen by the technician instead of the proposed one. */
  readonly picked: Operation | null;
  /** A piece of evidence being corrected, by its event. */
  readonly correcting: number | null;
  readonly typed: string;
  readonly note: string;
  readonly showOthers: boolean;
  /** The technician wants more tests although a repair or the closing is proposed. */
  readonly askOn: boolean;
  readonly sending: boolean;
  readonly problems: readonly Problem[];
}

export type FindAction =
  | { readonly type: 'by' | 'typed' | 'note'; readonly value: string }
  | { readonly type: 'pick'; readonly operation: Operation | null }
  | { readonly type: 'correct'; readonly eventId: number; readonly operation: Operation }
  | { readonly type: 'others'; readonly show: boolean }
  | { readonly type: 'askOn' }
  | { readonly type: 'sending' }
  | { readonly type: 'done' }
  | { readonly type: 'refused'; readonly problems: readonly Problem[] };

export const startFind = (by: string): FindState => ({
  by,
  picked: null,
  correcting: null,
  typed: '',
  note: '',
  showOthers: false,
  askOn: false,
  sending: false,
  problems: [],
});

/** The one way the Find page changes. */
export const findReducer = (state: FindState, action: FindAction): FindState => {
  switch (action.type) {
    case 'by':
    case 'typed':
    case 'note':
      return { ...state, [action.type]: action.value, problems: [] };
    case 'pick':
      return {
        ...state,
        picked: action.operation,
        correcting: null,
        typed: '',
        note: '',
        showOthers: false,
        problems: [],
      };
    case 'correct':
      return { ...state, picked: action.operation, correcting: action.eventId, typed: '', note: '', problems: [] };
    case 'others':
      return { ...state, showOthers: action.show };
    case 'askOn':
      return { ...state, askOn: true, showOthers: true };
    case 'sending':
      return { ...state, sending: true, problems: [] };
    case 'done':
      return { ...startFind(state.by) };
    case 'refused':
      return { ...state, sending: false, problems: action.problems };
  }
};
