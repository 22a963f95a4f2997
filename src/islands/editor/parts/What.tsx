/** What it is called, here and where there is little room. */
import { SHORT_TITLE_FITS } from '@/core/listing/content';
import { Text } from '../../fields/fields';
import type { PartProps } from './part';

export function What({ content, setContent, error, isNew }: PartProps & { isNew: boolean }) {
  const { shortTitle, title } = content;
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
        <Text
          label="Short title"
          name="shortTitle"
          value={shortTitle}
          maxLength={60}
          onChange={(value) => setContent({ shortTitle: value })}
          error={error('shortTitle')}
          hint={`Shown where room is short, in the month; about ${SHORT_TITLE_FITS} characters fit a line. ${shortTitle ? `${shortTitle.length} now.` : 'Empty: the title.'}`}
        />
      </div>
    </section>
  );
}
