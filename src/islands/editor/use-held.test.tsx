// @vitest-environment jsdom
import { act, fireEvent, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { inBrowser } from '../../../tests/support/component';
import { useHeld } from './use-held';

inBrowser();
beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe('useHeld', () => {
  it.each([['pointerup'], ['pointercancel']])('shows what was there until %s, then the latest', (end) => {
    const { result, rerender } = renderHook((latest: string) => useHeld(latest), { initialProps: 'none' });
    rerender('one clash');
    expect(result.current.shown).toBe('one clash');
    act(() => result.current.press());
    rerender('two clashes');
    expect(result.current.shown).toBe('one clash');
    fireEvent(window, new Event(end));
    // The click comes now, and finds everything where it was.
    expect(result.current.shown).toBe('one clash');
    act(() => void vi.runAllTimers());
    expect(result.current.shown).toBe('two clashes');
    rerender('three clashes');
    expect(result.current.shown).toBe('three clashes');
  });
});
