/** What it is: title, categories, summary, text. */
import { lazy, Suspense } from 'react';
import { SHORT_TITLE_FITS, SUMMARY_SHOWN } from '@/core/listing/content';
import type { EditorStart } from '@/core/listing/editor';
import { Text } from '../../fields/fields';
import { Picker } from '../Picker';
import type { PartProps } from './part';

const Writing = lazy(() => import('../Writing'));

export function What({ content, setContent, start, error }: PartProps & { start: EditorStart }) {
  const { summary, shortTitle, title } = content;
  return (
    <section className="part" id="what">
      <h2>What</h2>
      <div className="grid">
        <Text
          label="Title"
          name="title"
          autoFocus={!start.id}
          value={title}
          maxLength={160}
          onChange={(value) => setContent({ title: value })}
          error={error('title')}
        />
        <Text
          label="Short title"
          name="shortTitle"
          value={shortTitle}
          maxLength={60}
          onChange={(value) => setContent({ shortTitle: value })}
          error={error('shortTitle')}
          hint={`Shown where room is short, in the month; about ${SHORT_TITLE_FITS} characters fit a line. ${shortTitle ? `${shortTitle.length} now.` : 'Empty: the title.'}`}
        />
        <Picker
          label="Categories"
          hint={
            content.categoryIds.length ? 'The first gives the mark.' : start.fallback ? `None: it stands under “${start.fallback}”.` : ''
          }
          choices={start.categories}
          chosen={content.categoryIds}
          onChange={(categoryIds) => setContent({ categoryIds })}
          error={error('categoryIds') ?? error('categories')}
        />
        <Text
          label="Summary"
          name="summary"
          rows={2}
          value={summary}
          maxLength={400}
          onChange={(value) => setContent({ summary: value })}
          error={error('summary')}
          hint={`One or two sentences. ${summary.length} characters; lists show ${Math.min(summary.length, SUMMARY_SHOWN.list)} of them, search engines ${Math.min(summary.length, SUMMARY_SHOWN.search)}.`}
        />
        <div className="field">
          <span className="label" id="text-label">
            Text
          </span>
          <Suspense fallback={<div className="writing">…</div>}>
            <Writing html={content.text} labelId="text-label" onChange={(text) => setContent({ text })} />
          </Suspense>
          {error('text') && (
            <span className="wrong" role="alert">
              {error('text')}
            </span>
          )}
        </div>
      </div>
    </section>
  );
}
