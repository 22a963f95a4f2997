// @vitest-environment jsdom
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { inBrowser } from '../../../tests/support/component';
import type { TableStart } from './chosen';
import { RowEdit } from './RowEdit';

inBrowser();
afterEach(() => vi.unstubAllGlobals());

const START: TableStart = {
  query: '',
  total: 1,
  mayPublish: true,
  mayMake: true,
  currency: 'CAD',
  style: { date: 'day-month', hours: '24' },
  today: '2027-03-17',
  run: '',
  categories: [{ id: 'music', name: 'Music & dance' }],
  venues: [{ id: 'loft', name: 'Net Loft' }],
  organizers: [],
  tags: [],
};

/** A row as the server makes it. */
function setUp(answer: (body: { revision: number; set: { field: string; value: string } }) => unknown) {
  document.body.innerHTML = `<table data-rows><tbody><tr data-id="l1" data-revision="4">
    <td data-edit="title" data-value="Choir"><a href="/desk/listings/l1"><strong>Choir</strong></a></td>
    <td data-edit="venue" data-value="" tabindex="-1"></td>
    <td data-edit="stage" data-value="draft" tabindex="-1"><span class="stage draft">Draft</span></td>
  </tr></tbody></table><div id="island"></div>`;
  const sent: unknown[] = [];
  vi.stubGlobal('fetch', async (_path: string, { body }: { body: string }) => {
    const asked = JSON.parse(body);
    sent.push(asked);
    const said = answer(asked) as { status?: number };
    return new Response(JSON.stringify(said), { status: said.status ?? 200 });
  });
  render(<RowEdit start={START} />, { container: document.querySelector('#island') as HTMLElement });
  const title = (): HTMLElement => document.querySelector('td[data-edit=title]') as HTMLElement;
  return { sent, title, user: userEvent.setup() };
}
const saved = (title: string, revision: number) => ({
  revision,
  stage: 'draft',
  edited: false,
  title,
  cost: { kind: 'unsaid' },
  start: '',
  next: { day: null, minute: null },
});

describe('a row of the table', () => {
  it('is renamed by F2 and Enter, says so, and goes back by one press', async () => {
    const { sent, title, user } = setUp(({ revision, set }) => saved(set.value, revision + 1));
    title().querySelector('a')?.focus();
    await user.keyboard('{F2}');
    const field = screen.getByRole('textbox');
    await user.clear(field);
    await user.type(field, 'Harbour Choir{Enter}');
    await waitFor(() => expect(title().textContent).toContain('Harbour Choir'));
    expect(sent).toEqual([{ revision: 4, set: { field: 'title', value: 'Harbour Choir' } }]);
    expect(screen.getByRole('status').textContent).toContain('Saved: title of “Harbour Choir” is “Harbour Choir”.');
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(title().textContent).toContain('Choir'));
    expect(sent[1]).toEqual({ revision: 5, set: { field: 'title', value: 'Choir' } });
    expect(screen.queryByRole('button', { name: 'Undo' })).toBeNull();
  });

  it('is left as it was by Escape, and sends nothing', async () => {
    const { sent, title, user } = setUp(() => saved('never', 5));
    title().querySelector('a')?.focus();
    await user.keyboard('{F2}');
    await user.type(screen.getByRole('textbox'), ' and supper{Escape}');
    expect(sent).toEqual([]);
    expect(title().textContent).toContain('Choir');
    expect(title().textContent).not.toContain('supper');
  });

  it('says why something was refused, and stays open with what was typed', async () => {
    const { title, user } = setUp(() => ({ status: 409, title: 'Ivo saved it meanwhile.' }));
    title().querySelector('a')?.focus();
    await user.keyboard('{F2}');
    await user.clear(screen.getByRole('textbox'));
    await user.type(screen.getByRole('textbox'), 'Late Choir{Enter}');
    await waitFor(() => expect(screen.getByRole('alert').textContent).toBe('Ivo saved it meanwhile.'));
    expect((screen.getByRole('textbox') as HTMLInputElement).value).toBe('Late Choir');
    expect(title().dataset.value).toBe('Choir');
  });
});
