// Brings the database of MIGRATE_URL up to date. Run by bin/demo and bin/test.
import path from 'node:path';
import { migrate } from '../db/migrations';

const uri = process.env.MIGRATE_URL;
if (!uri) throw new Error('MIGRATE_URL is not set');
const fresh = await migrate(uri, path.join(process.cwd(), 'db'), process.env.APP_USER);
console.log(fresh.length === 0 ? 'database is up to date' : `applied ${fresh.join(', ')}`);
