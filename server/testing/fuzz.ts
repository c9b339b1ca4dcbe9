import { randomUUID } from 'node:crypto';
import { request } from 'node:http';
import { gzipSync } from 'node:zlib';
import fc from 'fast-check';
import { blank, OP_KINDS } from '@each-bolt/core/record';
import { ROUTES, type Route } from '../src/http/roles';
import type { Api, Begun } from './api';

/** One request as bytes on the wire would make it. */
export interface Shot {
  readonly method: string;
  readonly path: string;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: string | Uint8Array<ArrayBuffer> | null;
}

const DASHES = '-'.repeat(36);
/** Texts that have broken programs before. */
const ODD = [
  '',
  ' ',
  '\u0000',
  '\ud800',
  'ﷺ',
  '＝1+1',
  '%',
  '%00',
  '%zz',
  '..',
  '../..',
  '-1',
  '1e999',
  'NaN',
  'null',
  DASHES,
  'é'.repeat(200),
];
const KEYS = ['since', 'before', 'rows', 'connection', 'device', 'format', 'skip', 'page', 'of', '__proto__', 'since[x]'];

const oddText = fc.oneof(fc.constantFrom(...ODD), fc.string({ unit: 'binary', maxLength: 40 }), fc.uuid());
const oddValue: fc.Arbitrary<unknown> = fc.oneof(
  oddText,
  fc.constantFrom(null, true, [], {}, 0, -1, 1e308, 0.1 + 0.2, 2 ** 53, [[]], { toString: 1 }, { length: 1e9 }),
  fc.double(),
  fc.jsonValue({ maxDepth: 3 }),
);

/** A change that would be kept, but for what is bent in it. */
const bentChange = (study: Begun): fc.Arbitrary<unknown> => {
  const kinds = OP_KINDS;
  const fields = fc.constantFrom<object>(blank('vehicle', { name: 'Drayman II', role: 'subject', sequence: 0 }), study.part(), {});
  const id = fc.oneof(fc.uuid(), fc.constantFrom(study.studyId, study.vehicleId, DASHES, '0'));
  const bent = fc
    .tuple(fields, fc.dictionary(fc.constantFrom('name', 'massEachKg', 'count', 'parentId', 'tag', 'evidence', 'x', '__proto__'), oddValue))
    .map(([whole, changed]) => ({ ...whole, ...changed }));
  const op = fc.oneof(
    { weight: 4, arbitrary: fc.record({ kind: fc.constantFrom(...kinds), id, fields: bent, was: fc.oneof(bent, fc.constant({})) }) },
    { weight: 1, arbitrary: fc.record({ kind: fc.constantFrom(...kinds), id, fields: bent }) },
    { weight: 1, arbitrary: fc.record({ kind: fc.constantFrom(...kinds), id, was: bent }) },
    { weight: 1, arbitrary: oddValue },
  );
  // the same op, so the same id, twice in one change
  const ops = fc.array(op, { maxLength: 4 }).chain((list) => fc.constantFrom(list, [...list, ...list]));
  return fc.record({ id, ops, undoes: fc.oneof(fc.constant(null), id) });
};

const bodyOf = (study: Begun): fc.Arbitrary<Shot['body']> =>
  fc.oneof(
    { weight: 5, arbitrary: bentChange(study).map((change) => JSON.stringify(change)) },
    { weight: 2, arbitrary: fc.dictionary(fc.constantFrom('login', 'password', 'name', 'next', 'command', 'host', 'port'), oddValue).map((form) => JSON.stringify(form)) }, // prettier-ignore
    { weight: 1, arbitrary: oddText },
    {
      weight: 1,
      arbitrary: fc.constantFrom('[', '{"a":', '[1]', '"a"', '1', `${'['.repeat(3000)}${']'.repeat(3000)}`, `{"id":"\\u0000"}`),
    },
    { weight: 1, arbitrary: fc.uint8Array({ maxLength: 200 }).map((bytes) => new Uint8Array(bytes)) },
    { weight: 1, arbitrary: oddText.map((text) => new Uint8Array(gzipSync(JSON.stringify({ login: text })))) },
  );

