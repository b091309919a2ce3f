/** Remaining life, 1 new to 0 due; below 0 it is drawn empty with a marked edge. The words beside it say the same. */
export const LifeBar = ({ remaining, label }: { remaining: number; label: string }) => {
  const share = Math.max(0, Math.min(1, remaining));
  const tone =
    remaining <= 0 ? 'var(--color-error)' : remaining < 0.15 ? 'var(--color-warning)' : 'var(--color-secondary)';
  return (
    <div
      role="img"
      aria-label={label}
      className="h-1.5 w-full border"
      style={{
        borderColor:
          remaining <= 0 ? 'var(--color-error)' : 'color-mix(in oklab, var(--color-base-content) 45%, transparent)',
      }}
    >
      <div className="h-full" style={{ width: `${share * 100}%`, background: tone }} />
    </div>
  );
};
