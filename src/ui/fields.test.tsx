// @vitest-environment jsdom
/** Figures typed into forms: any way of writing them is taken, what cannot be is said and stays in the field. */
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { NumberField, OpenFigure } from './fields';

afterEach(cleanup);
const field = () => screen.getByRole<HTMLInputElement>('textbox');

describe('a number with its unit', () => {
  it('is taken over at once within its limits, and never outside', async () => {
    const change = vi.fn();
    render(<NumberField label="Line" unit="ft" value={20} min={1} max={60} onChange={change} />);
    await userEvent.clear(field());
    await userEvent.paste('5 m');
    expect(change).toHaveBeenLastCalledWith(expect.closeTo(16.4042, 4));
    await userEvent.clear(field());
    await userEvent.type(field(), '75');
    expect(change).not.toHaveBeenCalledWith(75);
    expect(screen.getByRole('alert').textContent).toContain('1 to 60 ft');
    expect(field().value).toBe('75');
  });

  it('of another kind is refused by what it is, and is lost nowhere', async () => {
    const change = vi.fn();
    render(<NumberField label="Volts" unit="V" value={12} min={0} max={60} onChange={change} />);
    await userEvent.clear(field());
    await userEvent.paste('12.4 A');
    expect(screen.getByRole('alert').textContent).toContain('“12.4 A” is amps');
    expect(field().value).toBe('12.4 A');
    expect(change).not.toHaveBeenCalled();
  });

  it('that is a change on record waits until one leaves the field', async () => {
    const change = vi.fn();
    render(<NumberField late label="Spread" unit="%" value={5} min={0} max={50} onChange={change} />);
    await userEvent.clear(field());
    await userEvent.type(field(), '7,5');
    expect(change).not.toHaveBeenCalled();
    await userEvent.tab();
    expect(change).toHaveBeenCalledWith(7.5);
  });
});

describe('a figure that may be left open', () => {
  it('is kept when one leaves it, opened again when it is emptied, and refused over its limit', async () => {
    const keep = vi.fn();
    render(<OpenFigure label="Asleep for" unit="min" value={40} max={1440} onKeep={keep} />);
    await userEvent.clear(field());
    await userEvent.type(field(), '1.5 h');
    await userEvent.tab();
    expect(keep).toHaveBeenLastCalledWith(90);
    await userEvent.clear(field());
    await userEvent.tab();
    expect(keep).toHaveBeenLastCalledWith(undefined);
    await userEvent.type(field(), '3 days');
    await userEvent.tab();
    expect(screen.getByRole('alert').textContent).toContain('0 to 1440 min');
    expect(keep).toHaveBeenCalledTimes(2);
  });
});
