import type { AstroCookies } from 'astro';
import type { UnitSystem } from '@/core/units';

/** The display choices a reader's browser remembers. Never part of a computation. */
export interface Choices {
  readonly units: UnitSystem;
  readonly theme: 'moor-day' | 'moor-night';
  readonly by: string;
  readonly keysOn: boolean;
}

export const readChoices = (cookies: AstroCookies): Choices => ({
  units: cookies.get('mw_units')?.value === 'us' ? 'us' : 'metric',
  theme: cookies.get('mw_theme')?.value === 'moor-night' ? 'moor-night' : 'moor-day',
  by: (cookies.get('mw_by')?.value ?? '').slice(0, 12),
  keysOn: cookies.get('mw_keys')?.value !== 'off',
});
