/** "Go to" (Alt+G): a box over any page of the Desk that finds pages, listings, venues and people while one types. */
import { openPage } from '@/client/site-root';
import { ask, sayFailure } from './api';
import { clientWords } from '@/words/desk';

const w = clientWords.go;

interface Goal {
  kind: string;
  name: string;
  more: string;
  href: string;
}

const PAUSE_MS = 120;
const GOAL =
  'flex min-h-6 cursor-pointer justify-between gap-3 border-b border-b-rule px-2.5 py-1.5 aria-selected:bg-tide-wash aria-selected:shadow-[inset_3px_0_0_var(--tide)]';
let open: HTMLDialogElement | undefined;

function element<K extends keyof HTMLElementTagNameMap>(tag: K, attributes: Record<string, string>, text = ''): HTMLElementTagNameMap[K] {
  const made = document.createElement(tag);
  for (const [name, value] of Object.entries(attributes)) made.setAttribute(name, value);
  made.textContent = text;
  return made;
}

/** The box with its field, its list and what is said, not yet in the page. */
function makeBox() {
  const box = element('dialog', {
    class:
      'm-auto w-[min(460px,92vw)] border border-rule-strong rounded-xs bg-sheet px-5 py-4.5 text-ink shadow-[0_10px_40px_rgb(0_0_0/.3)] backdrop:bg-[rgb(0_0_0/.4)]',
    'aria-labelledby': 'go-label',
  });
  const field = element('input', {
    id: 'go-field',
    class: 'box min-h-9.5 px-2.75 py-2',
    type: 'text',
    role: 'combobox',
    'aria-expanded': 'true',
    'aria-controls': 'go-list',
    'aria-autocomplete': 'list',
    autocomplete: 'off',
    maxlength: '100',
    placeholder: w.aPageAListing(),
  });
  const list = element('ul', { id: 'go-list', class: 'mt-2 max-h-[52vh] overflow-auto', role: 'listbox', 'aria-label': w.found() });
  const said = element('p', { class: 'hint', role: 'status' });
  box.append(element('label', { id: 'go-label', class: 'mb-1.25 block font-bold', for: 'go-field' }, w.goTo()), field, list, said);
  return { box, field, list, said };
}

function show(): void {
  if (open) return;
  const { box, field, list, said } = makeBox();
  document.body.append(box);
  open = box;
  let goals: Goal[] = [];
  let at = 0;
  let asked = 0;
  const mark = (next: number): void => {
    at = goals.length ? (next + goals.length) % goals.length : 0;
    for (const [i, item] of [...list.children].entries()) {
      item.setAttribute('aria-selected', String(i === at));
      if (i === at) item.scrollIntoView({ block: 'nearest' });
    }
    if (goals.length) field.setAttribute('aria-activedescendant', `go-${at}`);
    else field.removeAttribute('aria-activedescendant');
  };
  const draw = (): void => {
    list.replaceChildren(
      ...goals.map((goal, i) => {
        const item = element('li', { id: `go-${i}`, class: GOAL, role: 'option' });
        const kind = goal.kind === 'page' || goal.kind === 'command' ? '' : `${goal.kind} `;
        item.append(
          element('span', { class: 'wrap-anywhere' }, goal.name),
          element('span', { class: 'quiet small' }, `${kind}${goal.more}`.trim()),
        );
        item.addEventListener('click', () => openPage(goal.href));
        item.addEventListener('pointermove', () => i !== at && mark(i));
        return item;
      }),
    );
    mark(0);
  };
  const find = async (): Promise<void> => {
    const turn = ++asked;
    const outcome = await ask<Goal[]>(`/api/v1/go?words=${encodeURIComponent(field.value)}`);
    if (turn !== asked) return;
    goals = outcome.kind === 'done' ? outcome.value : [];
    said.textContent = outcome.kind === 'done' ? (goals.length ? '' : w.nothingIsCalledLike()) : sayFailure(outcome);
    draw();
  };
  let timer = 0;
  field.addEventListener('input', () => {
    clearTimeout(timer);
    timer = window.setTimeout(() => void find(), PAUSE_MS);
  });
  field.addEventListener('keydown', (event) => {
    if (event.key === 'ArrowDown') mark(at + 1);
    else if (event.key === 'ArrowUp') mark(at - 1);
    else if (event.key === 'Enter') {
      const goal = goals[at];
      if (goal) openPage(goal.href);
    } else return;
    event.preventDefault();
  });
  // A click beside the box closes it, as Escape does.
  box.addEventListener('click', (event) => event.target === box && box.close());
  box.addEventListener('close', () => {
    box.remove();
    open = undefined;
  });
  box.showModal();
  field.focus();
  void find();
}

document.querySelector('[data-go]')?.addEventListener('click', show);
document.addEventListener('keydown', (event) => {
  // By its place on the keyboard: with Alt some layouts type another sign.
  if (event.code !== 'KeyG' || !event.altKey || event.ctrlKey || event.metaKey || document.querySelector('dialog[open]')) return;
  event.preventDefault();
  show();
});
