import { runCli } from './run';

process.exitCode = await runCli({
  args: process.argv.slice(2),
  readInput: async () => {
    const chunks: Buffer[] = [];
    for await (const chunk of process.stdin) chunks.push(Buffer.from(chunk as Uint8Array));
    return Buffer.concat(chunks).toString('utf8');
  },
  write: (text) => process.stdout.write(`${text}\n`),
  complain: (text) => process.stderr.write(`${text}\n`),
  env: process.env,
  now: () => new Date().toISOString(),
});
