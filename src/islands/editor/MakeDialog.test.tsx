// @vitest-environment jsdom
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { inBrowser } from '../../../tests/support/component';
import { MakeDialog } from './MakeDialog';

inBrowser();
afterEach(() => vi.unstubAllGlobals());

function setUp(answer: () => Response, kind: 'venues' | 'organizers' = 'venues') {
  const sent: unknown[] = [];
  vi.stubGlobal('fetch', async (path: string, { body }: { body: string }) => {
    sent.push([path, JSON.parse(body)]);
    return answer();
  });
  const onMade = vi.fn();
  const onTake = vi.fn();
  const known = [{ id: 'loft', name: 'Net Loft', more: 'Gannet Bay' }];
  render(<MakeDialog kind={kind} name="Kelp Store" known={known} onMade={onMade} onTake={onTake} onClose={() => undefined} />);
  return { sent, onMade, onTake, user: userEvent.setup() };
}

describe('a place made beside the listing', () => {
  it('is sent with what was typed before and here', async () => {
    const { sent, onMade, user } = setUp(() => Response.json({ id: 'v1', name: 'Kelp Store' }));
    await user.type(screen.getByLabelText('Town'), 'Gannet Bay');
    await user.click(screen.getByRole('button', { name: 'Make it' }));
    await waitFor(() => expect(onMade).toHaveBeenCalledWith({ id: 'v1', name: 'Kelp Store' }, 'Gannet Bay'));
    expect(sent).toEqual([['/api/v1/venues', { name: 'Kelp Store', street: '', town: 'Gannet Bay', island: '' }]]);
  });

  it('needs a name, said at the field before anything is sent', async () => {
    const { sent, user } = setUp(() => Response.json({}));
    await user.clear(screen.getByLabelText('Name'));
    await user.click(screen.getByRole('button', { name: 'Make it' }));
    const name = screen.getByLabelText('Name');
    await waitFor(() => expect(name.getAttribute('aria-invalid')).toBe('true'));
    expect(document.getElementById(name.getAttribute('aria-describedby') ?? '')?.textContent).toBe('It needs a name.');
    expect(sent).toEqual([]);
  });

  it('has what the server finds at its field, and keeps what was typed', async () => {
    const refusal = { title: 'Please look at the mail address.', fields: [{ field: 'mail', message: 'A mail address has an @.' }] };
    const { onMade, user } = setUp(() => Response.json(refusal, { status: 422 }), 'organizers');
    await user.type(screen.getByLabelText('Mail'), 'harbour choir');
    await user.click(screen.getByRole('button', { name: 'Make it' }));
    const mail = screen.getByLabelText('Mail') as HTMLInputElement;
    await waitFor(() => expect(mail.getAttribute('aria-invalid')).toBe('true'));
    expect(document.getElementById(mail.getAttribute('aria-describedby') ?? '')?.textContent).toBe('A mail address has an @.');
    expect(mail.value).toBe('harbour choir');
    expect(onMade).not.toHaveBeenCalled();
  });

  it('can be sent again after something was wrong that has no field here', async () => {
    const gone = { title: 'That category is gone.', fields: [{ field: 'categoryId', message: 'That category is gone.' }] };
    let answers = 0;
    const { sent, onMade, user } = setUp(() =>
      answers++ ? Response.json({ id: 'o1', name: 'Kelp Store' }) : Response.json(gone, { status: 422 }),
    );
    await user.click(screen.getByRole('button', { name: 'Make it' }));
    expect((await screen.findByRole('alert')).textContent).toBe('That category is gone.');
    await user.click(screen.getByRole('button', { name: 'Make it' }));
    await waitFor(() => expect(onMade).toHaveBeenCalled());
    expect(sent).toHaveLength(2);
  });

  it('offers one that is there already under nearly the same name', async () => {
    const { onTake, user } = setUp(() => Response.json({}));
    await user.clear(screen.getByLabelText('Name'));
    await user.type(screen.getByLabelText('Name'), 'Net Lofft');
    await user.click(await screen.findByRole('button', { name: /Net Loft/ }));
    expect(onTake).toHaveBeenCalledWith('loft');
  });
});
