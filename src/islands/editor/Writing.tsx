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
import { LinkRow, Toolbar } from './Toolbar';
import { editorWords } from '@/words/desk';

const w = editorWords.writing;

/** What a text may hold; the server's sanitiser allows the same. */
const EXTENSIONS = [
  StarterKit.configure({
    heading: { levels: [2, 3] },
    code: false,
    codeBlock: false,
    link: { openOnClick: false, protocols: ['http', 'https', 'mailto', 'tel'], defaultProtocol: 'https' },
  }),
  TextImage,
];

export default function Writing({ html, onChange, labelId }: { html: string; onChange: (html: string) => void; labelId: string }) {
  const seen = useRef(html);
  const [wrong, setWrong] = useState('');
  const [linking, setLinking] = useState<string | null>(null);
  const [choosing, setChoosing] = useState(false);
  const editor = useEditor({
    extensions: EXTENSIONS,
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
  const picture = useEditorState({
    editor,
    selector: ({ editor: now }) => (now?.isActive('image') ? JSON.stringify(now.getAttributes('image')) : undefined),
  });
  if (!editor)
    return (
      <div className="writing border border-ink-3 py-2.5 px-3.25 min-h-37.5 bg-sheet focus-within:outline-2 focus-within:outline-solid focus-within:outline-tide focus-within:outline-offset-2" />
    );
  const chain = () => editor.chain().focus();
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
    if (href) chain().setLink({ href }).run();
    if (href) setLinking(null);
  };
  return (
    <div>
      <Toolbar
        editor={editor}
        onLink={() => setLinking('https://')}
        onFile={(file) => void insertFile(file)}
        onLibrary={() => setChoosing(true)}
      />
      {linking !== null && <LinkRow href={linking} setHref={setLinking} onLink={link} onLeave={() => setLinking(null)} />}
      {picture && <PictureTools key={editor.getAttributes('image').src} editor={editor} />}
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
