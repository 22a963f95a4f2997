/** What it is called. */
import type { PartProps } from './part';
import { PlainField } from './PlainField';
import { editorWords } from '@/words/desk';

const w = editorWords.what;

export function What({ content, setContent, error, isNew }: PartProps & { isNew: boolean }) {
  return (
    <section className="part pt-4 scroll-mt-16" id="what">
      <h2 className="text-[20px] border-b border-b-rule-strong pb-1.75 mb-3">{w.what()}</h2>
      <div className="grid gap-3">
        <PlainField field="title" content={content} setContent={setContent} error={error} autoFocus={isNew} />
      </div>
    </section>
  );
}
