/** What a form that answers while somebody types shares, wherever it stands. */

/** Typing rests so long before it is sent, in ms. */
export const REST = 250;

/** The words of a form as it would post them; files are left out. */
export const formBody = (sent: FormData): URLSearchParams =>
  new URLSearchParams([...sent].flatMap(([name, value]) => (typeof value === 'string' ? [[name, value]] : [])));
