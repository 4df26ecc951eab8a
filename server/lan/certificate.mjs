// A local certificate authority and a certificate for this machine's addresses, kept under the data folder.
import { execFileSync } from 'node:child_process';
import { X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { networkInterfaces } from 'node:os';
import path from 'node:path';

const openssl = (...args) => execFileSync('openssl', args, { stdio: ['ignore', 'pipe', 'pipe'] });

/** IPv4 addresses of this machine on its networks. */
export const lanAddresses = () =>
  Object.values(networkInterfaces())
    .flat()
    .filter((a) => a && a.family === 'IPv4' && !a.internal)
    .map((a) => a.address);

/**
 * Makes what is missing: an authority for ten years, a server certificate for these addresses for a year.
 * @returns key and certificate for TLS, the authority's certificate, and its SHA-256 fingerprint
 */
export function certificateFor(dir, addresses) {
  mkdirSync(dir, { recursive: true, mode: 0o700 });
  const file = (name) => path.join(dir, name);
  if (!existsSync(file('authority.crt'))) {
    openssl(
      'req',
      '-x509',
      '-newkey',
      'ec',
      '-pkeyopt',
      'ec_paramgen_curve:prime256v1',
      '-nodes',
      '-days',
      '3650',
      '-subj',
      '/CN=Mile Ledger on this machine',
      '-addext',
      'basicConstraints=critical,CA:TRUE,pathlen:0',
      '-addext',
      'keyUsage=critical,keyCertSign',
      '-keyout',
      file('authority.key'),
      '-out',
      file('authority.crt'),
    );
  }
  const names = [...addresses.map((a) => `IP:${a}`), 'IP:127.0.0.1', 'DNS:localhost'].join(',');
  const still =
    existsSync(file('server.crt')) &&
    readFileSync(file('names'), 'utf8') === names &&
    Date.parse(new X509Certificate(readFileSync(file('server.crt'))).validTo) > Date.now() + 7 * 86_400_000;
  if (!still) {
    openssl(
      'req',
      '-newkey',
      'ec',
      '-pkeyopt',
      'ec_paramgen_curve:prime256v1',
      '-nodes',
      '-subj',
      '/CN=Mile Ledger',
      '-keyout',
      file('server.key'),
      '-out',
      file('server.csr'),
    );
    writeFileSync(file('extensions'), `subjectAltName=${names}\nextendedKeyUsage=serverAuth\nbasicConstraints=CA:FALSE\n`);
    openssl(
      'x509',
      '-req',
      '-in',
      file('server.csr'),
      '-CA',
      file('authority.crt'),
      '-CAkey',
      file('authority.key'),
      '-CAcreateserial',
      '-days',
      '365',
      '-extfile',
      file('extensions'),
      '-out',
      file('server.crt'),
    );
    writeFileSync(file('names'), names);
  }
  const authority = readFileSync(file('authority.crt'));
  return {
    key: readFileSync(file('server.key')),
    cert: readFileSync(file('server.crt')),
    authority,
    fingerprint: new X509Certificate(authority).fingerprint256,
  };
}
