import { spawn } from 'node:child_process';
import path from 'node:path';
import { TookTooLong } from '../db/away';

export type Picture = { data: Buffer; width: number; height: number };
export type Shrunk = { ok: true; picture: Picture } | { ok: false; reason: string };

/** Pictures worked on at a time, and waiting for that: one process leaves a core to everybody else. */
const AT_ONCE = 1;
const MOST_WAITING = 16;
const MOST_OUT = 8_000_000;
const TIME_MS = 20_000;
/** 2 GB of address space: Node does not start under 1.5. */
const LIMITS = ['--as=2000000000', '--cpu=15', '--core=0', '--nofile=64', '--fsize=0'];

let working = 0;
const waiting: (() => void)[] = [];

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
 * Decodes a picture and writes it anew as JPEG of at most 1600 pixels a side, in a process of its own with bounded memory and
 * time, one at a time: sign-ins and pages go on meanwhile. Whatever came beside the picture (position, camera, a program in
 * disguise) is gone.
 * @throws TookTooLong when too many wait already
 */
export async function shrink(sent: Buffer): Promise<Shrunk> {
  if (!looksLikePicture(sent)) return { ok: false, reason: 'This is not a picture that is taken here: JPEG, PNG or WebP.' };
  if (working >= AT_ONCE) {
    if (waiting.length >= MOST_WAITING) throw new TookTooLong('too many pictures wait already');
    await new Promise<void>((go) => waiting.push(go));
  }
  working += 1;
  try {
    return await inProcess(sent);
  } finally {
    working -= 1;
    waiting.shift()?.();
  }
}

function inProcess(sent: Buffer): Promise<Shrunk> {
  const script = path.join(process.cwd(), 'server', 'photos', 'shrink-process.mjs');
  return new Promise((done, fail) => {
    const child = spawn('nice', ['-n', '10', 'prlimit', ...LIMITS, '--', process.execPath, '--max-old-space-size=64', script], {
      stdio: ['pipe', 'pipe', 'pipe'],
      env: { PATH: process.env.PATH ?? '', NODE_ENV: 'production', UV_THREADPOOL_SIZE: '2' },
    });
    const timer = setTimeout(() => child.kill('SIGKILL'), TIME_MS);
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
      if (code === 3) return done({ ok: false, reason: 'This picture has more than 40 million pixels.' });
      try {
        if (code === 0) return done({ ok: true, picture: { data: Buffer.concat(out), ...(JSON.parse(said) as { width: number; height: number }) } });
      } catch {
        // What it said is no size: as if it had not been read.
      }
      done({ ok: false, reason: 'This is not a picture that can be read.' });
    });
    child.stdin.end(sent);
  });
}
