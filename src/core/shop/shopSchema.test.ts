/** What a shop command decides, so that two people at two desks only collide where they touch the same thing. */
import { describe, expect, it } from 'vitest';
import { DEFAULT_SETTINGS } from './shop';
import { shopMatter, type ShopCommand } from './shopSchema';

const shop = (type: string, payload: unknown): ShopCommand => ({ type, payload }) as ShopCommand;

describe('the matter of a shop command', () => {
  it('is the settings it sets, each by itself', () => {
    const [one, two] = Object.keys(DEFAULT_SETTINGS) as [string, string];
    expect(shopMatter(shop('settings.set', { set: { [one]: 1 } }))).toEqual([one]);
    expect(shopMatter(shop('settings.set', { set: { [one]: 1, [two]: 2 } }))).toEqual([one, two]);
  });

  it('is one instrument, whatever of it is set', () => {
    expect(shopMatter(shop('instrument.set', { set: { id: 'clamp-2', name: 'Clamp' } }))).toEqual([
      'instrument clamp-2',
    ]);
    expect(shopMatter(shop('instrument.set', { set: { id: 'clamp-2' } }))).not.toEqual(
      shopMatter(shop('instrument.set', { set: { id: 'clamp-3' } })),
    );
  });
});
