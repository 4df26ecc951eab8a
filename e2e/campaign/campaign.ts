import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import type { ownDatabase } from '../hands/own-database';
import type { ownServer } from '../hands/own-server';
import { deliveries } from './deliveries';
import { diskFull } from './disk-full';
import { hostile } from './hostile';
import { storedScript } from './stored-script';
import { crossOrigin, foreignIds, throttles } from './strangers';
import { type Harm, underLoad } from './under-load';
import type { Driver, Row } from './world';

/** How much of each: the whole campaign, and the short form that is run with every test. */
export type Sizes = {
  applicationKills: number;
  databaseKills: number;
  stops: number;
  full: number;
  slow: number;
  orders: number;
  visits: number;
  hostile: number;
};
export const WHOLE: Sizes = { applicationKills: 50, databaseKills: 20, stops: 10, full: 5, slow: 5, orders: 6, visits: 40, hostile: 20_000 };
export const SHORT: Sizes = { applicationKills: 4, databaseKills: 2, stops: 2, full: 1, slow: 1, orders: 3, visits: 12, hostile: 600 };

type World = {
  database: Awaited<ReturnType<typeof ownDatabase>>;
  server: Awaited<ReturnType<typeof ownServer>>;
  /** A page of a browser context that is signed in as a driver. */
  open: (d: Driver) => Promise<Page>;
};
const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));

/** What can be done to the machine while phones send. */
function harms({ database, server }: World, sizes: Sizes): Harm[] {
  return [
    {
      what: 'application killed under load',
      times: sizes.applicationKills,
      harm: async () => {
        await server.kill();
        await server.start();
      },
    },
    {
      what: 'database killed under load',
      times: sizes.databaseKills,
      harm: async () => {
        database.signal('SIGKILL');
        await database.start();
      },
    },
    {
      what: 'database stopped under load',
      times: sizes.stops,
      harm: async () => {
        database.signal('SIGSTOP');
        await wait(1500);
        database.signal('SIGCONT');
      },
    },
    {
      what: 'disk slow under load',
      times: sizes.slow,
      harm: async () => {
        for (let i = 0; i < 8; i++) {
          database.signal('SIGSTOP');
          await wait(150);
          database.signal('SIGCONT');
          await wait(40);
        }
      },
    },
  ];
}

/** Everything once. @param onRow told of each line of the table as it is known */
export async function campaign(world: World, sizes: Sizes, seed: number, onRow: (r: Row) => void): Promise<Row[]> {
  const { server, database } = world;
  const rows: Row[] = [];
  const done = (r: Row) => {
    rows.push(r);
    onRow(r);
  };
  done(await diskFull(sizes.full, seed));
  for (const [i, h] of harms(world, sizes).entries()) if (h.times > 0) done(await underLoad(server.url, database.url, h, seed + i));
  done(await deliveries(server.url, sizes.orders, sizes.visits, seed));
  done(await hostile(server.url, sizes.hostile, seed));
  done(await foreignIds(server.url));
  done(await crossOrigin(server.url));
  done(await throttles(server.url));
  done(await storedScript(server.url, world.open));
  return rows;
}

/** The most memory a process ever had, MB. */
export const peakMemory = (pid: number): number => Math.round(Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024);

/** True when nothing went wrong in a line. */
export const clean = (r: Row): boolean => r.lost + r.twice + r.changed + r.failures + r.leaks === 0;
