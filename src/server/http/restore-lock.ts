// Readers-writer lock: requests run concurrently; a restore waits for them and keeps new ones out.

const LOOK_MS = 20;
let running = 0;
let locked: Promise<void> | null = null;

/** Runs a request after a running restore has ended. */
export const whileOpen = async <T>(run: () => Promise<T>): Promise<T> => {
  while (locked) await locked;
  running += 1;
  try {
    return await run();
  } finally {
    running -= 1;
  }
};

/**
 * Called inside a request: keeps new requests out, waits up to `waitMs` ms for the other running ones, then runs. Returns
 * null without running when they do not end in time, or another exclusive run is under way.
 */
export const exclusively = async <T>(run: () => Promise<T>, waitMs: number): Promise<T | null> => {
  if (locked) return null;
  let open = (): void => undefined;
  locked = new Promise((resolve) => {
    open = resolve;
  });
  try {
    for (let waited = 0; running > 1; waited += LOOK_MS) {
      if (waited >= waitMs) return null;
      await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
    }
    return await run();
  } finally {
    locked = null;
    open();
  }
};
