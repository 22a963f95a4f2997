/** What is typed is kept on the server too, and who else has the listing open is asked now and then. */
import { useEffect, useRef, useState } from 'react';
import { ask } from '@/client/api';
import type { ListingContent } from '@/core/listing/content';

export interface OtherEditor {
  name: string;
  typing: boolean;
}

const KEEP_AFTER_MS = 1_200;
const ASK_EVERY_MS = 15_000;

interface EditsInput {
  /** the listing's id, or null for a new one */
  id: string | null;
  revision: number;
  content: ListingContent;
  dirty: boolean;
}

export function useEdits({ id, revision, content, dirty }: EditsInput): OtherEditor[] {
  const [others, setOthers] = useState<OtherEditor[]>([]);
  const key = id ?? 'new';
  const latest = useRef({ key, revision });
  latest.current = { key, revision };
  const kept = useRef(false);
  useEffect(() => {
    // A form that nobody typed in has nothing to keep; one that was saved lets go of what was kept.
    if (!dirty && !kept.current) return;
    const timer = setTimeout(
      () => {
        kept.current = dirty;
        const body = JSON.stringify({ revision, content: dirty ? content : null });
        void ask<{ others: OtherEditor[] }>(`/api/v1/edits/${key}`, {
          method: 'PUT',
          body,
          headers: { 'content-type': 'application/json' },
        }).then((outcome) => {
          if (outcome.kind === 'done') setOthers(outcome.value.others);
        });
      },
      dirty ? KEEP_AFTER_MS : 0,
    );
    return () => clearTimeout(timer);
  }, [content, dirty, key, revision]);
  useEffect(() => {
    if (!id) return;
    const look = (): void => {
      const body = JSON.stringify({ revision: latest.current.revision });
      void ask<{ others: OtherEditor[] }>(`/api/v1/edits/${latest.current.key}`, {
        method: 'PUT',
        body,
        headers: { 'content-type': 'application/json' },
      }).then((outcome) => {
        if (outcome.kind === 'done') setOthers(outcome.value.others);
      });
    };
    look();
    const timer = setInterval(look, ASK_EVERY_MS);
    return () => clearInterval(timer);
  }, [id]);
  return others;
}
