/** Where pictures are dropped, pasted or chosen; many at once. */
import { type ReactNode, useRef, useState } from 'react';
import { filesOf } from './use-sending';

interface DropProps {
  label: string;
  hint: string;
  onFiles: (files: File[]) => void;
  children?: ReactNode;
}

export function DropPlace({ label, hint, onFiles, children }: DropProps) {
  const [over, setOver] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  return (
    <fieldset
      aria-label="Where pictures are dropped"
      className={`drop-place${over ? ' over' : ''}`}
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
        <label className="button small file-button">
          {label}
          <input
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
