/** What is written of it, and what it belongs to: categories, tags, summary, text. */
import { siteAddress } from '@/client/site-root';
import { lazy, Suspense, useState } from 'react';
import { makeTag, sayFailure, send } from '@/client/api';
import { SHORT_TITLE_FITS, SUMMARY_SHOWN } from '@/core/listing/content';
import type { EditorStart } from '@/core/listing/editor';
import { Picker } from '../Picker';
import { Translated } from './Translated';
import type { PartProps } from './part';
import { PlainField } from './PlainField';
import { editorWords } from '@/words/desk';

const w = editorWords.words;

const Writing = lazy(() => import('../Writing'));

export function Words({ content, setContent, start, error }: PartProps & { start: EditorStart }) {
  const { shortTitle, summary } = content;
  const part = { content, setContent, error };
  const [tags, setTags] = useState(start.tags);
  const [categories, setCategories] = useState(start.categories);
  const [wrong, setWrong] = useState<{ tag?: string | undefined; category?: string | undefined }>({});
  const nameTag = async (name: string): Promise<void> => {
    const outcome = await makeTag(name);
    setWrong({ tag: outcome.kind === 'done' ? undefined : sayFailure(outcome) });
    if (outcome.kind !== 'done') return;
    const { id } = outcome.value;
    setTags((before) => (before.some((t) => t.id === id) ? before : [...before, { ...outcome.value, more: '' }]));
    setContent((c) => ({ ...c, tagIds: [...new Set([...c.tagIds, id])] }));
  };
  const makeCategory = async (name: string): Promise<void> => {
    const outcome = await send<{ id: string; name: string; mark: string }>('POST', '/api/v1/categories', { name });
    setWrong({ category: outcome.kind === 'done' ? undefined : sayFailure(outcome) });
    if (outcome.kind !== 'done') return;
    const { id } = outcome.value;
    setCategories((before) => [...before, { ...outcome.value, more: '', child: false, picture: false }]);
    setContent((c) => ({ ...c, categoryIds: [...c.categoryIds, id] }));
  };
  return (
    <section className="part pt-4 scroll-mt-16" id="words">
      <h2 className="text-[20px] border-b border-b-rule-strong pb-1.75 mb-3">{w.words()}</h2>
      <div className="grid gap-3">
        <Picker
          label={w.categories()}
          hint={content.categoryIds.length ? w.theFirstGivesThe() : start.fallback ? w.noneItStandsUnder({ fallback: start.fallback }) : ''}
          choices={categories}
          onMake={start.mayMake ? (name) => void makeCategory(name) : undefined}
          pageOf={start.mayMake ? (id) => siteAddress(`/desk/categories/${id}`) : undefined}
          name="categories"
          chosen={content.categoryIds}
          onChange={(categoryIds) => setContent({ categoryIds })}
          error={error('categoryIds') ?? error('categories') ?? wrong.category}
        />
        <Picker
          label={w.tags()}
          hint={w.wordsThatBelongTogether()}
          choices={tags}
          chosen={content.tagIds}
          onChange={(tagIds) => setContent({ tagIds })}
          onMake={(name) => void nameTag(name)}
          error={error('tagIds') ?? wrong.tag}
        />
        <PlainField
          field="shortTitle"
          {...part}
          hint={w.shownWhereRoomIs({
            shortTitleFits: SHORT_TITLE_FITS,
            shortTitle: shortTitle ? w.now({ n: shortTitle.length }) : w.emptyTheTitle(),
          })}
        />
        <PlainField
          field="summary"
          {...part}
          hint={w.oneOrTwoSentences({
            has: summary.length,
            inLists: Math.min(summary.length, SUMMARY_SHOWN.list),
            inSearch: Math.min(summary.length, SUMMARY_SHOWN.search),
          })}
        />
        <TextField content={content} setContent={setContent} error={error} />
        {start.site.secondLanguage && (
          <Translated content={content} setContent={setContent} error={error} language={start.site.secondLanguage} />
        )}
      </div>
    </section>
  );
}

/** The listing's text; its editor weighs more than the form and comes a moment later. */
function TextField({ content, setContent, error }: PartProps) {
  return (
    <div className="field">
      <span className="label" id="text-label">
        {w.text()}
      </span>
      <Suspense
        fallback={
          <div className="writing border border-ink-3 py-2.5 px-3.25 min-h-37.5 bg-sheet focus-within:outline-2 focus-within:outline-solid focus-within:outline-tide focus-within:outline-offset-2">
            …
          </div>
        }
      >
        <Writing html={content.text} labelId="text-label" onChange={(text) => setContent({ text })} />
      </Suspense>
      {error('text') && (
        <span className="wrong" role="alert">
          {error('text')}
        </span>
      )}
    </div>
  );
}
