/**
 * The server's log: lines a person reads, or JSON where ALMANAC_LOG is `json`. An error is logged with its kind, its codes and where it
 * came from, never with the values of a query: those are what people typed.
 */
import pino, { type DestinationStream, type Logger } from 'pino';
import pretty from 'pino-pretty';
import { requestId } from './request-id';

/** What is logged of an error. */
export interface LoggedError {
  type: string;
  message: string;
  code?: string;
  constraint?: string;
  stack: string;
}

const MOST_LINES = 12;

/** An error without anything that somebody typed. */
export function loggedError(error: unknown): LoggedError {
  if (!(error instanceof Error)) return { type: typeof error, message: 'a value that is no error was thrown', stack: '' };
  const cause = error.cause as { code?: string; constraint?: string } | undefined;
  const { code = cause?.code, constraint = cause?.constraint } = error as { code?: string; constraint?: string };
  const isQuery = error.name === 'DrizzleQueryError' || error.message.startsWith('Failed query') || constraint !== undefined;
  const stack = (error.stack ?? '')
    .split('\n')
    .filter((line) => line.trim().startsWith('at '))
    .slice(0, MOST_LINES)
    .join('\n');
  return {
    type: error.name,
    message: isQuery ? 'a query failed' : error.message,
    ...(code ? { code } : {}),
    ...(constraint ? { constraint } : {}),
    stack,
  };
}

/** @param format `json`, or anything else for lines a person reads */
export function makeLog(format: string | undefined, to?: DestinationStream): Logger {
  const mixin = (): object => {
    const request = requestId();
    return request ? { request } : {};
  };
  const options = { base: undefined, serializers: { err: loggedError }, level: 'info', mixin };
  if (format === 'json') return pino(options, to ?? pino.destination({ dest: 2, sync: true }));
  const lines = pretty({
    colorize: false,
    sync: true,
    translateTime: 'SYS:yyyy-mm-dd HH:MM:ss',
    ...(to ? { destination: to } : { destination: 2 }),
  });
  return pino(options, lines);
}

/** The server's log; `ALMANAC_LOG=json` writes JSON. */
export const log: Logger = makeLog(process.env.ALMANAC_LOG);
