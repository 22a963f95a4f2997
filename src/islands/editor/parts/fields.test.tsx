// @vitest-environment jsdom
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import type { ListingContent } from '@/core/listing/content';
import { emptyContent, FIELDS, type FieldOf, fieldOf } from '@/core/listing/fields';
import { inBrowser } from '../../../../tests/support/component';
import { Details } from './Details';
import { PlainField } from './PlainField';

inBrowser();

type Part = (props: Parameters<typeof Details>[0]) => React.ReactNode;

interface FormProps {
  part: Part;
  errors: Record<string, string>;
  tell: (content: ListingContent) => void;
}

function Form({ part, errors, tell }: FormProps) {
  const [content, setContent] = useState(emptyContent);
  tell(content);
  const change = (next: Partial<ListingContent> | ((before: ListingContent) => ListingContent)): void =>
    setContent((before) => (typeof next === 'function' ? next(before) : { ...before, ...next }));
  return part({ content, setContent: change, error: (name) => errors[name], currency: 'CAD' });
}

function setUp(part: Part, errors: Record<string, string> = {}) {
  let now = emptyContent();
  const tell = (content: ListingContent): void => {
    now = content;
  };
  render(<Form part={part} errors={errors} tell={tell} />);
  return { user: userEvent.setup(), content: () => now };
}

describe('a field made of its declaration', () => {
  it.each(['title', 'website', 'access', 'expected', 'eventStatusNote'] satisfies FieldOf<'line' | 'web' | 'number'>[])(
    '%s has its label, its bounds, and its error at it',
    async (field) => {
      setUp((props) => <PlainField {...props} field={field} />, { [field]: 'It is wrong.' });
      const input = screen.getByLabelText(FIELDS[field].label) as HTMLInputElement;
      const { type } = fieldOf(field);
      expect(input.maxLength).toBe('most' in type && type.is !== 'number' ? type.most : -1);
      expect(input.getAttribute('aria-invalid')).toBe('true');
      expect(screen.getByRole('alert').textContent).toBe('It is wrong.');
      expect(input.getAttribute('aria-describedby')).toContain(screen.getByRole('alert').id);
    },
  );

  it('puts an address into shape when it is left, and keeps what is none', async () => {
    const { user, content } = setUp((props) => <PlainField {...props} field="website" />);
    await user.type(screen.getByLabelText('Website'), 'www.shore.example');
    await user.tab();
    expect(content().website).toBe('https://www.shore.example');
    await user.clear(screen.getByLabelText('Website'));
    await user.type(screen.getByLabelText('Website'), ' ask at the quay ');
    await user.tab();
    expect(content().website).toBe('ask at the quay');
  });

  it('takes whole numbers from its least on, and nothing else', async () => {
    const { user, content } = setUp((props) => <PlainField {...props} field="expected" />);
    const field = screen.getByLabelText('People expected');
    await user.type(field, '40');
    expect(content().expected).toBe(40);
    await user.type(field, 'x');
    expect(content().expected).toBeNull();
    // What is too many is refused at the field, never made fewer.
    await user.type(field, '2000000');
    expect(content().expected).toBe(2_000_000);
  });
});

describe('details', () => {
  it('ask for what the kind of cost needs', async () => {
    const { user, content } = setUp((props) => <Details {...props} />);
    await user.selectOptions(screen.getByLabelText('Cost'), 'An amount');
    await user.type(screen.getByLabelText('Amount in CAD'), '12,50');
    await user.tab();
    expect(content().cost).toEqual({ kind: 'amount', amount: '12.50', currency: 'CAD' });
    await user.selectOptions(screen.getByLabelText('Cost'), 'In words');
    await user.type(screen.getByLabelText('In words'), 'by donation');
    expect(content().cost).toEqual({ kind: 'words', words: 'by donation' });
    await user.click(screen.getByLabelText(/Headline/));
    expect(content().headline).toBe(true);
  });
});
