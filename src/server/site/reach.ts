/** Whether the site is reached under its address: it asks itself there, as a reader would, and looks whether it is itself that answers. */
import { isOnlyHere } from '@/core/text/origin';
import { settingsWords } from '@/words/desk';

const w = settingsWords.checks;

/** The page that says whose it is. */
export const HERE = '/herez';
/** An address that says nothing for so long is given up, in seconds. */
const PATIENCE = 10;
/** An answer is not read farther than this, in bytes. */
const LONGEST = 2000;

/** Is this what such a page is asked with? */
export const isNonce = (text: string): boolean => /^[0-9a-f-]{36}$/.test(text);

/** What only this site can answer to a nonce. */
export const tokenFor = (sign: (text: string) => string, nonce: string): string => sign(`here ${nonce}`);

/** How a look at an address went, in words. */
export interface Reached {
  well: boolean;
  said: string;
}

/** What a system's error says, through whatever wrapped it. */
function codeOf(error: unknown): { code: string; message: string } {
  for (let at = error, depth = 0; at instanceof Error && depth < 5; at = at.cause, depth++) {
    const code = (at as NodeJS.ErrnoException).code;
    if (typeof code === 'string') return { code, message: at.message };
  }
  return { code: error instanceof Error ? error.name : '', message: error instanceof Error ? error.message : String(error) };
}

async function readStart(response: Response): Promise<string> {
  const reader = response.body?.getReader();
  if (!reader) return '';
  let text = '';
  const decoder = new TextDecoder();
  for (let part = await reader.read(); !part.done && text.length < LONGEST; part = await reader.read())
    text += decoder.decode(part.value, { stream: true });
  await reader.cancel();
  return text;
}

const saying = (said: string, well = false): Reached => ({ well, said });

/**
 * Asks an address of the site whether this site answers there. `token` is what it has to answer with; redirects are followed, since a proxy
 * may lead from one scheme to the other. Never throws: what went wrong is the answer.
 */
export async function lookAtAddress(address: string, nonce: string, token: string): Promise<Reached> {
  const begun = performance.now();
  try {
    const response = await fetch(`${address}${HERE}?nonce=${nonce}`, { signal: AbortSignal.timeout(PATIENCE * 1000) });
    const text = await readStart(response);
    const { ok, status } = response;
    if (text.trim() !== token) return saying(ok || status === 404 ? w.other({ address }) : w.status({ address, status }));
    if (isOnlyHere(address)) return saying(w.onlyHere({ address }));
    const ms = Math.max(1, Math.round(performance.now() - begun));
    return saying(w.here({ address, ms }), true);
  } catch (error) {
    const { code, message } = codeOf(error);
    if (code === 'ENOTFOUND' || code === 'EAI_AGAIN') return saying(w.noName({ host: new URL(address).hostname }));
    if (code === 'ECONNREFUSED' || code === 'EHOSTUNREACH' || code === 'ENETUNREACH' || code === 'ECONNRESET' || code === 'UND_ERR_SOCKET')
      return saying(w.nobody({ address }));
    if (code === 'TimeoutError' || code === 'ETIMEDOUT' || code === 'UND_ERR_CONNECT_TIMEOUT')
      return saying(w.slow({ address, seconds: PATIENCE }));
    if (/CERT|SELF_SIGNED|ALTNAME|TLS|SSL/.test(code)) return saying(w.certificate({ address, why: message.slice(0, 200) }));
    return saying(w.otherWhy({ address, why: message.slice(0, 200) }));
  }
}
