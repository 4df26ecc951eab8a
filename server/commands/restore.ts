// Restores into the database of MIGRATE_URL: `load FILE`, then `open`. Run by bin/restore, which may go on by the binary log in between.
// Prints where the binary log stood at the backup, if there was one: `FILE POSITION`.
import { DamagedBackup } from '../backup/format';
import { CannotRestore, loadBackup, MIGRATIONS, openRestored } from '../backup/restore-backup';
import { now } from '../clock';

const uri = process.env.MIGRATE_URL;
const [what, file] = process.argv.slice(2);
if (!uri) throw new Error('MIGRATE_URL is needed');
const target = { uri, migrations: MIGRATIONS, appUser: process.env.APP_USER };
try {
  if (what === 'load' && file) {
    const head = await loadBackup(target, file);
    console.error(`The backup of ${head.madeAt} is loaded, every table as it was.`);
    if (head.binlog) console.log(`${head.binlog.file} ${head.binlog.position}`);
  } else if (what === 'open') {
    const households = await openRestored(target, new Date(now()));
    console.error(`${households} households are open again. Everybody signs in anew; phones offer again what they sent after the backup.`);
  } else throw new Error('load FILE or open');
} catch (error) {
  if (error instanceof DamagedBackup) console.error(`Nothing was restored: this backup is damaged: ${error.message}.`);
  else if (error instanceof CannotRestore) console.error(error.message);
  else console.error(error);
  process.exit(1);
}
