/** The keys of the whole editor: save, undo, redo. */
import { useEffect } from 'react';
import type { Listing } from './use-listing';

export function useEditorKeys({ save, undo, redo }: Pick<Listing, 'save' | 'undo' | 'redo'>): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if ((event.ctrlKey || event.metaKey) && event.key === 's') {
        event.preventDefault();
        void save();
      }
      // In a field the browser's own undo is what people expect.
      const typing =
        event.target instanceof HTMLElement && event.target.closest('input:not([type=checkbox]), textarea, [contenteditable=true]');
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z' && !typing) {
        event.preventDefault();
        (event.shiftKey ? redo : undo)?.();
      }
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [save, undo, redo]);
}
