/** The listing's text: headings, lists, quotes, links, pictures. What is pasted is cleaned by the schema here and again on the server. */
import { EditorContent, useEditor, useEditorState } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { useEffect, useRef, useState } from 'react';
import { sayFailure, send } from '@/client/api';
import type { PictureChoice } from '@/core/listing/editor';
import { pictureLink } from '@/core/picture/in-text';
import { ChooseDialog } from '../pictures/ChooseDialog';
import { PictureTools } from './PictureTools';
import { TextImage } from './text-image';
import { editorWords } from '@/words/desk';

const w = editorWords.writing;

export default function Writing({ html, onChange, labelId }: { html: string; onChange: (html: string) => void; labelId: string }) {
  const seen = useRef(html);
  const [wrong, setWrong] = useState('');
  const [linking, setLinking] = useState<string | null>(null);
  const [choosing, setChoosing] = useState(false);
  const editor = useEditor({
    extensions: [
      StarterKit.configure({
        heading: { levels: [2, 3] },
        code: false,
        codeBlock: false,
        link: { openOnClick: false, protocols: ['http', 'https', 'mailto', 'tel'], defaultProtocol: 'https' },
      }),
      TextImage,
    ],
    content: html,
    editorProps: { attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-labelledby': labelId, class: 'prose' } },
    onUpdate: ({ editor: now }) => {
      seen.current = now.isEmpty ? '' : now.getHTML();
      onChange(seen.current);
    },
  });
  // A newer copy from the server, or one that was kept, replaces what stands here.
  useEffect(() => {
    if (editor && html !== seen.current) {
      seen.current = html;
      editor.commands.setContent(html, { emitUpdate: false });
    }
  }, [editor, html]);
  const on = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      bold: now?.isActive('bold'),
      italic: now?.isActive('italic'),
      h2: now?.isActive('heading', { level: 2 }),
      h3: now?.isActive('heading', { level: 3 }),
      list: now?.isActive('bulletList'),
      numbers: now?.isActive('orderedList'),
      quote: now?.isActive('blockquote'),
      link: now?.isActive('link'),
      picture: now?.isActive('image') ? JSON.stringify(now.getAttributes('image')) : undefined,
    }),
  });
  if (!editor)
    return (
      <div className="writing border border-ink-3 py-2.5 px-3.25 min-h-37.5 bg-sheet focus-within:outline-2 focus-within:outline-solid focus-within:outline-tide focus-within:outline-offset-2" />
    );
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
  const insert = ({ id, alt }: Pick<PictureChoice, 'id' | 'alt'>): void => {
    chain()
      .setImage({ src: `/picture/${id}/1024`, alt })
      .run();
  };
  const insertFile = async (file: File): Promise<void> => {
    const form = new FormData();
    form.set('file', file);
    const outcome = await send<{ id: string; alt: string }>('POST', '/api/v1/pictures', form);
    setWrong(outcome.kind === 'done' ? '' : sayFailure(outcome));
    if (outcome.kind === 'done') insert(outcome.value);
  };
  const link = (typed: string): void => {
    const href = pictureLink(typed);
    setWrong(href ? '' : w.aLinkIsWritten());
    if (!href) return;
    chain().setLink({ href }).run();
    setLinking(null);
  };
  return (
    <div>
      <div className="flex flex-wrap gap-0.5 border border-ink-3 border-b-0 bg-wash p-0.75" role="toolbar" aria-label={w.textTools()}>
        {tool('B', w.bold(), on?.bold, () => chain().toggleBold().run())}
        {tool('I', w.italic(), on?.italic, () => chain().toggleItalic().run())}
        {tool('H2', w.heading(), on?.h2, () => chain().toggleHeading({ level: 2 }).run())}
        {tool('H3', w.smallerHeading(), on?.h3, () => chain().toggleHeading({ level: 3 }).run())}
        {tool(w.list(), w.list2(), on?.list, () => chain().toggleBulletList().run())}
        {tool(w.n1List(), w.numberedList(), on?.numbers, () => chain().toggleOrderedList().run())}
        {tool('“ ”', w.quote(), on?.quote, () => chain().toggleBlockquote().run())}
        {tool(w.link(), w.link(), on?.link, () => (on?.link ? chain().unsetLink().run() : setLinking('https://')))}
        <label className="button small relative">
          {w.picture()}
          <input
            type="file"
            accept="image/*"
            className="absolute inset-0 opacity-0"
            onChange={(e) => {
              const file = e.target.files?.[0];
              if (file) void insertFile(file);
              e.target.value = '';
            }}
          />
        </label>
        {tool(w.library(), w.insertOneYouHave(), undefined, () => setChoosing(true))}
      </div>
      {linking !== null && (
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
                link(linking);
              } else if (e.key === 'Escape') setLinking(null);
            }}
            value={linking}
            onChange={(e) => setLinking(e.target.value)}
          />
          <button type="button" className="button small" onClick={() => link(linking)}>
            {w.linkIt()}
          </button>
          <button type="button" className="button small" onClick={() => setLinking(null)}>
            {w.noLink()}
          </button>
        </div>
      )}
      {on?.picture && <PictureTools key={editor.getAttributes('image').src} editor={editor} />}
      <div className="writing [&_img[data-side=left]]:float-left [&_img[data-side=left]]:mr-4 [&_img[data-side=right]]:float-right [&_img[data-side=right]]:ml-4 [&_img[data-width=half]]:w-1/2 [&_img[data-width=third]]:w-1/3 border border-ink-3 py-2.5 px-3.25 min-h-37.5 bg-sheet focus-within:outline-2 focus-within:outline-solid focus-within:outline-tide focus-within:outline-offset-2">
        <EditorContent editor={editor} />
      </div>
      {wrong && (
        <span className="wrong" role="alert">
          {wrong}
        </span>
      )}
      {choosing && (
        <ChooseDialog
          chosen={[]}
          several={false}
          onClose={() => setChoosing(false)}
          onChoose={([one]) => {
            setChoosing(false);
            if (one) insert(one);
          }}
        />
      )}
    </div>
  );
}
