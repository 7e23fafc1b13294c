/** What the tables of parts and of cuts are made of: they look alike on a screen, on a phone and on paper. */
import clsx from 'clsx';
import type { ReactNode } from 'react';

const ROW = 'max-phone:grid max-phone:border-b-1 max-phone:border-rule';

export function BuildTable({ heads, children }: { heads: readonly string[]; children: ReactNode }) {
  return (
    <div className="bdtable overflow-x-auto">
      <table className="table text-note tabular-nums max-phone:block">
        <thead className="font-cond text-note text-ink-2 max-phone:hidden">
          <tr>
            {heads.map((head) => (
              <th className="border-b-1 border-ink px-3 py-1.75" key={head} scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        {children}
      </table>
    </div>
  );
}

export const Row = ({ children }: { children: ReactNode }) => <tr className={ROW}>{children}</tr>;

/** @param figure stands in figures that must not break. @param wide keeps its width where the table is narrow. */
export function Cell({ figure, wide, children }: { figure?: boolean; wide?: boolean; children: ReactNode }) {
  return (
    <td
      className={clsx(
        'border-b-1 border-rule px-3 py-1.75 align-top font-cond max-phone:border-0 max-phone:py-0.5',
        figure ? 'font-bold text-large whitespace-nowrap' : 'font-medium text-lead',
        wide && 'min-w-37.5',
      )}
    >
      {children}
    </td>
  );
}

/** A thing by its name, and under it in small what there is to say. */
export const Named = ({ name, children }: { name: ReactNode; children: ReactNode }) => (
  <>
    <b className="block font-cond font-semibold text-large leading-close">{name}</b>
    <small className="block basis-full font-sans font-normal text-note text-ink-2">{children}</small>
  </>
);
