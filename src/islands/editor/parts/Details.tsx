/** Details: cost, website, whom to ask, access, weight. */
import { readAmount } from '@/core/listing/cost';
import { FIELDS, MOST_IN, optionsOf } from '@/core/listing/fields';
import type { Cost } from '@/core/listing/content';
import { Check, Select, Text } from '../../fields/fields';
import type { PartProps } from './part';
import { PlainField } from './PlainField';
import { editorWords } from '@/words/desk';

const w = editorWords.details;

export function Details({ content, setContent, currency, error }: PartProps & { currency: string }) {
  const { cost } = content;
  const part = { content, setContent, error };
  const kinds: Record<Cost['kind'], Cost> = {
    unsaid: { kind: 'unsaid' },
    free: { kind: 'free' },
    amount: { kind: 'amount', amount: '', currency },
    words: { kind: 'words', words: '' },
  };
  return (
    <section className="part pt-4 scroll-mt-16" id="details">
      <h2 className="text-[20px] border-b border-b-rule-strong pb-1.75 mb-3">{w.details()}</h2>
      <div className="grid gap-3">
        <div className="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-3 items-start">
          <Select
            label={w.cost()}
            value={cost.kind}
            options={
              [
                ['unsaid', w.notSaid()],
                ['free', w.free()],
                ['amount', w.anAmount()],
                ['words', w.inWords()],
              ] as const
            }
            onChange={(kind) => setContent({ cost: kinds[kind] })}
          />
          {cost.kind === 'amount' && (
            <Text
              label={w.amountIn({ currency: cost.currency })}
              name="cost"
              value={cost.amount}
              onChange={(amount) => setContent({ cost: { ...cost, amount } })}
              onLeave={(typed) => setContent({ cost: { ...cost, amount: readAmount(typed, cost.currency) ?? typed.trim() } })}
              error={error('cost')}
              hint={w.suchAs812()}
            />
          )}
          {cost.kind === 'words' && (
            <Text
              label={w.inWords()}
              name="cost"
              value={cost.words}
              maxLength={MOST_IN.costWords}
              onChange={(words) => setContent({ cost: { ...cost, words } })}
              error={error('cost')}
            />
          )}
        </div>
        <PlainField field="website" {...part} />
        <div className="grid grid-cols-[minmax(0,1fr)_170px] gap-3 items-start max-[700px]:grid-cols-1">
          <PlainField field="callAddress" {...part} />
          {content.callAddress && (
            <Select
              label={FIELDS.callKind.label}
              value={content.callKind}
              options={optionsOf('callKind')}
              onChange={(callKind) => setContent({ callKind })}
            />
          )}
        </div>
        <ContactFields content={content} setContent={setContent} error={error} />
        <PlainField field="access" {...part} />
        <div className="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-3 items-start">
          <PlainField field="expected" {...part} />
        </div>
        <Check label={w.headlineGiveItMore()} checked={content.headline} onChange={(headline) => setContent({ headline })} />
      </div>
    </section>
  );
}

/** Whom to ask. */
function ContactFields({ content: { contact }, setContent, error }: PartProps) {
  return (
    <div className="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-3 items-start">
      <Text
        label={w.contactName()}
        name="contact"
        value={contact.name}
        maxLength={MOST_IN.contactName}
        onChange={(name) => setContent({ contact: { ...contact, name } })}
        error={error('contact')}
      />
      <Text
        label={w.phone()}
        type="tel"
        value={contact.phone}
        maxLength={MOST_IN.phone}
        onChange={(phone) => setContent({ contact: { ...contact, phone } })}
      />
      <Text
        label={w.mail()}
        type="email"
        value={contact.mail}
        maxLength={MOST_IN.mail}
        onChange={(mail) => setContent({ contact: { ...contact, mail } })}
      />
    </div>
  );
}
