/** A dialog box, and the box that asks: a form with one deed and the way out. */
import { type FormEvent, type ReactNode, useEffect, useId, useRef } from 'react';
import { fieldsWords } from '@/words/desk';

const w = fieldsWords.box;

interface BoxProps {
  title: string;
  /** more than a few fields */
  wide?: boolean;
  onClose: () => void;
  children: ReactNode;
}

export function Box({ title, wide, onClose, children }: BoxProps) {
  const ref = useRef<HTMLDialogElement>(null);
  const id = useId();
  useEffect(() => {
    ref.current?.showModal();
  }, []);
  return (
    <dialog
      ref={ref}
      className={`border border-rule-strong rounded-xs bg-sheet text-ink py-4.5 px-5 w-[min(460px,92vw)] m-auto shadow-[0_10px_40px_rgb(0_0_0_/_.3)] backdrop:bg-[rgb(0_0_0_/_.4)] [&.wide]:w-[min(820px,94vw)] box-dialog${wide ? ' wide' : ''}`}
      aria-labelledby={id}
      onClose={onClose}
    >
      <h2 className="text-[19px] mb-3" id={id}>
        {title}
      </h2>
      {children}
    </dialog>
  );
}

interface AskProps extends BoxProps {
  /** what the main button says */
  command: string;
  disabled?: boolean;
  /** what went wrong, said above the buttons */
  wrong?: string;
  onSubmit: (event: FormEvent<HTMLFormElement>) => Promise<void>;
}

export function AskBox({ title, command, disabled = false, wrong, onSubmit, onClose, children }: AskProps) {
  return (
    <Box title={title} onClose={onClose}>
      <form
        className="form"
        onSubmit={(event) => {
          event.preventDefault();
          // React hands a submit on to the form the box was opened from.
          event.stopPropagation();
          void onSubmit(event);
        }}
      >
        {children}
        {wrong && (
          <p className="note bad m-0" role="alert">
            {wrong}
          </p>
        )}
        <div className="row">
          <button type="submit" className="button main" disabled={disabled}>
            {command}
          </button>
          <button type="button" className="button" onClick={onClose}>
            {w.notNow()}
          </button>
        </div>
      </form>
    </Box>
  );
}
