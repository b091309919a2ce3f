import { useSyncExternalStore } from 'react';

const never = () => () => undefined;
const NONE: readonly string[] = [];

const readZones = (): readonly string[] => {
  try {
    return Intl.supportedValuesOf('timeZone');
  } catch {
    return NONE;
  }
};
let zones: readonly string[] | null = null;

/** Names of time zones that the browser knows; empty in the page from the server. */
export const useZones = (): readonly string[] =>
  useSyncExternalStore(
    never,
    () => (zones ??= readZones()),
    () => NONE,
  );

/** The browser's own time zone; the other one in the page as it comes. */
export const useGuessedZone = (onTheServer: string): string =>
  useSyncExternalStore(
    never,
    () => Intl.DateTimeFormat().resolvedOptions().timeZone,
    () => onTheServer,
  );
