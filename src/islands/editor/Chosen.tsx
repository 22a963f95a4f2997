/** What was chosen, in order: dragged by its handle, or carried by keyboard; Alt with an arrow moves it too. */
import type { KeyboardEvent } from 'react';
import { Button, GridList, GridListItem, useDragAndDrop } from 'react-aria-components';
import type { Choice } from '@/core/listing/editor';
import { moved } from './order';
import { editorWords } from '@/words/desk';

const w = editorWords.chosen;

interface ChosenProps {
  label: string;
  choices: readonly (Choice & { mark?: string; binned?: boolean })[];
  chosen: readonly string[];
  onChange: (ids: string[]) => void;
  /** where each has its own page, for those who may open it */
  pageOf?: ((id: string) => string) | undefined;
}

export function Chosen({ label, choices, chosen, onChange, pageOf }: ChosenProps) {
  const items = chosen.map((id) => ({ id, choice: choices.find((c) => c.id === id) }));
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ 'text/plain': items.find((i) => i.id === key)?.choice?.name ?? '' })),
    onReorder: (event) => {
      const keys = [...event.keys].map(String);
      onChange(moved(chosen, keys, String(event.target.key), event.target.dropPosition === 'after'));
    },
  });
  const onKey = (event: KeyboardEvent): void => {
    const id = (event.target as Element).closest<HTMLElement>('[data-key]')?.dataset.key;
    if (!id || !event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
    const other = chosen[chosen.indexOf(id) + (event.key === 'ArrowUp' ? -1 : 1)];
    event.preventDefault();
    event.stopPropagation();
    if (other) onChange(moved(chosen, [id], other, event.key === 'ArrowDown'));
  };
  return (
    <div role="presentation" onKeyDownCapture={onKey}>
      <GridList
        className="chips"
        aria-label={w.chosen({ label })}
        items={items}
        dependencies={[choices]}
        dragAndDropHooks={dragAndDropHooks}
        selectionMode="none"
      >
        {({ id, choice }) => (
          <GridListItem
            className="chip data-focus-visible:outline-2 data-focus-visible:outline-solid data-focus-visible:outline-tide data-focus-visible:outline-offset-2 data-dragging:opacity-50"
            id={id}
            textValue={choice?.name ?? w.somethingThatWasRemoved()}
          >
            <span className="inline-flex gap-1.75 items-center">
              {chosen.length > 1 && (
                <Button slot="drag" className="cursor-grab tracking-[-2px]" aria-label={w.move({ name: choice?.name ?? 'it' })}>
                  ⋮
                </Button>
              )}
              {choice?.mark && <span dangerouslySetInnerHTML={{ __html: choice.mark }} />}
              {choice && pageOf ? (
                <a href={pageOf(id)} target="_blank" rel="noreferrer" title={w.open({ name: choice.name })}>
                  {choice.name}
                </a>
              ) : (
                (choice?.name ?? w.somethingThatWasRemoved())
              )}
              {choice?.binned && <span className="amber small">{w.inTheBin()}</span>}
              <Button aria-label={w.takeOff({ name: choice?.name ?? 'it' })} onPress={() => onChange(chosen.filter((c) => c !== id))}>
                ✕
              </Button>
            </span>
          </GridListItem>
        )}
      </GridList>
    </div>
  );
}
