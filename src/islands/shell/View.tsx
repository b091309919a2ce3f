import { CircleHelp, Moon, Sun } from 'lucide-react';
import { type RefObject, useEffect, useMemo, useRef, useState } from 'react';
import type { UnitSystem } from '@/core/units';
import { setChoice } from '@/ui/cookies';
import { actionOfKey, MACHINE_KEYS, type Shortcut, SITE_KEYS } from './keys';

interface ShellProps {
  readonly units: UnitSystem;
  readonly theme: 'moor-day' | 'moor-night' | null;
  readonly tag: string | null;
  readonly keysOn: boolean;
}

/** Boxes that are ticked take no letters: a key does its thing all the same. */
const TICKED = ['checkbox', 'radio'];

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  !(target instanceof HTMLInputElement && TICKED.includes(target.type)) &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));

const Keys = ({ title, keys }: { title: string; keys: readonly Shortcut[] }) => (
  <div>
    <h3 className="mb-1 font-bold">{title}</h3>
    <ul className="space-y-1.5">
      {keys.map((k) => (
        <li key={k.key} className="flex gap-3">
          <kbd className="dial bg-base-200 border-base-300 w-8 shrink-0 border text-center">{k.key}</kbd>
          {k.does}
        </li>
      ))}
    </ul>
  </div>
);

interface Doing {
  readonly jump: () => void;
  readonly help: () => void;
  readonly units: () => void;
  readonly theme: () => void;
}

/** Single keys do their thing wherever nothing is being typed and no sheet is open. */
const useKeys = ({ on, tag, doing }: { on: boolean; tag: string | null; doing: Doing }): void => {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (
        !on ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        isTyping(event.target) ||
        document.querySelector('dialog[open]')
      )
        return;
      const action = actionOfKey(event.key, tag);
      if (!action) return;
      event.preventDefault();
      if (action.kind === 'go') window.location.assign(action.to);
      else doing[action.kind]();
    };
    document.addEventListener('keydown', onKey);
    document.documentElement.dataset['shell'] = 'ready';
    return () => document.removeEventListener('keydown', onKey);
  }, [on, tag, doing]);
};

interface HelpProps {
  readonly sheet: RefObject<HTMLDialogElement | null>;
  readonly on: boolean;
  readonly setOn: (on: boolean) => void;
}

const Help = ({ sheet, on, setOn }: HelpProps) => (
  <dialog
    ref={sheet}
    className="panel text-base-content m-auto max-w-xl p-6 backdrop:bg-black/50"
    aria-labelledby="help-title"
  >
    <h2 id="help-title" className="mb-3 text-xl font-bold">
      Keys
    </h2>
    <div className="grid gap-5 sm:grid-cols-2">
      <Keys title="Anywhere" keys={SITE_KEYS} />
      <Keys title="On a machine" keys={MACHINE_KEYS} />
    </div>
    <p className="soft mt-4 text-sm">
      On the reading pad: type a reading with or without its unit, Enter, next. The unit typed last is kept.
    </p>
    <div className="mt-4 flex flex-wrap items-center justify-between gap-3">
      <label className="flex min-h-11 items-center gap-2">
        <input type="checkbox" className="checkbox" checked={on} onChange={(e) => setOn(e.target.checked)} />
        Single-key shortcuts on
      </label>
      <form method="dialog">
        <button className="go">Close</button>
      </form>
    </div>
  </dialog>
);

/** The present theme: the chosen one, or the system's. */
const isNight = (): boolean => {
  const chosen = document.documentElement.dataset['theme'];
  return chosen === undefined ? window.matchMedia('(prefers-color-scheme: dark)').matches : chosen === 'moor-night';
};

/** Header controls and single-key shortcuts: units, day and night, the help sheet. */
export const Shell = ({ units, theme, tag, keysOn }: ShellProps) => {
  const sheet = useRef<HTMLDialogElement>(null);
  const [night, setNight] = useState(theme === 'moor-night');
  useEffect(() => {
    if (theme !== null) return undefined;
    const dark = window.matchMedia('(prefers-color-scheme: dark)');
    const follow = () => {
      if (document.documentElement.dataset['theme'] === undefined) setNight(dark.matches);
    };
    follow();
    dark.addEventListener('change', follow);
    return () => dark.removeEventListener('change', follow);
  }, [theme]);
  const [on, setOn] = useState(keysOn);
  const doing = useMemo<Doing>(
    () => ({
      jump: () => document.dispatchEvent(new CustomEvent('moorwind:jump')),
      help: () => sheet.current?.showModal(),
      units: () => {
        setChoice('mw_units', units === 'metric' ? 'us' : 'metric');
        window.location.reload();
      },
      theme: () => {
        const next = isNight() ? 'moor-day' : 'moor-night';
        document.documentElement.dataset['theme'] = next;
        setChoice('mw_theme', next);
        setNight(next === 'moor-night');
      },
    }),
    [units],
  );
  useKeys({ on, tag, doing });
  const button = 'flex h-11 min-w-11 items-center justify-center px-2 font-bold hover:bg-base-300';
  const unit = (mine: boolean) => (mine ? 'underline decoration-2 underline-offset-4' : 'soft font-medium');
  return (
    <div className="flex items-center">
      <button
        type="button"
        className={button}
        onClick={doing.units}
        aria-label={`Units: ${units === 'metric' ? 'metric' : 'US'}. Switch`}
      >
        <span className={unit(units === 'metric')}>m</span>
        <span className="soft px-0.5">/</span>
        <span className={unit(units === 'us')}>US</span>
      </button>
      <button
        type="button"
        className={button}
        onClick={doing.theme}
        aria-label={night ? 'Switch to day' : 'Switch to night'}
      >
        {night ? <Sun size={20} aria-hidden="true" /> : <Moon size={20} aria-hidden="true" />}
      </button>
      <button type="button" className={button} onClick={doing.help} aria-label="Keys and help">
        <CircleHelp size={20} aria-hidden="true" />
      </button>
      <Help
        sheet={sheet}
        on={on}
        setOn={(value) => {
          setOn(value);
          setChoice('mw_keys', value ? 'on' : 'off');
        }}
      />
    </div>
  );
};
