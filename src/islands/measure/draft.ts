import type { MeasureState } from './state';

/** Drafts of an older shape are dropped rather than misread. */
const VERSION = 3;

const keyOf = (tag: string, afterChangeId: number | null): string =>
  `moorwind:measure:${tag}:${afterChangeId ?? 'own'}`;

export interface DraftPlace {
  readonly tag: string;
  readonly afterChangeId: number | null;
}

/** The unrecorded entry for this machine; null when there is none. */
export const readDraft = ({ tag, afterChangeId }: DraftPlace): MeasureState | null => {
  try {
    const stored = JSON.parse(localStorage.getItem(keyOf(tag, afterChangeId)) ?? 'null') as {
      version?: number;
      state?: MeasureState;
    } | null;
    return stored?.version === VERSION && stored.state ? { ...stored.state, sending: false, problems: [] } : null;
  } catch {
    return null;
  }
};

/** Keeps the draft; works without storage too. */
export const keepDraft = ({ tag, afterChangeId }: DraftPlace, state: MeasureState): void => {
  try {
    localStorage.setItem(keyOf(tag, afterChangeId), JSON.stringify({ version: VERSION, state }));
  } catch {
    // Storage may be full or forbidden: the entry on the screen is still there.
  }
};

export const dropDraft = ({ tag, afterChangeId }: DraftPlace): void => {
  try {
    localStorage.removeItem(keyOf(tag, afterChangeId));
  } catch {
    // Nothing was kept, so there is nothing to drop.
  }
};
