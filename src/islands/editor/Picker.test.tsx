// @vitest-environment jsdom
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { inBrowser } from '../../../tests/support/component';
import { Picker } from './Picker';

inBrowser();
const VENUES = [
  { id: 'loft', name: 'Net Loft', more: 'Gannet Bay' },
  { id: 'planet', name: 'Planet Room', more: 'Lantern Quay' },
  { id: 'hall', name: 'St Bride’s Hall', more: 'Port Amble' },
  { id: 'well', name: 'Bride’s Well', more: 'Outer Skerry' },
  { id: 'barn', name: 'Bride’s Barn', more: 'Outer Skerry' },
];

interface FormProps {
  changed: (ids: string[]) => void;
  onMake: ((name: string) => void) | undefined;
}

function Form({ changed, onMake }: FormProps) {
  const [chosen, setChosen] = useState<string[]>([]);
  const change = (ids: string[]): void => {
    changed(ids);
    setChosen(ids);
  };
  return <Picker label="Venues" choices={VENUES} chosen={chosen} onMake={onMake} onChange={change} />;
}

function setUp({ onMake }: { onMake?: (name: string) => void } = {}) {
  const changed = vi.fn<(ids: string[]) => void>();
  render(<Form changed={changed} onMake={onMake} />);
  return { changed, field: screen.getByRole('combobox', { name: 'Venues' }), user: userEvent.setup() };
}
const options = (): string[] =>
  within(screen.getByRole('listbox'))
    .getAllByRole('option')
    .map((o) => o.textContent?.trim() ?? '');

describe('choosing by typing', () => {
  it('marks what is plainly meant, and Enter takes it', async () => {
    const { changed, field, user } = setUp();
    await user.type(field, 'net l');
    expect(screen.getByRole('option', { selected: true }).textContent).toContain('Net Loft');
    expect(field.getAttribute('aria-activedescendant')).toBe(screen.getByRole('option', { selected: true }).id);
    await user.keyboard('{Enter}');
    expect(changed).toHaveBeenLastCalledWith(['loft']);
    expect((field as HTMLInputElement).value).toBe('');
  });

  it('takes nothing by Enter while two may be meant; arrows choose', async () => {
    const { changed, field, user } = setUp();
    await user.type(field, 'bride');
    expect(options()).toHaveLength(3);
    await user.keyboard('{Enter}');
    expect(changed).not.toHaveBeenCalled();
    expect(screen.getByText('Choose with the arrows, or type more')).toBeTruthy();
    await user.keyboard('{ArrowDown}{ArrowDown}{Enter}');
    expect(changed).toHaveBeenLastCalledWith(['barn']);
  });

  it('offers to make what is not there, and says so when it is left', async () => {
    const onMake = vi.fn<(name: string) => void>();
    const { field, user } = setUp({ onMake });
    await user.type(field, 'Kelp Store');
    expect(options()).toEqual(['Make “Kelp Store” …']);
    await user.keyboard('{Escape}');
    expect(screen.getByRole('status').textContent).toContain('“Kelp Store” is not chosen.');
    expect(field.getAttribute('aria-invalid')).toBe('true');
    await user.click(screen.getByRole('button', { name: 'Make “Kelp Store”' }));
    expect(onMake).toHaveBeenCalledWith('Kelp Store');
  });

  it('takes the last one off by Backspace in the empty field', async () => {
    const { changed, field, user } = setUp();
    await user.type(field, 'planet{Enter}');
    await user.type(field, 'well{Enter}');
    expect(changed).toHaveBeenLastCalledWith(['planet', 'well']);
    await user.type(field, '{Backspace}');
    expect(changed).toHaveBeenLastCalledWith(['planet']);
  });
});
