/** Details: cost, website, whom to ask, access, weight. */
import { readAmount } from '@/core/listing/cost';
import { readWebAddress } from '@/core/validation/links';
import type { Cost } from '@/core/listing/content';
import { Check, Select, Text } from '../../fields/fields';
import type { PartProps } from './part';

export function Details({ content, setContent, currency, error }: PartProps & { currency: string }) {
  const { cost, contact } = content;
  const kinds: Record<Cost['kind'], Cost> = {
    unsaid: { kind: 'unsaid' },
    free: { kind: 'free' },
    amount: { kind: 'amount', amount: '', currency },
    words: { kind: 'words', words: '' },
  };
  return (
    <section className="part pt-4 scroll-mt-16" id="details">
      <h2 className="text-[20px] border-b border-b-rule-strong pb-1.75 mb-3">Details</h2>
      <div className="grid gap-3">
        <div className="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-3 items-start">
          <Select
            label="Cost"
            value={cost.kind}
            options={
              [
                ['unsaid', 'not said'],
                ['free', 'Free'],
                ['amount', 'An amount'],
                ['words', 'In words'],
              ] as const
            }
            onChange={(kind) => setContent({ cost: kinds[kind] })}
          />
          {cost.kind === 'amount' && (
            <Text
              label={`Amount in ${cost.currency}`}
              name="cost"
              value={cost.amount}
              onChange={(amount) => setContent({ cost: { ...cost, amount } })}
              onLeave={(typed) => setContent({ cost: { ...cost, amount: readAmount(typed, cost.currency) ?? typed.trim() } })}
              error={error('cost')}
              hint="Such as 8, 12.50 or 12,50"
            />
          )}
          {cost.kind === 'words' && (
            <Text
              label="In words"
              name="cost"
              value={cost.words}
              maxLength={120}
              onChange={(words) => setContent({ cost: { ...cost, words } })}
              error={error('cost')}
            />
          )}
        </div>
        <Text
          label="Website"
          name="website"
          value={content.website}
          onChange={(website) => setContent({ website })}
          onLeave={(typed) => setContent({ website: readWebAddress(typed) ?? typed.trim() })}
          error={error('website')}
          hint="www.shore.example will do"
        />
        <div className="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-3 items-start">
          <Text
            label="Contact name"
            name="contact"
            value={contact.name}
            maxLength={120}
            onChange={(name) => setContent({ contact: { ...contact, name } })}
            error={error('contact')}
          />
          <Text
            label="Phone"
            type="tel"
            value={contact.phone}
            maxLength={60}
            onChange={(phone) => setContent({ contact: { ...contact, phone } })}
          />
          <Text
            label="Mail"
            type="email"
            value={contact.mail}
            maxLength={200}
            onChange={(mail) => setContent({ contact: { ...contact, mail } })}
          />
        </div>
        <Text
          label="Access"
          rows={2}
          value={content.access}
          maxLength={600}
          onChange={(access) => setContent({ access })}
          hint="Steps, hearing loop, parking, what to bring"
        />
        <div className="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-3 items-start">
          <Text
            label="People expected"
            name="expected"
            value={content.expected === null ? '' : String(content.expected)}
            onChange={(typed) => setContent({ expected: /^\d{1,6}$/.test(typed.trim()) && Number(typed) > 0 ? Number(typed) : null })}
            error={error('expected')}
            hint="Compared with what its venue holds"
          />
        </div>
        <Check
          label="Headline: give it more weight wherever it shows"
          checked={content.headline}
          onChange={(headline) => setContent({ headline })}
        />
      </div>
    </section>
  );
}
