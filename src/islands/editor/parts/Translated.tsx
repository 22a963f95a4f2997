/** The listing's words in the site's second language. What stays empty is shown as it stands above. */
import { lazy, Suspense, useState } from 'react';
import type { TranslatedLanguage, Translation } from '@/core/listing/content';
import { FIELDS, mostOf } from '@/core/listing/fields';
import { isUntranslated, NO_TRANSLATION, withTranslation } from '@/core/listing/translation';
import { LANGUAGE_TAGS } from '@/core/phrase/language';
import { Text } from '../../fields/fields';
import type { PartProps } from './part';
import { editorWords } from '@/words/desk';

const w = editorWords.translated;

const Writing = lazy(() => import('../Writing'));

/** What is translated beside the text. */
const LINES = ['title', 'shortTitle', 'summary'] as const;

/** The Desk is in English. */
const DESK_NAMES = new Intl.DisplayNames('en', { type: 'language' });

export function Translated({ content, setContent, error, language }: PartProps & { language: TranslatedLanguage }) {
  const own = content.translations?.[language] ?? NO_TRANSLATION;
  const set = (change: Partial<Translation>): void => setContent((c) => withTranslation(c, language, change));
  const name = DESK_NAMES.of(language) ?? language;
  const at = (field: keyof Translation): string | undefined => error(`translations.${language}.${field}`);
  const [opened, setOpened] = useState(false);
  const open = opened || Boolean(at('title') ?? at('shortTitle') ?? at('summary') ?? at('text'));
  return (
    <details
      className="border-t border-t-rule pt-2"
      open={open}
      onToggle={(event) => setOpened(event.currentTarget.open)}
      data-part="translation"
    >
      <summary className="cursor-pointer">
        <strong>{w.inIt({ name })}</strong>
        {!open && <span className="quiet">: {own.title || (isUntranslated(own) ? w.nothingYet() : w.begun())}</span>}
      </summary>
      {open && (
        <div className="mt-2.5 grid gap-3" lang={LANGUAGE_TAGS[language]}>
          <p className="hint m-0" lang="en">
            {w.readersOfThePages({ name })}
          </p>
          {LINES.map((field) => (
            <Text
              key={field}
              label={w.in2({ label: FIELDS[field].label, name })}
              name={`translated-${field}`}
              value={own[field]}
              maxLength={mostOf(field)}
              onChange={(value) => set({ [field]: value })}
              error={at(field)}
              {...('rows' in FIELDS[field].type ? { rows: FIELDS[field].type.rows } : {})}
            />
          ))}
          <div className="field">
            <span className="label" id="translated-text-label">
              {w.textIn({ name })}
            </span>
            <Suspense fallback={<div className="writing min-h-37.5 border border-ink-3" />}>
              <Writing html={own.text} onChange={(text) => set({ text })} labelId="translated-text-label" />
            </Suspense>
          </div>
        </div>
      )}
    </details>
  );
}
