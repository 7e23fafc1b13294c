'use client';
/** A time zone, searched by any part of its name: there are four hundred. What is no zone is said and changes nothing. */
import { useId, useState } from 'react';
import { ZONE, zoneOf } from './zones';

export function ZoneField({ zone, put }: { zone: string; put(zone: string): void }) {
  const list = useId();
  const [text, setText] = useState(zone);
  const found = zoneOf(text);
  return (
    <>
      <input
        className="input"
        list={list}
        value={text}
        autoComplete="off"
        spellCheck={false}
        aria-invalid={found === undefined}
        onChange={(e) => {
          setText(e.target.value);
          const known = zoneOf(e.target.value);
          if (known !== undefined) put(known);
        }}
        onFocus={(e) => e.target.select()}
      />
      <datalist id={list}>
        {[...new Set([ZONE(), 'UTC', ...Intl.supportedValuesOf('timeZone')])].map((z) => (
          <option key={z} value={z} />
        ))}
      </datalist>
      {found === undefined && (
        <em className="text-sm text-error not-italic">
          No time zone is called that: still {zone}. Part of a city’s name finds it.
        </em>
      )}
    </>
  );
}
