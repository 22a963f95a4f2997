// The thread that holds the embedded database, so that a long query does not stop the web server's event loop.
// Plain JavaScript, read from the project's folder at run time: the build does not bundle it.
import fs from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import { PGlite } from '@electric-sql/pglite';
import { NodeFS } from '@electric-sql/pglite/nodefs';

/** Without this, fsync of a data file is a no-op and a power cut could lose what was acknowledged. */
class DurableNodeFS extends NodeFS {
  async init(pg, options) {
    const result = await super.init(pg, options);
    const { emscriptenOpts } = result;
    const preRun = emscriptenOpts.preRun ?? [];
    emscriptenOpts.preRun = [
      ...preRun,
      (mod) => {
        mod.NODEFS.stream_ops.fsync = (stream) => {
          fs.fsyncSync(stream.nfd);
          return 0;
        };
      },
    ];
    return result;
  }
}

// Dates and times come back as PostgreSQL wrote them; Drizzle reads them (its own parsers cannot cross threads).
const RAW = [1082, 1114, 1184, 1186, 1115, 1182, 1185, 1187, 1231];
const parsers = Object.fromEntries(RAW.map((type) => [type, (value) => value]));
// Bytes cross as hexadecimal text. PGlite writes and reads that byte by byte: 0.7 s a megabyte, in which nobody else is answered.
const BYTEA = 17;
parsers[BYTEA] = (text) => Buffer.from(text.slice(2), 'hex');
const serializers = {
  [BYTEA]: (bytes) => `\\x${Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('hex')}`,
};

const { folder } = workerData;
// The whole database lies in memory's reach, so a page out of order costs little more than the next one.
const options = ['fsync=on', 'wal_sync_method=fsync', 'random_page_cost=1.1'].flatMap((option) => ['-c', option]);

async function open() {
  fs.statSync(folder);
  const startParams = [...PGlite.defaultStartParams.filter((p) => p !== '-F'), ...options];
  const pg = new PGlite({ fs: new DurableNodeFS(folder), parsers, serializers, startParams });
  await pg.waitReady;
  return pg;
}

function failureOf(error) {
  const fields = ['message', 'code', 'detail', 'constraint', 'table', 'column', 'severity'];
  return Object.fromEntries(fields.map((name) => [name, error?.[name]]));
}

const ready = open();
ready.then(
  () => parentPort.postMessage({ ready: true }),
  (error) => parentPort.postMessage({ ready: false, failure: failureOf(error) }),
);

const actions = {
  query: async (pg, { text, params, rowMode }) => {
    const { rows, fields, affectedRows } = await pg.query(text, params, rowMode ? { rowMode } : {});
    return { rows, fields, affectedRows };
  },
  exec: async (pg, { text }) => {
    await pg.exec(text);
    return null;
  },
  close: async (pg) => {
    await pg.close();
    return null;
  },
};

parentPort.on('message', async ({ id, action, ...rest }) => {
  try {
    const value = await actions[action](await ready, rest);
    parentPort.postMessage({ id, value });
  } catch (error) {
    parentPort.postMessage({ id, failure: failureOf(error) });
  }
});
