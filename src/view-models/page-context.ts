import type { AstroCookies } from 'astro';
import type { UnitSystem } from '@/core/units';

/** The display choices a reader's browser remembers. Never part of a computation. */
export interface Choices {
  readonly units: UnitSystem;
  /** Chosen by hand; null follows the system. */
  readonly theme: 'moor-day' | 'moor-night' | null;
  readonly by: string;
  readonly keysOn: boolean;
}

const THEMES = ['moor-day', 'moor-night'] as const;

export const readChoices = (cookies: AstroCookies): Choices => ({
  units: cookies.get('mw_units')?.value === 'us' ? 'us' : 'metric',
  theme: THEMES.find((t) => t === cookies.get('mw_theme')?.value) ?? null,
  by: (cookies.get('mw_by')?.value ?? '').slice(0, 12),
  keysOn: cookies.get('mw_keys')?.value !== 'off',
});
