import { remainingMark } from '@/core/interval/remaining';

const TONES = { due: 'var(--color-error)', comingUp: 'var(--color-warning)', fine: 'var(--color-secondary)' } as const;

/** Remaining life, 1 new to 0 due; below 0 it is drawn empty with a marked edge. The words beside it say the same. */
export const LifeBar = ({ remaining, label }: { remaining: number; label: string }) => {
  const share = Math.max(0, Math.min(1, remaining));
  const mark = remainingMark(remaining);
  return (
    <div
      role="img"
      aria-label={label}
      className="h-1.5 w-full border"
      style={{
        borderColor:
          mark === 'due' ? 'var(--color-error)' : 'color-mix(in oklab, var(--color-base-content) 45%, transparent)',
      }}
    >
      <div className="h-full" style={{ width: `${share * 100}%`, background: TONES[mark] }} />
    </div>
  );
};
