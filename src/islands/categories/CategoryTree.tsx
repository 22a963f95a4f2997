/** The tree of categories: dragged, or carried by keyboard; Alt with an arrow moves one a step. Kept as it is moved, and undone. */
import { siteAddress } from '@/client/site-root';
import { type KeyboardEvent, useState } from 'react';
import { Button, Collection, Tree, TreeItem, TreeItemContent, useDragAndDrop } from 'react-aria-components';
import { sayFailure, send } from '@/client/api';
import { movedInTree, steppedInTree, type TreeItem as Item, type TreeMove } from '@/core/category/tree';
import { categoriesWords } from '@/words/desk';

const w = categoriesWords.categoryTree;

interface Branch extends Item {
  name: string;
  mark: string;
  uses: number;
  fallback: boolean;
  children: Branch[];
}

export interface CategoryStart extends Item {
  name: string;
  /** as the public sheet draws it */
  mark: string;
  uses: number;
  fallback: boolean;
}

const STEPS: Record<string, 'up' | 'down' | 'in' | 'out'> = { ArrowUp: 'up', ArrowDown: 'down', ArrowRight: 'in', ArrowLeft: 'out' };

export default function CategoryTree({ categories }: { categories: CategoryStart[] }) {
  const [items, setItems] = useState(categories);
  const [before, setBefore] = useState<CategoryStart[][]>([]);
  const [said, setSaid] = useState('');
  const [wrong, setWrong] = useState('');
  const keep = async (next: CategoryStart[], past: CategoryStart[][]): Promise<void> => {
    const last = items;
    setItems(next);
    setBefore(past);
    const outcome = await send('PUT', '/api/v1/categories/order', { order: next.map(({ id, parentId }) => ({ id, parentId })) });
    setWrong(sayFailure(outcome));
    if (outcome.kind === 'done') setSaid(w.kept());
    else setItems(last);
  };
  const apply = (moved: Item[] | string): void => {
    if (typeof moved === 'string') {
      setSaid('');
      setWrong(moved);
      return;
    }
    const byId = new Map(items.map((item) => [item.id, item]));
    void keep(
      moved.flatMap(({ id, parentId }) => {
        const item = byId.get(id);
        return item ? [{ ...item, parentId }] : [];
      }),
      [...before, items],
    );
  };
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ 'text/plain': items.find((i) => i.id === key)?.name ?? '' })),
    shouldAcceptItemDrop: (target) => items.find((i) => i.id === target.key)?.parentId === null,
    onMove: (event) => {
      const [id] = [...event.keys].map(String);
      if (id)
        apply(movedInTree(items, { id, target: String(event.target.key), position: event.target.dropPosition as TreeMove['position'] }));
    },
  });
  const onKey = (event: KeyboardEvent): void => {
    const id = (event.target as Element).closest<HTMLElement>('[data-key]')?.dataset.key;
    const step = STEPS[event.key];
    if (!id || !step || !event.altKey) return;
    event.preventDefault();
    event.stopPropagation();
    apply(steppedInTree(items, id, step));
  };
  const branches = items
    .filter((item) => !item.parentId)
    .map((item): Branch => ({ ...item, children: items.filter((c) => c.parentId === item.id).map((c) => ({ ...c, children: [] })) }));
  const undo = before[before.length - 1];
  return (
    <div role="presentation" onKeyDownCapture={onKey}>
      <Tree
        aria-label={w.categoriesInTheirOrder()}
        className="category-tree border-t-2 border-t-rule-strong border-b-2 border-b-rule-strong bg-sheet outline-none"
        items={branches}
        dependencies={[items]}
        defaultExpandedKeys={categories.filter((c) => !c.parentId).map((c) => c.id)}
        dragAndDropHooks={dragAndDropHooks}
        selectionMode="none"
      >
        {(item) => <Row item={item} />}
      </Tree>
      <p className="row small m-0 mt-2">
        <span className="quiet">{w.dragOrAltWith()}</span>
        {undo && (
          <button type="button" className="button small" onClick={() => void keep(undo, before.slice(0, -1))}>
            {w.undo()}
          </button>
        )}
        <span role="status" className={wrong ? 'red' : 'quiet'}>
          {wrong || said}
        </span>
      </p>
    </div>
  );
}

function Row({ item }: { item: Branch }) {
  return (
    <TreeItem
      className="border-b border-b-rule py-1.25 pr-2.5 pl-[calc(10px+(var(--tree-item-level,1)-1)*28px)] -outline-offset-2 outline-tide aria-[level=2]:pl-11 data-focus-visible:outline-2 data-drop-target:outline-2 *:min-h-6.5"
      id={item.id}
      textValue={item.name}
    >
      <TreeItemContent>
        <Button slot="drag" className="bg-transparent min-w-6 min-h-6 cursor-grab text-ink-2" aria-label={w.move({ name: item.name })}>
          ⋮
        </Button>
        {item.children.length > 0 ? (
          <Button
            slot="chevron"
            className="bg-transparent min-w-6 min-h-6 cursor-grab text-ink-2"
            aria-label={w.whatStandsUnder({ name: item.name })}
          >
            ▾
          </Button>
        ) : (
          <span className="inline-block w-6" />
        )}
        <span dangerouslySetInnerHTML={{ __html: item.mark }} />
        <a className="mx-2" href={siteAddress(`/desk/categories/${item.id}`)}>
          {item.name}
        </a>
        <span className="quiet small">
          {item.uses} {w.listing({ uses: item.uses })}
          {item.fallback && w.theFallbackListingsWithout()}
        </span>
      </TreeItemContent>
      <Collection items={item.children}>{(child) => <Row item={child} />}</Collection>
    </TreeItem>
  );
}
