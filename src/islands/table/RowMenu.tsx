/** What can be done with one listing of the table: from its row's button, or by the keys that stand in it. */
import { Menu, MenuItem, Popover } from 'react-aria-components';
import { tableWords } from '@/words/desk';

const w = tableWords.rowMenu;

export type RowCommand = 'edit' | 'view' | 'rename' | 'publish' | 'withdraw' | 'draft' | 'bin';

interface RowMenuProps {
  /** the button that opened it */
  button: HTMLElement;
  title: string;
  stage: string;
  mayPublish: boolean;
  onCommand: (command: RowCommand) => void;
  onClose: () => void;
}

export default function RowMenu({ button, title, stage, mayPublish, onCommand, onClose }: RowMenuProps) {
  const commands: [RowCommand, string, string][] = [
    ['edit', w.edit(), 'E'],
    ['view', stage === 'published' ? w.seeThePage() : w.preview(), 'V'],
    ['rename', w.renameHere(), 'F2'],
    ...(mayPublish && stage !== 'binned' ? [['publish', w.publish(), ''] as [RowCommand, string, string]] : []),
    ...(mayPublish && stage === 'published' ? [['withdraw', w.withdrawFromReaders(), ''] as [RowCommand, string, string]] : []),
    ...(stage === 'draft' ? [] : [['draft', w.makeItADraft(), ''] as [RowCommand, string, string]]),
    ...(stage === 'binned' ? [] : [['bin', w.putInTheBin(), w.deleteIt()] as [RowCommand, string, string]]),
  ];
  return (
    <Popover
      triggerRef={{ current: button }}
      isOpen
      onOpenChange={(open) => !open && onClose()}
      placement="bottom end"
      className="min-w-[190px] border border-ink bg-sheet shadow-lg"
    >
      <Menu
        aria-label={w.whatToDoWith({ title: title || 'it' })}
        className="outline-none"
        autoFocus="first"
        onAction={(key) => onCommand(key as RowCommand)}
      >
        {commands.map(([command, words, key]) => (
          <MenuItem
            key={command}
            id={command}
            textValue={words}
            className="flex min-h-7 cursor-pointer items-center justify-between gap-4 px-3 py-1 outline-none data-[focused]:bg-wash"
          >
            {words} {key && <kbd>{key}</kbd>}
          </MenuItem>
        ))}
      </Menu>
    </Popover>
  );
}
