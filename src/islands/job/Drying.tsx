import { MINUTE_MS } from '@/core/calendar/time';
import { useEffect, useState } from 'react';

const left = (ms: number): string => {
  const minutes = Math.ceil(ms / MINUTE_MS);
  return minutes >= 120 ? `${Math.ceil(minutes / 60)} h` : `${minutes} min`;
};

/** The drying time that is left, by the server's clock: the tablet's own may be wrong. */
export const Drying = ({ until, now }: { readonly until: string; readonly now: string }) => {
  const [passed, setPassed] = useState(0);
  useEffect(() => {
    const begun = performance.now();
    const timer = window.setInterval(() => setPassed(performance.now() - begun), MINUTE_MS / 4);
    return () => window.clearInterval(timer);
  }, []);
  const ms = Date.parse(until) - Date.parse(now) - passed;
  return ms > 0 ? (
    <p className="mt-2" role="timer">
      <span className="dial text-4xl">{left(ms)}</span>{' '}
      <span className="tone-stop font-bold">left to dry: out of service, do not run</span>
    </p>
  ) : (
    <p className="tone-good mt-2 font-bold">Its drying time is up. Feel it before you answer.</p>
  );
};
