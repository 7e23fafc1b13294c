/** One app process: plain HTTP on loopback, HTTPS elsewhere. What it is told: see ../serve.mjs. */
import { readFileSync } from 'node:fs';
import { createServer as createHttp } from 'node:http';
import { createServer as createHttps } from 'node:https';
import next from 'next';
import { pino, stdTimeFunctions } from 'pino';
import { hostsOf, turnedAway } from './doors.mjs';
import { beat } from './many.mjs';
import { measures } from './measures.mjs';

const log = pino({ base: null, timestamp: stdTimeFunctions.isoTime });
const env = process.env;
const address = env.SURRIK_LISTEN ?? '127.0.0.1';
const port = Number(env.SURRIK_PORT ?? 4310);
const cert = env.SURRIK_CERT && readFileSync(env.SURRIK_CERT);
const key = env.SURRIK_KEY && readFileSync(env.SURRIK_KEY);
const isLoopback = (ip) => /^(::ffff:)?127\.|^::1$|^localhost$/.test(ip ?? '');
if (!isLoopback(address) && !(cert && key)) {
  log.fatal(`serving on ${address} needs a certificate: set SURRIK_CERT and SURRIK_KEY`);
  process.exit(2);
}
const hosts = hostsOf(address, cert, env.SURRIK_HOSTS);
const measured = measures(log);
const serviceWorker = readFileSync('.next/service-worker.js');

const app = next({ dev: false, hostname: address, port, dir: process.cwd() });
const handle = app.getRequestHandler();
await app.prepare();

let stopping = false;
const plain = (response, status, sentence, more = {}) => {
  response.writeHead(status, { 'content-type': 'text/plain; charset=utf-8', ...more });
  response.end(`${sentence}\n`);
};
const listener = (request, response) => {
  const no = turnedAway(request, hosts);
  if (no) return plain(response, ...no);
  measured.follow(request, response);
  // Who comes while we stop asks again elsewhere, or in a moment: nothing of theirs was begun.
  if (stopping)
    return plain(response, 503, 'Surrik is stopping. Ask again.', { connection: 'close', 'retry-after': '2' });
  if (request.url === '/service-worker.js')
    return void response
      .writeHead(200, { 'content-type': 'text/javascript; charset=utf-8', 'cache-control': 'no-cache' })
      .end(serviceWorker);
  // For whoever watches this machine, on this machine.
  if (request.url === '/metrics' && isLoopback(request.socket.remoteAddress))
    return void measured.text().then((text) => {
      response.writeHead(200, { 'content-type': measured.type });
      response.end(text);
    });
  if (cert) response.setHeader('strict-transport-security', 'max-age=15552000');
  handle(request, response).catch((e) => {
    log.error({ err: e }, 'request failed');
    if (!response.headersSent) response.writeHead(500);
    response.end();
  });
};
const server = cert ? createHttps({ cert, key, minVersion: 'TLSv1.2' }, listener) : createHttp(listener);
server.on('error', (e) => {
  log.fatal(`cannot listen on ${address}:${port}: ${e.message}`);
  process.exit(1);
});
server.listen(port, address, () => log.info(`serving on ${address}:${port}`));
beat();

/** ms in which who still comes is told to come again, not cut off; ms without anybody new after which the door is shut. */
const TURN_AWAY_MS = 500;
const QUIET_MS = 250;
/** ms for all of it. */
const FINISH_MS = 8000;
let lastCame = 0;
server.on('connection', () => (lastCame = Date.now()));
const shut = () => {
  server.close(() => process.exit(0));
  // A browser holds its connections open: each is closed as soon as nothing is being answered on it.
  setInterval(() => server.closeIdleConnections(), 50).unref();
};
/** Shuts the door once nobody stands in it. After busy moments the system holds connections that we have not taken yet,
 *  and closing would cut them: so it is looked only after a turn of the loop that took all of them. */
const shutWhenQuiet = () =>
  setImmediate(() => (Date.now() - lastCame < QUIET_MS ? setTimeout(shutWhenQuiet, QUIET_MS) : shut()));
const stop = (signal) => {
  if (stopping) return;
  stopping = true;
  log.info(`${signal}: what was begun is finished`);
  setTimeout(shutWhenQuiet, TURN_AWAY_MS);
  setTimeout(() => {
    log.warn('not all was finished in time');
    process.exit(0);
  }, FINISH_MS).unref();
};
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
