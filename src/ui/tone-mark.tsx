import { CircleCheck, CircleDashed, OctagonAlert, TriangleAlert } from 'lucide-react';
import type { Tone } from '@/messages/verdicts';

const ICONS = { good: CircleCheck, watch: TriangleAlert, stop: OctagonAlert, open: CircleDashed } as const;

/** A tone as shape, word and colour: any two may be lost. */
export const ToneMark = ({ tone, word, size = 18 }: { tone: Tone; word: string; size?: number }) => {
  const Icon = ICONS[tone];
  return (
    <span className={`tone-${tone} inline-flex items-baseline gap-1.5 font-bold`}>
      <Icon size={size} strokeWidth={2.4} aria-hidden="true" className="shrink-0 self-center" />
      {word}
    </span>
  );
};
