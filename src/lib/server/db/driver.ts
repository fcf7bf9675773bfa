/**
 * The driver's statements, made safe. Where a statement is refused because another connection holds the database, the driver
 * (libsql 0.5) leaves it unfinished, and all that the same connection writes afterwards is reported as done but committed
 * only when the statement is collected as garbage: acts that were acknowledged could be lost, and everybody else stays
 * locked out. What is executed as text is finished at once. So a transaction is begun and ended as text, and a statement
 * that writes by itself gets a transaction of its own: it can then never be refused in its middle.
 * Imported before the first connection is opened; tests/unit/server/locks.test.ts shows what happens otherwise.
 */
import Database from 'libsql';

interface Statement {
  safeIntegers(on: boolean): unknown;
  raw(on: boolean): unknown;
  run(...args: unknown[]): unknown;
  all(...args: unknown[]): unknown;
}
interface Connection {
  prepare(sql: string): Statement;
  exec(sql: string): unknown;
  readonly inTransaction: boolean;
}

const WRITES = /^\s*(insert|update|delete|replace|create|alter|drop)\b/i;
const TURNS = /^\s*(begin|commit|rollback)\b/i;

const connection = (Database as unknown as { prototype: Connection }).prototype;
const prepare = connection.prepare;

/** A beginning or an end of a transaction; as a statement that gives no rows it refuses to give them. */
const turn = (of: Connection, sql: string): Statement => {
  const none = (): never => {
    throw new TypeError('The statement gives no rows.');
  };
  return { safeIntegers: () => {}, raw: none, all: none, run: () => (of.exec(sql), { changes: 0, lastInsertRowid: 0 }) };
};

connection.prepare = function (this: Connection, sql: string): Statement {
  if (TURNS.test(sql)) return turn(this, sql);
  const statement = prepare.call(this, sql);
  if (!WRITES.test(sql)) return statement;
  for (const name of ['run', 'all'] as const) {
    const plain = statement[name].bind(statement);
    statement[name] = (...args: unknown[]): unknown => {
      if (this.inTransaction) return plain(...args);
      this.exec('begin immediate');
      try {
        const result = plain(...args);
        this.exec('commit');
        return result;
      } catch (error) {
        if (this.inTransaction) this.exec('rollback');
        throw error;
      }
    };
  }
  return statement;
};
