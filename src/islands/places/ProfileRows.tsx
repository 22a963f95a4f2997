/** Where else an organizer is found: as many rows as they have, each a label and an address. */
import { useState } from 'react';
import { placesWords } from '@/words/desk';

const w = placesWords.profileRows;

interface Row {
  key: number;
  label: string;
  address: string;
}

export default function ProfileRows({ list, wrong }: { list: { label: string; address: string }[]; wrong?: string | undefined }) {
  const [rows, setRows] = useState<Row[]>(() => [...list, { label: '', address: '' }].map((row, key) => ({ key, ...row })));
  const change = (key: number, part: Partial<Row>): void =>
    setRows((before) => {
      const next = before.map((row) => (row.key === key ? { ...row, ...part } : row));
      const last = next[next.length - 1];
      // There is always an empty row to go on with.
      return last && (last.label || last.address) && next.length < 30 ? [...next, { key: last.key + 1, label: '', address: '' }] : next;
    });
  return (
    <fieldset>
      <legend className="label float-left w-full font-bold [legend+&]:clear-both">{w.publicProfiles()}</legend>
      {rows.map((row, i) => (
        <div className="pair clear-both" key={row.key}>
          <input
            name="profileLabel"
            aria-label={w.profileWhatItIs({ n: i + 1 })}
            placeholder={w.choirsNewsletter()}
            maxLength={60}
            value={row.label}
            onChange={(e) => change(row.key, { label: e.target.value })}
          />
          <input
            name="profileAddress"
            aria-label={w.profileItsAddress({ n: i + 1 })}
            placeholder={w.wwwShoreExample()}
            maxLength={500}
            value={row.address}
            onChange={(e) => change(row.key, { address: e.target.value })}
          />
        </div>
      ))}
      {wrong && <span className="wrong">{wrong}</span>}
    </fieldset>
  );
}
