import { describe, expect, it } from 'vitest';
import { roomAt, watchRoom } from '../../scripts/lib/diskRoom';
import { isDiskFull } from '../../src/server/diskFull';

describe('room on the disk', () => {
  it('is told of once when it ends and once when there is some again, and not at every look between', () => {
    const said: string[] = [];
    let room = 500_000_000;
    const look = watchRoom(
      '/data',
      (line) => said.push(line),
      () => room,
    );
    const at = (bytes: number): void => {
      room = bytes;
      look();
    };
    for (const bytes of [100_000_000, 20_000_000, 0, 40_000_000, 20_000_000, 90_000_000, 90_000_000, 10_000_000]) at(bytes);
    expect(said.map((line) => (line.includes('full') ? 'full' : 'room'))).toEqual(['full', 'room', 'full']);
  });
  it('is what the system says', () => {
    expect(roomAt('/')).toBeGreaterThan(0);
  });
  it('a full disk is known by its code, and by nothing else', () => {
    expect(isDiskFull(Object.assign(new Error('could not extend file'), { code: '53100' }))).toBe(true);
    expect(isDiskFull(Object.assign(new Error('no space'), { code: 'ENOSPC' }))).toBe(true);
    expect(isDiskFull(Object.assign(new Error('x'), { code: '23505' }))).toBe(false);
    expect(isDiskFull('53100')).toBe(false);
  });
});
