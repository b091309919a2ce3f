// Readers-writer lock: requests run concurrently; a restore waits for them and keeps new ones out.

const LOOK_MS = 20;
let inside = 0;
let shut: Promise<void> | null = null;

/** Runs a request after a running restore has ended. */
export const through = async <T>(run: () => Promise<T>): Promise<T> => {
  while (shut) await shut;
  inside += 1;
  try {
    return await run();
  } finally {
    inside -= 1;
  }
};

/**
 * From inside a request: holds the others at the door, waits until those inside are done, and runs. null, and nothing is
 * run, when they are not done in time, or somebody else is going through alone already.
 */
export const alone = async <T>(run: () => Promise<T>, waitMs: number): Promise<T | null> => {
  if (shut) return null;
  let open = (): void => undefined;
  shut = new Promise((resolve) => {
    open = resolve;
  });
  try {
    for (let waited = 0; inside > 1; waited += LOOK_MS) {
      if (waited >= waitMs) return null;
      await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
    }
    return await run();
  } finally {
    shut = null;
    open();
  }
};
