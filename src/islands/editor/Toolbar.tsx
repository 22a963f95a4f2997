/** The tools of a listing's text, and the row in which a link is written. */
import { type Editor, useEditorState } from '@tiptap/react';
import { editorWords } from '@/words/desk';

const w = editorWords.writing;

interface ToolbarProps {
  editor: Editor;
  onLink: () => void;
  onFile: (file: File) => void;
  onLibrary: () => void;
}

export function Toolbar({ editor, onLink, onFile, onLibrary }: ToolbarProps) {
  const on = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      bold: now.isActive('bold'),
      italic: now.isActive('italic'),
      h2: now.isActive('heading', { level: 2 }),
      h3: now.isActive('heading', { level: 3 }),
      list: now.isActive('bulletList'),
      numbers: now.isActive('orderedList'),
      quote: now.isActive('blockquote'),
      link: now.isActive('link'),
    }),
  });
  const chain = () => editor.chain().focus();
  const tool = (text: string, label: string, pressed: boolean | undefined, run: () => void) => (
    <button
      type="button"
      className="min-h-7 min-w-7.5 rounded-xs px-1.75 aria-pressed:bg-ink aria-pressed:text-sheet"
      key={label}
      aria-label={label}
      title={label}
      aria-pressed={pressed ?? false}
      onClick={run}
    >
      {text}
    </button>
  );
  return (
    <div className="flex flex-wrap gap-0.5 border border-ink-3 border-b-0 bg-wash p-0.75" role="toolbar" aria-label={w.textTools()}>
      {tool('B', w.bold(), on.bold, () => chain().toggleBold().run())}
      {tool('I', w.italic(), on.italic, () => chain().toggleItalic().run())}
      {tool('H2', w.heading(), on.h2, () => chain().toggleHeading({ level: 2 }).run())}
      {tool('H3', w.smallerHeading(), on.h3, () => chain().toggleHeading({ level: 3 }).run())}
      {tool(w.list(), w.list2(), on.list, () => chain().toggleBulletList().run())}
      {tool(w.n1List(), w.numberedList(), on.numbers, () => chain().toggleOrderedList().run())}
      {tool('“ ”', w.quote(), on.quote, () => chain().toggleBlockquote().run())}
      {tool(w.link(), w.link(), on.link, () => (on.link ? chain().unsetLink().run() : onLink()))}
      <label className="button small relative">
        {w.picture()}
        <input
          type="file"
          accept="image/*"
          className="absolute inset-0 opacity-0"
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) onFile(file);
            e.target.value = '';
          }}
        />
      </label>
      {tool(w.library(), w.insertOneYouHave(), undefined, onLibrary)}
    </div>
  );
}

interface LinkRowProps {
  href: string;
  setHref: (href: string) => void;
  onLink: (href: string) => void;
  onLeave: () => void;
}

export function LinkRow({ href, setHref, onLink, onLeave }: LinkRowProps) {
  return (
    <div className="row border border-b-0 border-ink-3 p-1.5">
      <input
        className="box flex-1"
        aria-label={w.addressOfTheLink()}
        placeholder={w.wwwShoreExample()}
        // biome-ignore lint/a11y/noAutofocus: somebody just asked for this field
        autoFocus
        onKeyDown={(e) => {
          if (e.key === 'Enter') {
            e.preventDefault();
            onLink(href);
          } else if (e.key === 'Escape') onLeave();
        }}
        value={href}
        onChange={(e) => setHref(e.target.value)}
      />
      <button type="button" className="button small" onClick={() => onLink(href)}>
        {w.linkIt()}
      </button>
      <button type="button" className="button small" onClick={onLeave}>
        {w.noLink()}
      </button>
    </div>
  );
}
