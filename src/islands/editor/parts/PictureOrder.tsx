/** Pictures in a row: dragged by their handle, or moved with Alt and an arrow. */
import type { KeyboardEvent } from 'react';
import { Button, GridList, GridListItem, useDragAndDrop } from 'react-aria-components';
import type { PictureChoice } from '@/core/listing/editor';
import { Thumb } from '../../pictures/Thumb';
import { moved } from '../order';

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
  const nameOf = (picture: PictureChoice): string => picture.alt || picture.name || 'a picture';
  return (
    <div role="presentation" onKeyDownCapture={onKey}>
      <GridList
        className="picture-row"
        aria-label="Pictures of this listing"
        items={pictures}
        layout="grid"
        dependencies={[described, ids.join()]}
        dragAndDropHooks={dragAndDropHooks}
        selectionMode="none"
        onAction={(key) => onDescribe(String(key))}
      >
        {(picture) => (
          <GridListItem className={`frame${picture.id === described ? ' on' : ''}`} id={picture.id} textValue={nameOf(picture)}>
            <Thumb picture={picture} use={picture.id === ids[0] ? 'wide' : 'square'} width={picture.id === ids[0] ? 196 : 110} />
            <span className="frame-foot">
              {pictures.length > 1 && (
                <Button slot="drag" className="grip" aria-label={`Move ${nameOf(picture)}`}>
                  ⋮
                </Button>
              )}
              <span className="small">
                {picture.id === ids[0] ? 'Cover' : picture.alt ? '' : <span className="amber">no description</span>}
              </span>
              <Button aria-label={`Take ${nameOf(picture)} off`} onPress={() => onOrder((now) => now.filter((id) => id !== picture.id))}>
                ✕
              </Button>
            </span>
          </GridListItem>
        )}
      </GridList>
    </div>
  );
}
