/** Pictures in a row: dragged by their handle, or moved with Alt and an arrow. */
import type { KeyboardEvent } from 'react';
import { Button, GridList, GridListItem, useDragAndDrop } from 'react-aria-components';
import type { PictureChoice } from '@/core/listing/editor';
import { Thumb } from '../../pictures/Thumb';
import { moved } from '../order';
import { editorWords } from '@/words/desk';

const w = editorWords.pictureOrder;

interface OrderProps {
  pictures: readonly PictureChoice[];
  /** whose words are open */
  described: string | undefined;
  onOrder: (change: (ids: readonly string[]) => string[]) => void;
  onDescribe: (id: string) => void;
}

export function PictureOrder({ pictures, described, onOrder, onDescribe }: OrderProps) {
  const ids = pictures.map((p) => p.id);
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ 'text/plain': pictures.find((p) => p.id === key)?.alt ?? '' })),
    onReorder: ({ keys, target }) =>
      onOrder((now) => moved(now, [...keys].map(String), String(target.key), target.dropPosition === 'after')),
  });
  const onKey = (event: KeyboardEvent): void => {
    const id = (event.target as Element).closest<HTMLElement>('[data-key]')?.dataset.key;
    const back = event.key === 'ArrowUp' || event.key === 'ArrowLeft';
    if (!id || !event.altKey || !(back || event.key === 'ArrowDown' || event.key === 'ArrowRight')) return;
    event.preventDefault();
    event.stopPropagation();
    const other = ids[ids.indexOf(id) + (back ? -1 : 1)];
    if (other) onOrder((now) => moved(now, [id], other, !back));
  };
  const nameOf = (picture: PictureChoice): string => picture.alt || picture.name || w.aPicture();
  return (
    <div role="presentation" onKeyDownCapture={onKey}>
      <GridList
        className="picture-row flex flex-wrap gap-3 items-end"
        aria-label={w.picturesOfThisListing()}
        items={pictures}
        layout="grid"
        dependencies={[described, ids.join()]}
        dragAndDropHooks={dragAndDropHooks}
        selectionMode="none"
        onAction={(key) => onDescribe(String(key))}
      >
        {(picture) => (
          <GridListItem
            className={`block no-underline text-inherit bg-transparent border-b-2 border-b-rule pb-1 text-left min-w-0 w-27.5 relative outline-offset-3 first:w-49 [&.on]:border-tide data-dragging:opacity-50 data-focus-visible:outline-2 data-focus-visible:outline-solid data-focus-visible:outline-tide frame${picture.id === described ? ' on' : ''}`}
            id={picture.id}
            textValue={nameOf(picture)}
          >
            <Thumb picture={picture} use={picture.id === ids[0] ? 'wide' : 'square'} width={picture.id === ids[0] ? 196 : 110} />
            <span className="flex items-center justify-between min-h-7">
              {pictures.length > 1 && (
                <Button
                  slot="drag"
                  className="min-h-6.5 min-w-6.5 cursor-grab tracking-[-2px] text-ink-2"
                  aria-label={w.move({ picture: nameOf(picture) })}
                >
                  ⋮
                </Button>
              )}
              <span className="small">
                {picture.id === ids[0] ? w.cover() : picture.alt ? '' : <span className="amber">{w.noDescription()}</span>}
              </span>
              <Button
                className="min-h-6.5 min-w-6.5 text-ink-2"
                aria-label={w.takeOff({ picture: nameOf(picture) })}
                onPress={() => onOrder((now) => now.filter((id) => id !== picture.id))}
              >
                ✕
              </Button>
            </span>
          </GridListItem>
        )}
      </GridList>
    </div>
  );
}
