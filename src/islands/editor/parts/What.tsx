/** What it is called. */
import { Text } from '../../fields/fields';
import type { PartProps } from './part';

export function What({ content, setContent, error, isNew }: PartProps & { isNew: boolean }) {
  const { title } = content;
  return (
    <section className="part pt-4 scroll-mt-16" id="what">
      <h2 className="text-[20px] border-b border-b-rule-strong pb-1.75 mb-3">What</h2>
      <div className="grid gap-3">
        <Text
          label="Title"
          name="title"
          autoFocus={isNew}
          value={title}
          maxLength={160}
          onChange={(value) => setContent({ title: value })}
          error={error('title')}
        />
      </div>
    </section>
  );
}
