/** A field of a listing that is text, an address or a number, made of its declaration. */
import { mostOf, type FieldOf, fieldOf } from '@/core/listing/fields';
import { readWebAddress } from '@/core/validation/links';
import { Text } from '../../fields/fields';
import type { PartProps } from './part';

type Plain = FieldOf<'line' | 'web' | 'number'>;

interface PlainFieldProps extends PartProps {
  field: Plain;
  /** what is said beside it, where that depends on what stands in it */
  hint?: string;
  autoFocus?: boolean;
}

export function PlainField({ field, content, setContent, error, hint, autoFocus = false }: PlainFieldProps) {
  const { type, label, hint: usual, entered = field } = fieldOf(field);
  const set = (value: string | number | null): void => setContent({ [field]: value });
  const shared = { label, name: entered, hint: hint ?? usual, autoFocus, error: error(field) ?? error(entered) };
  if (type.is === 'number') {
    const value = content[field] as number | null;
    const read = (typed: string): number | null => {
      const number = /^\d{1,9}$/.test(typed.trim()) ? Number(typed) : 0;
      return number < type.least ? null : number;
    };
    return <Text {...shared} value={value === null ? '' : String(value)} onChange={(typed) => set(read(typed))} />;
  }
  const value = content[field] as string;
  const length = mostOf(field as FieldOf<'line' | 'web'>);
  if (type.is === 'web')
    return (
      <Text {...shared} value={value} maxLength={length} onChange={set} onLeave={(typed) => set(readWebAddress(typed) ?? typed.trim())} />
    );
  return (
    <Text {...shared} value={value} maxLength={length} onChange={set} {...(type.is === 'line' && type.rows ? { rows: type.rows } : {})} />
  );
}
