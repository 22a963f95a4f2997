/** What it is called. */
import { Text } from '../../fields/fields';
import type { PartProps } from './part';

export function What({ content, setContent, error, isNew }: PartProps & { isNew: boolean }) {
  const { title } = content;
  return (
    <section className="part" id="what">
      <h2>What</h2>
      <div className="grid">
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
