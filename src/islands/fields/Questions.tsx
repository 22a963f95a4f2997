/** What words for when leave open: each question with its answers as buttons, which rewrite the words. */
import type { ReactNode } from 'react';
import { PROBLEM_WORDS } from '@/core/phrase/read/phrase-problem';
import type { Reading } from '@/core/phrase/read/read-phrase';
import { fieldsWords } from '@/words/desk';

const w = fieldsWords.questions;

interface QuestionsProps {
  reading: Pick<Reading, 'problems' | 'recurrence'> & Partial<Pick<Reading, 'asides'>>;
  text: string;
  onText: (text: string) => void;
}

const LINE = 'small m-0 flex flex-wrap items-center gap-1.5 text-amber';

export function Questions({ reading, text, onText }: QuestionsProps) {
  return (
    <>
      {reading.problems.map((problem) => (
        <p className={LINE} key={`${problem.kind}${problem.from}`}>
          “{problem.text}” {PROBLEM_WORDS[problem.kind]}.{' '}
          {problem.offers.map(({ value, instead }) => (
            <Answer key={value} look="button small" onTake={() => onText(replaced(text, problem, instead))}>
              {instead.replace(/^at /, '')}
            </Answer>
          ))}
          {problem.kind === 'not-understood' && (
            <Answer look="link" onTake={() => onText(replaced(text, problem, ''))}>
              {w.takeOut({ text: problem.text })}
            </Answer>
          )}
        </p>
      ))}
      {reading.recurrence &&
        reading.asides?.map((aside) => (
          <p className={LINE} key={aside.from}>
            {w.countsForEveryYear({ text: aside.text })}{' '}
            {aside.offers.map(({ value, instead }) => (
              <Answer key={value} look="button small" onTake={() => onText(replaced(text, aside, instead))}>
                {w.only({ value })}
              </Answer>
            ))}
          </p>
        ))}
    </>
  );
}

/** The field keeps the focus: leaving it would say its words in full before the answer comes. */
function Answer({ look, onTake, children }: { look: string; onTake: () => void; children: ReactNode }) {
  return (
    <button type="button" className={look} onMouseDown={(event) => event.preventDefault()} onClick={onTake}>
      {children}
    </button>
  );
}

/** A phrase with other words in the place of some; none at all close the gap. */
function replaced(text: string, { from, to }: { from: number; to: number }, instead: string): string {
  const made = text.slice(0, from) + instead + text.slice(to);
  return instead
    ? made
    : made
        .replace(/\s{2,}/g, ' ')
        .replace(/\s+([,;.])/g, '$1')
        .trim();
}
