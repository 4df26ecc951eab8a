import { spawn } from 'node:child_process';
import path from 'node:path';
import { TookTooLong } from '../db/away';

/** Pictures that wait for a script: it works on one at a time, which leaves a core to everybody else. */
const MOST_WAITING = 16;
const MOST_OUT = 8_000_000;

/** What a script is let have: address space in bytes, seconds of a processor, and of the clock. Node does not start under 1.5 GB. */
export type PictureLimits = { space: number; cpu_s: number; time_s: number; flags: readonly string[] };
/** How a process ended, and what it wrote. */
export type PictureOutcome = { code: number | null; out: Buffer; said: string };

/** Who waits for each script that works: a photo on its way does not wait for a receipt that is read. */
const waiting = new Map<string, (() => void)[]>();

/** The first bytes of the formats that are taken: JPEG, PNG, and WebP in its RIFF. */
export function looksLikePicture(sent: Uint8Array): boolean {
  const starts = (at: number, ...bytes: number[]) => bytes.every((b, i) => sent[at + i] === b);
  return (
    starts(0, 0xff, 0xd8, 0xff) ||
    starts(0, 0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a) ||
    (starts(0, 0x52, 0x49, 0x46, 0x46) && starts(8, 0x57, 0x45, 0x42, 0x50))
  );
}

/**
 * Hands a picture to a script in a process of its own with bounded memory and time, one at a time for each script: sign-ins and pages go on meanwhile, and whatever a hostile picture does
 * to a decoder, it does there.
 * @throws TookTooLong when too many wait already
 */
export async function inPictureProcess(script: string, sent: Uint8Array, limits: PictureLimits): Promise<PictureOutcome> {
  const queue = waiting.get(script);
  if (queue) {
    if (queue.length >= MOST_WAITING) throw new TookTooLong('too many pictures wait already');
    await new Promise<void>((go) => queue.push(go));
  } else waiting.set(script, []);
  try {
    return await run(path.join(process.cwd(), 'server', 'photos', script), sent, limits);
  } finally {
    const next = waiting.get(script)?.shift();
    if (next) next();
    else waiting.delete(script);
  }
}

function run(script: string, sent: Uint8Array, { space, cpu_s, time_s, flags }: PictureLimits): Promise<PictureOutcome> {
  const held = [`--as=${space}`, `--cpu=${cpu_s}`, '--core=0', '--nofile=64', '--fsize=0'];
  return new Promise((done, fail) => {
    const child = spawn('nice', ['-n', '10', 'prlimit', ...held, '--', process.execPath, ...flags, script], {
      stdio: ['pipe', 'pipe', 'pipe'],
      env: { PATH: process.env.PATH ?? '', NODE_ENV: 'production', UV_THREADPOOL_SIZE: '2' },
    });
    const timer = setTimeout(() => child.kill('SIGKILL'), time_s * 1000);
    const out: Buffer[] = [];
    let size = 0;
    let said = '';
    child.stdout.on('data', (part: Buffer) => {
      size += part.length;
      if (size > MOST_OUT) child.kill('SIGKILL');
      else out.push(part);
    });
    child.stderr.on('data', (part: Buffer) => {
      if (said.length < 1000) said += part;
    });
    // A child that ended early closes the pipe: its exit says why.
    child.stdin.on('error', () => {});
    child.once('error', (error) => {
      clearTimeout(timer);
      fail(error);
    });
    child.once('close', (code) => {
      clearTimeout(timer);
      done({ code, out: Buffer.concat(out), said });
    });
    child.stdin.end(sent);
  });
}
