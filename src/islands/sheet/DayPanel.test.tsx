// @vitest-environment jsdom
import { render, screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { dayOf } from '@/core/day/day';
import { inBrowser } from '../../../tests/support/component';
import { DayPanel } from './DayPanel';

inBrowser();

describe('the chosen day', () => {
  it('says what the year says of it, in red where it is a red-letter day', () => {
    const nothing = (): void => undefined;
    render(
      <DayPanel
        day={dayOf(2027, 3, 26)}
        dates={[]}
        marks={[
          { name: 'Good Friday', red: true, begins: true },
          { name: 'Lamps lit', red: false, begins: true, minute: 1150 },
        ]}
        looks={new Map()}
        venues={new Map()}
        chosen={null}
        setChosen={nothing}
        style={{ date: 'day-month', hours: '24' }}
        busy={false}
        onMove={nothing}
        onCopy={nothing}
        onLength={nothing}
        onLeaveOut={nothing}
      />,
    );
    expect(screen.getByText('Good Friday').className).toContain('red');
    expect(screen.getByText('Lamps lit 19:10').className).not.toContain('red');
  });
});
