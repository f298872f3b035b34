import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { startChild } from '../../scripts/lib/children';
import { growingPause, keepRunning } from '../../scripts/lib/keepRunning';

const isAlive = (pid: number): boolean => {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
};

describe('what is started is kept running', () => {
  it('pauses grow to half a minute, and are short again after a sound life', () => {
    const pause = growingPause();
    expect(Array.from({ length: 8 }, () => pause(10))).toEqual([500, 1000, 2000, 4000, 8000, 16_000, 30_000, 30_000]);
    expect(pause(61_000)).toBe(500);
    expect(pause(10)).toBe(1000);
  });
  it('a program that ends is started again, and it is said; stopped, it stays so', { timeout: 30_000 }, async () => {
    const said: string[] = [];
    const pauses: number[] = [];
    let started = 0;
    const start = () => {
      started += 1;
      const [code, ms] = started < 3 ? [3, 20] : [0, 60_000];
      return startChild(['-e', `console.log('up'); setTimeout(() => process.exit(${code}), ${ms})`], { readyWhen: /up/ });
    };
    const kept = await keepRunning('the program', start, {
      say: (line) => said.push(line),
      wait: (ms) => {
        pauses.push(ms);
        return Promise.resolve();
      },
    });
    await expect.poll(() => said.filter((line) => line.endsWith('is back')).length, { timeout: 15_000 }).toBe(2);
    expect(pauses).toEqual([500, 1000]);
    expect(said[0]).toBe('Keen Fit: the program ended (3); it starts again in 0.5 s');
    await kept.stop();
    expect(started).toBe(3);
  });
  it('no child outlives its parent, even one that was killed', { timeout: 30_000 }, async () => {
    const script = `
      import { startChild } from './scripts/lib/children.ts';
      const child = await startChild(['-e', "console.log('up'); setInterval(() => {}, 1000)"], { readyWhen: /up/ });
      console.log('child', child.process.pid);
      setInterval(() => {}, 1000);`;
    const parent = spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', script], { stdio: ['ignore', 'pipe', 'inherit'] });
    const pid = await new Promise<number>((done) => {
      parent.stdout.on('data', (chunk: Buffer) => {
        const [, found] = /child (\d+)/.exec(chunk.toString()) ?? [];
        if (found) done(Number(found));
      });
    });
    expect(isAlive(pid)).toBe(true);
    parent.kill('SIGKILL');
    await expect.poll(() => isAlive(pid), { timeout: 15_000 }).toBe(false);
  });
  it('printing to nobody stops what was started, in order', { timeout: 30_000 }, async () => {
    const program = `
      import { whenNobodyReads } from './scripts/lib/nobodyReads.ts';
      import { writeFileSync } from 'node:fs';
      whenNobodyReads(() => { writeFileSync(process.argv[1], 'stopped'); process.exit(0); });
      setInterval(() => console.log('on and on'), 20);`;
    const folder = mkdtempSync(join(tmpdir(), 'keenfit-nobody-'));
    const note = join(folder, 'note');
    const child = spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', program, note], { stdio: ['ignore', 'pipe', 'inherit'] });
    await new Promise((read) => child.stdout.once('data', read));
    child.stdout.destroy();
    expect(await new Promise((ended) => child.on('exit', ended))).toBe(0);
    expect(readFileSync(note, 'utf8')).toBe('stopped');
    rmSync(folder, { recursive: true });
  });
  it('a web process killed while connections wait for it keeps none of them open', { timeout: 120_000 }, () => {
    const killedWhileBusy = (how: string): { hung: number; answered: number } => {
      const run = spawnSync(process.execPath, ['--import', 'tsx', 'tests/support/killedWhileBusy.ts', how], { encoding: 'utf8' });
      return z.object({ hung: z.number(), answered: z.number() }).parse(JSON.parse(run.stdout));
    };
    expect(killedWhileBusy('without').hung).toBeGreaterThan(0);
    const ours = killedWhileBusy('ours');
    expect(ours.hung).toBe(0);
    expect(ours.answered).toBeGreaterThan(60);
  });
});
