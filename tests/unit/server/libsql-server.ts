/**
 * A stand-in for a libSQL server: its open protocol over HTTP (Hrana 2, "pipelines",
 * https://github.com/tursodatabase/libsql/blob/main/docs/HTTP_V2_SPEC.md) over the local driver. A stream is a connection of
 * its own, named by its baton; a statement that meets a lock waits without holding up the others.
 */
import '../../../src/lib/server/db/driver.ts';
import { randomUUID } from 'node:crypto';
import { createServer, type Server } from 'node:http';
import { setTimeout as wait } from 'node:timers/promises';
import Database from 'libsql';

type Value =
  | { type: 'null' }
  | { type: 'integer'; value: string }
  | { type: 'float'; value: number }
  | { type: 'text'; value: string }
  | { type: 'blob'; base64: string };
interface Stmt {
  sql?: string;
  sql_id?: number;
  args?: Value[];
  named_args?: { name: string; value: Value }[];
}
type Condition =
  | { type: 'ok'; step: number }
  | { type: 'error'; step: number }
  | { type: 'not'; cond: Condition }
  | { type: 'and'; conds: Condition[] }
  | { type: 'or'; conds: Condition[] }
  | { type: 'is_autocommit' };
type Request =
  | { type: 'execute'; stmt: Stmt }
  | { type: 'batch'; batch: { steps: { condition?: Condition | null; stmt: Stmt }[] } }
  | { type: 'sequence'; sql?: string; sql_id?: number }
  | { type: 'store_sql'; sql_id: number; sql: string }
  | { type: 'close_sql'; sql_id: number }
  | { type: 'get_autocommit' }
  | { type: 'close' };

const toDriver = (v: Value): unknown =>
  v.type === 'null' ? null : v.type === 'integer' ? BigInt(v.value) : v.type === 'blob' ? Buffer.from(v.base64, 'base64') : v.value;
const fromDriver = (v: unknown): Value =>
  v === null
    ? { type: 'null' }
    : typeof v === 'bigint'
      ? { type: 'integer', value: String(v) }
      : typeof v === 'number'
        ? { type: 'float', value: v }
        : typeof v === 'string'
          ? { type: 'text', value: v }
          : {
              type: 'blob',
              base64: Buffer.from(v as Uint8Array)
                .toString('base64')
                .replace(/=+$/, '')
            };

interface Prepared {
  safeIntegers(on: boolean): void;
  raw(on: boolean): void;
  columns(): { name: string; type: string | null }[];
  all(args: unknown): unknown[][];
  run(args: unknown): { changes: number | bigint; lastInsertRowid: number | bigint };
}
interface Driver {
  exec(sql: string): void;
  prepare(sql: string): Prepared;
  close(): void;
  readonly inTransaction: boolean;
}

/** Like the server: a lock is waited for up to so long. */
const PATIENCE_MS = 5000;

class Stream {
  private readonly db: Driver;
  private readonly stored = new Map<number, string>();
  constructor(file: string) {
    this.db = new (Database as unknown as new (file: string, options: object) => Driver)(file, { timeout: 1 });
    this.db.exec('pragma foreign_keys = on');
  }

  close(): void {
    if (this.db.inTransaction) this.db.exec('rollback');
    this.db.close();
  }

  async answer(request: Request): Promise<object> {
    const { type } = request;
    if (type === 'execute') return { type, result: await this.execute(request.stmt) };
    if (type === 'batch') return { type, result: await this.batch(request.batch.steps) };
    if (type === 'sequence') await this.patiently(() => this.db.exec(this.sqlOf(request)));
    if (type === 'store_sql') this.stored.set(request.sql_id, request.sql);
    if (type === 'close_sql') this.stored.delete(request.sql_id);
    if (type === 'get_autocommit') return { type, is_autocommit: !this.db.inTransaction };
    return { type };
  }

  private sqlOf = (stmt: { sql?: string; sql_id?: number }): string => stmt.sql ?? this.stored.get(stmt.sql_id!)!;

  private async patiently<T>(work: () => T): Promise<T> {
    const end = Date.now() + PATIENCE_MS;
    for (;;)
      try {
        return work();
      } catch (error) {
        if ((error as { code?: string }).code !== 'SQLITE_BUSY' || Date.now() > end) throw error;
        await wait(5);
      }
  }

