const YEAR_SECONDS = 31_536_000;

/** Keeps a display choice for the next page; the server reads it when it draws. */
export const setChoice = (name: 'mw_units' | 'mw_theme' | 'mw_by' | 'mw_keys', value: string): void => {
  document.cookie = `${name}=${encodeURIComponent(value)}; path=/; max-age=${YEAR_SECONDS}; samesite=lax`;
};
