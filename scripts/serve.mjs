/**
 * Serves the built application: plain HTTP on loopback, HTTPS elsewhere. A request for a host that is not
 * ours is turned away before anything looks at it (a page elsewhere may have pointed its own name at us).
 * Told by the environment, which the surrik command sets: SURRIK_LISTEN, SURRIK_PORT, SURRIK_HOSTS
 * (names separated by commas), SURRIK_CERT and SURRIK_KEY (files; both or none).
 */
import { X509Certificate } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createServer as createHttp } from 'node:http';
import { createServer as createHttps } from 'node:https';
import { isIP } from 'node:net';
import next from 'next';

const env = process.env;
const address = env.SURRIK_LISTEN ?? '127.0.0.1';
const port = Number(env.SURRIK_PORT ?? 4310);
const cert = env.SURRIK_CERT && readFileSync(env.SURRIK_CERT);
const key = env.SURRIK_KEY && readFileSync(env.SURRIK_KEY);
const loopback = /^127\./.test(address) || address === '::1' || address === 'localhost';
if (!loopback && !(cert && key)) {
  console.error(`serving on ${address} needs a certificate: set SURRIK_CERT and SURRIK_KEY`);
  process.exit(2);
}

/** Names a certificate is good for. */
const namesOf = (pem) =>
  (new X509Certificate(pem).subjectAltName ?? '')
    .split(',')
    .map((n) =>
      n
        .trim()
        .replace(/^(DNS|IP Address):/, '')
        .toLowerCase(),
    )
    .filter((n) => n !== '' && !n.includes('*'));
const hosts = new Set([
  '127.0.0.1',
  'localhost',
  '[::1]',
  ...(address === '0.0.0.0' || address === '::' ? [] : [isIP(address) === 6 ? `[${address}]` : address.toLowerCase()]),
  ...(cert ? namesOf(cert) : []),
  ...(env.SURRIK_HOSTS ?? '')
    .split(',')
    .map((h) => h.trim().toLowerCase())
    .filter((h) => h !== ''),
]);
const nameIn = (host) => (host ?? '').toLowerCase().replace(/:\d+$/, '');

const app = next({ dev: false, hostname: address, port, dir: process.cwd() });
const handle = app.getRequestHandler();
await app.prepare();
const listener = (request, response) => {
  if (!hosts.has(nameIn(request.headers.host))) {
    response.writeHead(421, { 'content-type': 'text/plain; charset=utf-8' });
    response.end('Surrik does not serve this host. If the name is right, start it with --host NAME.\n');
    return;
  }
  if (cert) response.setHeader('strict-transport-security', 'max-age=15552000');
  handle(request, response).catch((e) => {
    console.error('request failed:', e?.message ?? e);
    if (!response.headersSent) response.writeHead(500);
    response.end();
  });
};
const server = cert ? createHttps({ cert, key, minVersion: 'TLSv1.2' }, listener) : createHttp(listener);
server.on('error', (e) => {
  console.error(`cannot listen on ${address}:${port}: ${e.message}`);
  process.exit(1);
});
server.listen(port, address);

// An open connection must not keep the process: what is being answered gets three seconds.
const stop = () => {
  server.close(() => process.exit(0));
  server.closeIdleConnections();
  setTimeout(() => process.exit(0), 3000).unref();
};
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