  private execute(stmt: Stmt): Promise<object> {
    return this.patiently(() => {
      const prepared = this.db.prepare(this.sqlOf(stmt));
      prepared.safeIntegers(true);
      const args = stmt.named_args?.length
        ? Object.fromEntries(stmt.named_args.map((a) => [a.name.replace(/^[:@$]/, ''), toDriver(a.value)]))
        : (stmt.args ?? []).map(toDriver);
      let gives = true;
      try {
        prepared.raw(true);
      } catch {
        gives = false;
      }
      if (gives) {
        const cols = prepared.columns().map((c) => ({ name: c.name, decltype: c.type }));
        const rows = prepared.all(args).map((row: unknown[]) => row.map(fromDriver));
        return { cols, rows, affected_row_count: 0, last_insert_rowid: null };
      }
      const done = prepared.run(args);
      return { cols: [], rows: [], affected_row_count: Number(done.changes), last_insert_rowid: String(done.lastInsertRowid) };
    });
  }

  private async batch(steps: { condition?: Condition | null; stmt: Stmt }[]): Promise<object> {
    const results: (object | null)[] = [];
    const errors: (object | null)[] = [];
    const holds = (c: Condition): boolean => {
      if (c.type === 'ok') return results[c.step] !== null;
      if (c.type === 'error') return errors[c.step] !== null;
      if (c.type === 'not') return !holds(c.cond);
      if (c.type === 'is_autocommit') return !this.db.inTransaction;
      if (c.type === 'and') return c.conds.every(holds);
      return c.type === 'or' && c.conds.some(holds);
    };
    for (const { condition, stmt } of steps) {
      const meant = !condition || holds(condition);
      let fault: object | null = null;
      const result = meant ? await this.execute(stmt).catch((e: unknown) => ((fault = faultOf(e)), null)) : null;
      results.push(result);
      errors.push(fault);
    }
    return { step_results: results, step_errors: errors };
  }
}

const faultOf = (error: unknown): { message: string; code: string } => ({
  message: (error as Error).message,
  code: (error as { code?: string }).code ?? 'SQLITE_ERROR'
});

export interface LibsqlServer {
  url: string;
  server: Server;
  /** How many pipelines were answered. */
  answered(): number;
  close(): Promise<void>;
}

/** Serves a database's file under an address. */
export async function serveLibsql(file: string): Promise<LibsqlServer> {
  const streams = new Map<string, Stream>();
  let answered = 0;
  const server = createServer((request, response) => {
    void (async () => {
      const chunks: Buffer[] = [];
      for await (const chunk of request) chunks.push(chunk as Buffer);
      if (request.method !== 'POST' || !request.url?.endsWith('/v2/pipeline'))
        return void response.writeHead(request.url?.endsWith('/v2') ? 200 : 404).end();
      answered++;
      const { baton, requests } = JSON.parse(Buffer.concat(chunks).toString()) as { baton: string | null; requests: Request[] };
      let stream = baton === null || baton === undefined ? new Stream(file) : streams.get(baton);
      if (baton) streams.delete(baton);
      if (!stream) return void response.writeHead(400).end(JSON.stringify({ message: 'The stream has expired', code: 'STREAM_EXPIRED' }));
      const results: object[] = [];
      for (const r of requests) {
        try {
          results.push({ type: 'ok', response: await stream.answer(r) });
        } catch (error) {
          results.push({ type: 'error', error: faultOf(error) });
        }
        if (r.type === 'close') {
          stream.close();
          stream = undefined;
          break;
        }
      }
      const next = stream ? randomUUID() : null;
      if (stream && next) streams.set(next, stream);
      response.setHeader('content-type', 'application/json');
      response.end(JSON.stringify({ baton: next, base_url: null, results }));
    })();
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  const { port } = server.address() as { port: number };
  return {
    url: `http://127.0.0.1:${port}`,
    server,
    answered: () => answered,
    close: async () => {
      for (const stream of streams.values()) stream.close();
      server.closeAllConnections();
      await new Promise((done) => server.close(done));
    }
  };
}
