/** Small fields of islands: text, choices, each with its label, hint and error. */
import { type ReactNode, useId } from 'react';

export interface Shared {
  label: string;
  hint?: ReactNode;
  error?: string | undefined;
}

export function Field({
  label,
  hint,
  error,
  children,
}: Shared & { children: (ids: { id: string; describedBy: string | undefined; invalid: true | undefined }) => ReactNode }) {
  const id = useId();
  const describedBy = [hint ? `${id}h` : '', error ? `${id}e` : ''].filter(Boolean).join(' ') || undefined;
  return (
    <div className="field">
      <label htmlFor={id}>{label}</label>
      {children({ id, describedBy, invalid: error ? true : undefined })}
      {hint && (
        <span className="hint" id={`${id}h`}>
          {hint}
        </span>
      )}
      {error && (
        <span className="wrong" id={`${id}e`} role="alert">
          {error}
        </span>
      )}
    </div>
  );
}

interface TextProps extends Shared {
  value: string;
  onChange: (value: string) => void;
  /** when the field is left: to put what was typed into shape */
  onLeave?: (value: string) => void;
  name?: string;
  rows?: number;
  maxLength?: number;
  type?: 'text' | 'url' | 'email' | 'tel';
  placeholder?: string;
  /** the form begins here */
  autoFocus?: boolean;
}

export function Text({ value, onChange, onLeave, rows, name, maxLength, type = 'text', placeholder, autoFocus, ...shared }: TextProps) {
  return (
    <Field {...shared}>
      {({ id, describedBy, invalid }) => {
        const props = {
          id,
          name,
          value,
          maxLength,
          placeholder,
          autoFocus,
          'aria-describedby': describedBy,
          'aria-invalid': invalid,
          onChange: (e: { target: { value: string } }) => onChange(e.target.value),
          onBlur: onLeave ? (e: { target: { value: string } }) => onLeave(e.target.value) : undefined,
        };
        return rows ? <textarea rows={rows} {...props} /> : <input type={type} {...props} />;
      }}
    </Field>
  );
}

export function Select<T extends string>({
  value,
  onChange,
  options,
  ...shared
}: Shared & { value: T; onChange: (value: T) => void; options: readonly (readonly [T, string])[] }) {
  return (
    <Field {...shared}>
      {({ id, describedBy }) => (
        <select id={id} aria-describedby={describedBy} value={value} onChange={(e) => onChange(e.target.value as T)}>
          {options.map(([key, text]) => (
            <option key={key} value={key}>
              {text}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

export function Check({ label, checked, onChange }: { label: ReactNode; checked: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="check">
      <input type="checkbox" checked={checked} onChange={(e) => onChange(e.target.checked)} /> {label}
    </label>
  );
}

/** Several of a few, as buttons that stay down. */
export function Toggles<T extends string | number>({
  label,
  options,
  chosen,
  onChange,
}: {
  label: string;
  options: readonly (readonly [T, string])[];
  chosen: readonly T[];
  onChange: (chosen: T[]) => void;
}) {
  return (
    <fieldset className="m-0 min-w-0 border-0 p-0">
      <legend className="label mb-1 p-0">{label}</legend>
      <div className="toggles">
        {options.map(([key, text]) => (
          <label key={key}>
            <input
              type="checkbox"
              checked={chosen.includes(key)}
              onChange={(e) => onChange(e.target.checked ? [...chosen, key] : chosen.filter((c) => c !== key))}
            />
            {text}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
