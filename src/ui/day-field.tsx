import { CalendarDays } from 'lucide-react';
import { useRef } from 'react';

interface Props {
  readonly label: string;
  /** ISO day "2026-11-28", or with `time` "2026-11-28 14:05"; unfinished input is kept. */
  readonly value: string;
  readonly onValue: (value: string) => void;
  readonly max?: string;
  /** A time of day as well, by the 24-hour clock. */
  readonly time?: boolean;
}

/**
 * A day, or a moment, in the format of all screens: year first, 24 hours. The browser's own picker would show the order
 * of its own language; it is opened by the button and writes into the field.
 */
export const DayField = ({ label, value, onValue, max, time = false }: Props) => {
  const picker = useRef<HTMLInputElement>(null);
  return (
    <div className="block min-w-0">
      <label className="block">
        <span className="caption">{label}</span>
        <span className="relative block">
          <input
            className="field dial pr-10"
            value={value.replace('T', ' ')}
            maxLength={time ? 16 : 10}
            placeholder={time ? '2026-01-31 14:05' : '2026-01-31'}
            autoComplete="off"
            onChange={(e) => onValue(e.currentTarget.value)}
          />
        </span>
      </label>
      <span className="relative block h-0">
        <input
          ref={picker}
          type={time ? 'datetime-local' : 'date'}
          tabIndex={-1}
          aria-hidden="true"
          className="pointer-events-none absolute right-0 bottom-0 h-px w-px opacity-0"
          value={value.replace(' ', 'T')}
          max={max}
          onChange={(e) => onValue(e.currentTarget.value)}
        />
        <button
          type="button"
          className="absolute right-0 bottom-0 grid h-11 w-10 place-items-center"
          aria-label={`Pick from the calendar: ${label}`}
          onClick={() => picker.current?.showPicker()}
        >
          <CalendarDays size={18} aria-hidden="true" />
        </button>
      </span>
    </div>
  );
};
