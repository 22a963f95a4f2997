import { describe, expect, it } from 'vitest';
import { clean, parseJson } from './clean';

describe('text from outside', () => {
  it('keeps every character that somebody may type, and none that cannot be kept', () => {
    expect(clean('Þorri 🐚\tand\nmore')).toBe('Þorri 🐚\tand\nmore');
    expect(clean('a\0b\ud800c\udc00')).toBe('ab\ufffdc\ufffd');
  });
  it('is cleaned in JSON, whole characters written as escapes left alone', () => {
    expect(parseJson('{"a":["x\\u0000y",{"b":"\\ud83d\\udc1a \\ud83d"}],"n":1}')).toEqual({ a: ['xy', { b: '🐚 \ufffd' }], n: 1 });
    expect(parseJson('"\\\\u0000"')).toBe('\\u0000');
    expect(() => parseJson('{"a":')).toThrow(SyntaxError);
  });
});
