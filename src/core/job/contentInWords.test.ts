/** What a command says, for somebody who chooses between two. */
import { describe, expect, it } from 'vitest';
import { command, pick } from '../../../tests/afternoon';
import { demoUuid } from '../../../db/demo/shop';
import { contentInWords } from './contentInWords';

const id = demoUuid('said');

describe('what a command says', () => {
  it.each([
    [command('job.set-status', { status: 'waiting-parts' }), '“waiting parts”'],
    [command('option.choose', pick), '“60 A DC-DC charger”'],
    [
      command('verdict.declare', {
        id,
        fault: 'link.contact-open',
        name: 'Contact burnt open',
        repair: 'r',
        probability: 0.9,
        settled: true,
      }),
      '“Contact burnt open”',
    ],
    [
      command('part.edit', { part: 'link', was: { note: '200 A' }, set: { note: '100 A' }, means: 'described-wrong' }),
      'note: 100 A',
    ],
    [command('build.tick', { candidate: 'c', line: 'dcdc', set: 'ordered' }), '“ordered”'],
    [command('build.done', { candidate: 'c', step: 'isolate', minutes: 7 }), 'minutes: 7'],
    [command('verdict.withdraw', { id }), 'taking the verdict back'],
  ])('%#: is what stands there after it, not what it is about', (given, words) => {
    expect(contentInWords(given)).toBe(words);
  });

  it('is short, whatever somebody wrote', () => {
    const long = command('waiver.record', { id, rule: 'feed-look', at: 'dash-feed', reason: 'x'.repeat(300) });
    expect(contentInWords(long).length).toBeLessThan(70);
    const many = { type: 'identity.set', payload: { was: {}, set: { a: 1, b: true, c: 'x', d: null, e: { f: 1 } } } };
    expect(contentInWords(many as never)).toBe('a: 1; b: yes; c: x; and 2 more');
  });
});
