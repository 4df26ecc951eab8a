import { type ChildProcess, spawn } from 'node:child_process';
import { createServer } from 'node:net';

/**
 * A second copy of the application, to be stopped in the middle of things.
 * @param env differs from this process's, such as another database @param ready answers once it is up
 */
export async function ownServer(env: Record<string, string> = {}, ready = '/api/v1/health') {
  const port = await new Promise<number>((done) => {
    const s = createServer();
    s.listen(0, '127.0.0.1', () => {
      const { port } = s.address() as { port: number };
      s.close(() => done(port));
    });
  });
  const url = `http://127.0.0.1:${port}`;
  let child: ChildProcess | null = null;
  let said = '';
  const start = async () => {
    child = spawn(process.execPath, ['node_modules/next/dist/bin/next', 'start', '-H', '127.0.0.1', '-p', String(port), '--keepAliveTimeout', '600000'], {
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...env },
    });
    for (const out of [child.stdout, child.stderr])
      out?.on('data', (part) => {
        said = `${said}${part}`.slice(-200_000);
      });
    for (let i = 0; i < 300; i++) {
      if (
        await fetch(`${url}${ready}`).then(
          (r) => r.ok,
          () => false,
        )
      )
        return;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error('the second server did not start');
  };
  /** SIGKILL: no time to tidy anything up. */
  const kill = async () => {
    const dying = child;
    child = null;
    if (!dying || dying.exitCode !== null) return;
    await new Promise((done) => {
      dying.once('exit', done);
      dying.kill('SIGKILL');
    });
  };
  await start();
  return { url, start, kill, pid: () => child?.pid ?? 0, log: () => said };
}
