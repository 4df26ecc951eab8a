// A TLS front for a phone on the same network: asks for the code shown in the terminal, then hands everything on
// to the application on loopback. Without https a phone has no service worker and no wake lock.
//   node server/lan/front.mjs --app-port 4100 --dir .data/lan [--port 4143] [--host 0.0.0.0]
import { createHmac, randomBytes, randomInt, timingSafeEqual } from 'node:crypto';
import http from 'node:http';
import https from 'node:https';
import { parseArgs } from 'node:util';
import { certificateFor, lanAddresses } from './certificate.mjs';

const { values } = parseArgs({
  options: { 'app-port': { type: 'string' }, dir: { type: 'string' }, port: { type: 'string', default: '4143' }, host: { type: 'string', default: '0.0.0.0' } },
});
const appPort = Number(values['app-port']);
const port = Number(values.port);
const addresses = lanAddresses();
const tls = certificateFor(values.dir, addresses);
const code = String(randomInt(0, 1_000_000)).padStart(6, '0');
const secret = randomBytes(32);
const pass = createHmac('sha256', secret).update('let in').digest('base64url');

const same = (a, b) => a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));
const letIn = (request) => (request.headers.cookie ?? '').split(/;\s*/).some((c) => same(c, `__Host-mile_lan=${pass}`));

/** Tries at the code in the last minute, per address and of all together: counted before they are checked, so that many at once gain nothing. */
const PER_ADDRESS = 5;
const OF_ALL = 60;
let tries = [];
function mayTry(address) {
  tries = tries.filter((t) => t.at > Date.now() - 60_000);
  if (tries.length >= OF_ALL || tries.filter((t) => t.address === address).length >= PER_ADDRESS) return false;
  tries.push({ address, at: Date.now() });
  return true;
}

const page = (message) => `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Mile Ledger</title>
<h1>Mile Ledger</h1><p>${message}</p><form method="post" action="/lan/code"><label>Code from the terminal <input name="code" inputmode="numeric" autocomplete="one-time-code" maxlength="6" autofocus></label> <button>Let me in</button></form>
<p><a href="/lan/authority.crt">Certificate of this machine</a>, to be trusted on the phone. Its SHA-256 fingerprint must be the one in the terminal.</p></html>`;
/** Once https, always https (RFC 6797). */
const HSTS = { 'strict-transport-security': 'max-age=31536000' };
const answer = (response, status, type, body, headers = {}) =>
  response
    .writeHead(status, {
      ...HSTS,
      'content-type': type,
      'cache-control': 'no-store',
      'content-security-policy': "default-src 'none'; form-action 'self'; frame-ancestors 'none'",
      'x-content-type-options': 'nosniff',
      'x-frame-options': 'DENY',
      ...headers,
    })
    .end(body);

function askForCode(request, response, address) {
  if (request.method !== 'POST' || request.url !== '/lan/code') return answer(response, 401, 'text/html', page('Type the code that the terminal shows.'));
  if (!mayTry(address)) return answer(response, 429, 'text/html', page('Too many wrong codes. Wait a minute.'));
  let body = '';
  request.on('data', (part) => {
    body += part;
    if (body.length > 200) request.destroy();
  });
  request.on('end', () => {
    const typed = new URLSearchParams(body).get('code')?.trim() ?? '';
    if (!same(typed, code)) {
      return answer(response, 401, 'text/html', page('That is not the code.'));
    }
    answer(response, 303, 'text/plain', '', {
      location: '/stall',
      'set-cookie': `__Host-mile_lan=${pass}; Path=/; Max-Age=5184000; Secure; HttpOnly; SameSite=Lax`,
    });
  });
}

function handOn(request, response, address) {
  const headers = { ...request.headers, 'x-forwarded-for': address, 'x-forwarded-proto': 'https', 'x-mile-front': process.env.MILE_FRONT_SECRET ?? '' };
  delete headers['x-forwarded-host'];
  const onward = http.request({ host: '127.0.0.1', port: appPort, method: request.method, path: request.url, headers }, (back) => {
    response.writeHead(back.statusCode ?? 502, { ...back.headers, ...HSTS });
    back.pipe(response);
  });
  onward.on('error', () => {
    if (!response.headersSent) answer(response, 502, 'text/plain', 'The application does not answer.');
    else response.destroy();
  });
  request.pipe(onward);
}

https
  .createServer({ key: tls.key, cert: tls.cert }, (request, response) => {
    const address = request.socket.remoteAddress ?? '';
    if (request.url === '/lan/authority.crt') return answer(response, 200, 'application/x-x509-ca-cert', tls.authority);
    return letIn(request) ? handOn(request, response, address) : askForCode(request, response, address);
  })
  .listen(port, values.host, () => {
    console.log('');
    console.log('For a phone on the same network:');
    for (const a of addresses.length > 0 ? addresses : ['127.0.0.1']) console.log(`  https://${a}:${port}`);
    console.log(`  code         ${code}`);
    console.log(`  fingerprint  ${tls.fingerprint}`);
    console.log('  Once per phone: open the address, go past the warning, load “Certificate of this machine”, compare');
    console.log('  its fingerprint, and trust it in the phone’s settings. After that the Stall works without a network.');
  });
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => process.exit(0));
