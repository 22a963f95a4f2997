/** Where pictures are dropped, pasted or chosen; many at once. */
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { filesOf } from './use-sending';
import { picturesWords } from '@/words/desk';

const w = picturesWords.dropPlace;

interface DropProps {
  label: string;
  hint: string;
  onFiles: (files: File[]) => void;
  children?: ReactNode;
}

export function DropPlace({ label, hint, onFiles, children }: DropProps) {
  const [over, setOver] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const latest = useRef(onFiles);
  latest.current = onFiles;
  // Files that were chosen before the page was alive are taken too.
  useEffect(() => {
    const early = input.current;
    if (!early?.files?.length) return;
    latest.current([...early.files]);
    early.value = '';
  }, []);
  return (
    <fieldset
      aria-label={w.wherePicturesAreDropped()}
      className={`m-0 min-w-0 border border-dashed border-ink-3 rounded-xs py-2.5 px-3 bg-wash in-[.field]:px-2 in-[.field]:py-1.5 [&.over]:border-solid [&.over]:border-tide [&.over]:bg-tide-wash drop-place${over ? ' over' : ''}`}
      onDragOver={(e) => {
        if (![...e.dataTransfer.types].includes('Files')) return;
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        if (!e.dataTransfer.files.length) return;
        e.preventDefault();
        setOver(false);
        onFiles(filesOf(e.dataTransfer));
      }}
      onPaste={(e) => {
        const files = filesOf(e.clipboardData);
        if (files.length) onFiles(files);
      }}
    >
      <div className="row">
        <label className="button small relative cursor-pointer has-focus-visible:outline-2 has-focus-visible:outline-solid has-focus-visible:outline-tide has-focus-visible:outline-offset-2">
          {label}
          <input
            className="absolute inset-0 opacity-0 cursor-pointer max-w-full"
            ref={input}
            type="file"
            multiple
            accept="image/png,image/jpeg,image/gif,image/webp,image/avif"
            onChange={(e) => {
              onFiles([...(e.target.files ?? [])]);
              e.target.value = '';
            }}
          />
        </label>
        {children}
        <span className="hint">{hint}</span>
      </div>
    </fieldset>
  );
}
