/** Keeps a job's progress true, and shows what came of it when it is over. */
import { siteAddress } from '@/client/site-root';
import { clientWords } from '@/words/desk';

const w = clientWords.job;

const section = document.querySelector<HTMLElement>('[data-job]');
const EVERY_MS = 400;

async function ask(id: string): Promise<boolean> {
  const response = await fetch(siteAddress(`/api/v1/jobs/${id}`));
  if (!response.ok) return false;
  const job = (await response.json()) as { state: string; done: number; total: number };
  const bar = section?.querySelector('progress');
  const count = section?.querySelector('[data-count]');
  if (bar) bar.value = job.done;
  if (count) count.textContent = w.of({ done: job.done.toLocaleString('en'), total: job.total.toLocaleString('en') });
  return job.state !== 'running' && job.state !== 'cancelling';
}

if (section?.dataset.job) {
  const { job } = section.dataset;
  const look = (): void => {
    ask(job).then(
      (over) => {
        if (over) location.reload();
        else setTimeout(look, EVERY_MS);
      },
      // No answer: the site may be starting again, and the job goes on then.
      () => setTimeout(look, EVERY_MS * 5),
    );
  };
  setTimeout(look, EVERY_MS);
}
