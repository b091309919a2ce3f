import type { AirHere } from '@/core/procedure/air-now';

const GLYPH: Record<AirHere, string> = { still: '·', through: '→', in: '↓', out: '↑' };
const WORD: Record<AirHere, string> = {
  still: 'still',
  through: 'flows through',
  in: 'drawn in here',
  out: 'drawn out here',
};

/** Which way the air flows now, a mark under each stage of the strip, and the whole in a sentence. */
export const AirBand = ({
  air,
  names,
  sentence,
  stop,
}: {
  readonly air: readonly AirHere[];
  readonly names: readonly string[];
  readonly sentence: string;
  readonly stop: boolean;
}) => (
  <div className="border-base-300 border-b">
    <ol className="flex" aria-label="Air now, stage by stage">
      {air.map((here, i) => (
        <li
          key={names[i]}
          className={`dial min-w-0 flex-1 text-center text-lg leading-6 ${here === 'still' ? 'soft' : ''} ${here === 'in' || here === 'out' ? 'bg-warning text-warning-content font-bold' : ''}`}
        >
          <span aria-hidden="true">{GLYPH[here]}</span>
          <span className="sr-only">
            {names[i]}: {WORD[here]}
          </span>
        </li>
      ))}
    </ol>
    <p className={`px-1 text-sm font-semibold ${stop ? 'tone-stop' : ''}`}>{sentence}</p>
  </div>
);
