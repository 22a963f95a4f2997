/** The listing's words in the site's second language. What stays empty is shown as it stands above. */
import { lazy, Suspense, useState } from 'react';
import type { TranslatedLanguage, Translation } from '@/core/listing/content';
import { mostOf } from '@/core/listing/fields';
import { isUntranslated, NO_TRANSLATION, withTranslation } from '@/core/listing/translation';
import { LANGUAGE_TAGS } from '@/core/phrase/language';
import { Text } from '../../fields/fields';
import type { PartProps } from './part';

const Writing = lazy(() => import('../Writing'));

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
        <strong>In {name}</strong>
        {!open && <span className="quiet">: {own.title || (isUntranslated(own) ? 'nothing yet' : 'begun')}</span>}
      </summary>
      {open && (
        <div className="mt-2.5 grid gap-3" lang={LANGUAGE_TAGS[language]}>
          <p className="hint m-0" lang="en">
            Readers of the {name} pages see this. What you leave empty, they see as it stands above.
          </p>
          <Text
            label={`Title in ${name}`}
            name="translatedTitle"
            value={own.title}
            maxLength={mostOf('title')}
            onChange={(title) => set({ title })}
            error={at('title')}
          />
          <Text
            label={`Short title in ${name}`}
            name="translatedShortTitle"
            value={own.shortTitle}
            maxLength={mostOf('shortTitle')}
            onChange={(shortTitle) => set({ shortTitle })}
            error={at('shortTitle')}
          />
          <Text
            label={`Summary in ${name}`}
            name="translatedSummary"
            rows={2}
            value={own.summary}
            maxLength={mostOf('summary')}
            onChange={(summary) => set({ summary })}
            error={at('summary')}
          />
          <div className="field">
            <span className="label" id="translated-text-label">
              Text in {name}
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
