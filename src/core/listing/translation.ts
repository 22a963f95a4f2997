/** A listing's words in a second language, beside its own. What is not translated is read as it was written. */
import type { Language } from '../phrase/language';
import { picturesInText } from '../picture/picture-url';
import { plainText } from '../text/text';
import { type ListingContent, TRANSLATED, type TranslatedLanguage, type Translation, type Translations } from './content';

/** A translation in which nothing is said. */
export const NO_TRANSLATION: Translation = { title: '', shortTitle: '', summary: '', text: '' };

type Words = Pick<ListingContent, 'title' | 'shortTitle' | 'summary'>;

const isTranslated = (language: Language): language is TranslatedLanguage => TRANSLATED.some((one) => one === language);

/** The translation into a language; undefined where there is none. */
export function translationOf(translations: Translations | null | undefined, language: Language): Translation | undefined {
  return isTranslated(language) ? translations?.[language] : undefined;
}

/** Is nothing translated? */
export const isUntranslated = ({ title, shortTitle, summary, text }: Translation): boolean =>
  !title && !shortTitle && !summary && !plainText(text).trim() && !picturesInText(text).length;

/** Title and summary in a language. A short title and a summary go with what they are short for, never with the other language's. */
export function wordsIn<T extends Words>(own: T, translation: Translation | undefined): T {
  if (!translation) return own;
  const { title, shortTitle, summary, text } = translation;
  return {
    ...own,
    ...(title || shortTitle ? { title: title || own.title, shortTitle } : {}),
    ...(summary || text ? { summary } : {}),
  };
}

/** A content as readers of a language have it. */
export function contentIn(content: ListingContent, language: Language): ListingContent {
  const translation = translationOf(content.translations, language);
  return translation ? { ...wordsIn(content, translation), text: translation.text || content.text } : content;
}

/** With a translation changed; one of which nothing is left is no translation. */
export function withTranslation(content: ListingContent, language: TranslatedLanguage, change: Partial<Translation>): ListingContent {
  const next = { ...(content.translations?.[language] ?? NO_TRANSLATION), ...change };
  const { translations: _before, ...rest } = content;
  return isUntranslated(next) ? rest : { ...rest, translations: { ...content.translations, [language]: next } };
}
