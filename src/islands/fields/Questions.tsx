/** What words for when leave open: each question with its answers as buttons, which rewrite the words. */
import type { MouseEvent } from 'react';
import { PROBLEM_WORDS } from '@/core/phrase/read/problem';
import type { Reading } from '@/core/phrase/read/read';

interface QuestionsProps {
  reading: Pick<Reading, 'problems' | 'recurrence'> & Partial<Pick<Reading, 'asides'>>;
  text: string;
  onText: (text: string) => void;
}

export function Questions({ reading, text, onText }: QuestionsProps) {
  return (
    <>
      {reading.problems.map((problem) => (
        <p className="small" key={`${problem.kind}${problem.from}`}>
          “{problem.text}” {PROBLEM_WORDS[problem.kind]}.{' '}
          {problem.offers.map(({ value, instead }) => (
            <button
              key={value}
              type="button"
              className="button small"
              onMouseDown={stay}
              onClick={() => onText(replaced(text, problem, instead))}
            >
              {instead.replace(/^at /, '')}
            </button>
          ))}
          {problem.kind === 'not-understood' && (
            <button type="button" className="link" onMouseDown={stay} onClick={() => onText(replaced(text, problem, ''))}>
              Take “{problem.text}” out
            </button>
          )}
        </p>
      ))}
      {reading.recurrence &&
        reading.asides?.map((aside) => (
          <p className="small muted" key={aside.from}>
            “{aside.text}” counts for every year.{' '}
            {aside.offers.map(({ value, instead }) => (
              <button
                key={value}
                type="button"
                className="button small"
                onMouseDown={stay}
                onClick={() => onText(replaced(text, aside, instead))}
              >
                Only {value}
              </button>
            ))}
          </p>
        ))}
    </>
  );
}

/** The field keeps the focus: leaving it would say its words in full before the answer comes. */
const stay = (event: MouseEvent): void => event.preventDefault();

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
