import { runCli } from '../../cli/run';

/** One calculation of the command line: its exit code, what it complained of, and its answer; null where it gave none. */
export const runCalc = async (name: string, input: object) => {
  let [out, complaint] = ['', ''];
  const code = await runCli({
    args: ['calc', name],
    readInput: () => Promise.resolve(JSON.stringify(input)),
    write: (line) => (out += line),
    complain: (line) => (complaint += line),
    env: {},
    now: () => '2026-11-29T12:00:00.000Z',
  });
  return { code, complaint, json: (out === '' ? null : JSON.parse(out)) as unknown };
};