/** A request to any route of the program, by what it declares, with something odd about it. */
export const shot = (study: Begun): fc.Arbitrary<Shot> => {
  const idText = fc.oneof(fc.constantFrom(study.studyId, study.vehicleId, randomUUID()), oddText).map((text) => {
    // some as a browser would write it, some as they are
    try {
      return text.length % 2 === 0 ? encodeURIComponent(text) : text.replace(/[^\x21-\x7e]|[?#\\]/gu, '%');
    } catch {
      return '%ED%A0%80';
    }
  });
  const query = fc
    .dictionary(fc.constantFrom(...KEYS), oddText, { maxKeys: 3 })
    .map((asked) => Object.entries(asked).map(([key, text]) => `${key}=${encodeURIComponent(text.replace(/\p{Surrogate}/gu, "?"))}`).join('&')); // prettier-ignore
  const header = fc.oneof(
    { weight: 8, arbitrary: fc.constantFrom('application/json; charset=latin1', 'text/plain', 'application/zip', 'model/stl', 'a/b/c').map((type) => ['Content-Type', type]) }, // prettier-ignore
    { weight: 4, arbitrary: fc.constantFrom('gzip', 'br', 'identity', 'zzz').map((packed) => ['Content-Encoding', packed]) },
    { weight: 4, arbitrary: fc.constantFrom('\u00e9\u00ff', 'x'.repeat(3000)).map((device) => ['X-Device', device]) },
    { weight: 4, arbitrary: fc.constantFrom('1', '-1', '\u00ff', '9'.repeat(40)).map((id) => ['Last-Event-ID', id]) },
    { weight: 4, arbitrary: fc.constantFrom('bytes=5-1', 'bytes=0-0', '\u00ff').map((range) => ['Range', range]) },
    { weight: 1, arbitrary: fc.constantFrom('', '\u00ff', DASHES).map((account) => ['X-Account', account]) },
    { weight: 1, arbitrary: fc.constantFrom('eachbolt=s%3Ax.y', 'eachbolt=%', 'XSRF-TOKEN=\u00ff').map((cookie) => ['Cookie', cookie]) },
  );
  const headers = fc.array(header, { maxLength: 2 }).map((some): Record<string, string> => Object.fromEntries(some) as Record<string, string>); // prettier-ignore
  const withType = fc
    .tuple(headers, fc.boolean())
    .map(([some, isJson]) => (isJson ? { ...some, 'Content-Type': 'application/json' } : some));
  return fc
    .tuple(
      fc.constantFrom(...(Object.keys(ROUTES) as Route[])),
      fc.array(idText, { minLength: 3, maxLength: 3 }),
      fc.boolean(),
      query,
      withType,
      bodyOf(study),
    ) // prettier-ignore
    .map(([route, ids, isRight, asked, given, body]): Shot => {
      const [method = '', path = ''] = route.split(' ');
      let at = 0;
      const filled = path.replace(/:\w+/g, (name) => {
        at += 1;
        return isRight && name === ':id' ? study.studyId : (ids[at - 1] ?? '');
      });
      return { method, path: `${filled}${asked === '' ? '' : `?${asked}`}`, headers: given, body: method === 'GET' ? null : body };
    });
};

interface Heard {
  readonly status: number;
  readonly text: string;
}

/** Sends it as it is, without what a browser would mend; null when it cannot be sent at all. */
const send = (api: Api, { method, path, headers, body }: Shot): Promise<Heard | null> =>
  new Promise((done, failed) => {
    const { hostname, port } = new URL(api.address);
    let sent: ReturnType<typeof request>;
    try {
      sent = request({ hostname, port, method, path, headers: { ...api.headers, ...headers }, agent: false, timeout: 30_000 });
    } catch {
      done(null);
      return;
    }
    sent.on('timeout', () => sent.destroy(new Error('no answer within 30 s')));
    sent.on('error', failed);
    sent.on('response', (response) => {
      const status = response.statusCode ?? 0;
      const chunks: Buffer[] = [];
      // a stream never ends by itself
      if (response.headers['content-type']?.startsWith('text/event-stream')) {
        done({ status, text: '' });
        sent.destroy();
        return;
      }
      response.on('data', (chunk: Buffer) => chunks.push(chunk)).on('end', () => done({ status, text: Buffer.concat(chunks).toString() }));
    });
    sent.end(body ?? undefined);
  });

/** Sends a request; gives what is wrong with its answer, or null. */
export const wrongAnswer = async (api: Api, one: Shot): Promise<string | null> => {
  const asked = `${one.method} ${one.path} ${JSON.stringify(one.headers)} ${String(one.body).slice(0, 400)}`;
  let heard: Heard | null;
  try {
    heard = await send(api, one);
  } catch (error) {
    return `${asked} was not answered: ${String(error)}`;
  }
  if (heard === null || heard.status < 400) return null;
  if (heard.status >= 500) return `${asked} → ${heard.status} ${heard.text}`;
  // what is no HTTP is refused before it reaches the program
  if (heard.status === 400 && heard.text === '') return null;
  try {
    const { message } = JSON.parse(heard.text) as { readonly message?: unknown };
    return typeof message === 'string' && message.length > 10 ? null : `${asked} → ${heard.status} without a sentence`;
  } catch {
    return `${asked} → ${heard.status} ${heard.text.slice(0, 100)}`;
  }
};
