/**
 * What is turned away before anything looks at it: hosts that are not ours (a page elsewhere may have pointed its own
 * name at us), addresses that are no path, methods nobody here uses, and headers with which a client would speak for a
 * proxy that we do not stand behind.
 */
import { X509Certificate } from 'node:crypto';
import { isIP } from 'node:net';

const METHODS = new Set(['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS']);
const CHANGES = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);
const OF_A_PROXY = ['forwarded', 'x-forwarded-host', 'x-forwarded-proto', 'x-forwarded-port', 'x-forwarded-for'];

const hostOf = (origin) => (URL.canParse(origin) ? new URL(origin).host : undefined);

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

/** Hosts this server answers for. `more`: names separated by commas. */
export const hostsOf = (address, cert, more = '') =>
  new Set([
    '127.0.0.1',
    'localhost',
    '[::1]',
    ...(address === '0.0.0.0' || address === '::'
      ? []
      : [isIP(address) === 6 ? `[${address}]` : address.toLowerCase()]),
    ...(cert ? namesOf(cert) : []),
    ...more
      .split(',')
      .map((h) => h.trim().toLowerCase())
      .filter((h) => h !== ''),
  ]);

/** Status and sentence with which a request is turned away, or undefined: then its headers are what we may believe. */
export function turnedAway(request, hosts) {
  const host = (request.headers.host ?? '').toLowerCase().replace(/:\d+$/, '');
  if (!hosts.has(host))
    return [421, 'Surrik does not serve this host. If the name is right, start it with --host NAME.'];
  if (!request.url?.startsWith('/') || request.url.startsWith('//'))
    return [400, 'An address here begins with one slash.'];
  if (!METHODS.has(request.method)) return [405, 'Surrik does not know this method.'];
  // A form of another site's page; calls of programs go through the routes under /api, which look for themselves.
  const { origin } = request.headers;
  if (
    CHANGES.has(request.method) &&
    origin !== undefined &&
    !request.url.startsWith('/api/') &&
    hostOf(origin) !== request.headers.host
  )
    return [403, 'Changes are only taken from Surrik itself.'];
  for (const name of OF_A_PROXY) delete request.headers[name];
  // The one who is really there, for counting tries at signing in.
  request.headers['x-surrik-address'] = request.socket?.remoteAddress ?? '';
  return undefined;
}
