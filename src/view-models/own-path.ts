/** Where to go after signing in: a path of this site, never another one; the board when in doubt. */
export const ownPath = (asked: string | null): string => {
  if (asked === null || !asked.startsWith('/') || asked.startsWith('//') || asked.includes('\\')) return '/';
  const base = 'http://here.invalid';
  if (!URL.canParse(asked, base)) return '/';
  const url = new URL(asked, base);
  return url.origin === base && !url.pathname.startsWith('/api/') ? `${url.pathname}${url.search}` : '/';
};
