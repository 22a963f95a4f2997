import { gunzipSync } from 'node:zlib';
import { VectorTile } from '@mapbox/vector-tile';
import { PbfReader } from 'pbf';
import { describe, expect, it } from 'vitest';
import { TaskWorker } from '../worker/task-worker';
import type { WorldTask } from '../worker/world-tasks';
import { World } from './world';

const world = new World('world', new TaskWorker(undefined));

describe('tiles of the world', () => {
  it('have the land of the whole earth, and its largest towns', async () => {
    const { layers } = new VectorTile(new PbfReader(gunzipSync((await world.tile({ z: 0, x: 0, y: 0 })) ?? new Uint8Array())));
    expect(Object.keys(layers).sort()).toEqual(['border', 'coast', 'lake', 'land', 'name']);
    expect(layers.name?.length).toBeGreaterThan(20);
  });

  it('have nothing on the open sea', async () => {
    expect(await world.tile({ z: 8, x: 10, y: 160 })).toBeUndefined();
  });

  it('are named after what they are cut from', () => {
    expect(world.version()).toMatch(/^[0-9a-f]{16}$/);
    expect(new World('world', new TaskWorker(undefined)).version()).toBe(world.version());
  });

  it('are made once for all who ask, and again after a failure', async () => {
    const asked: WorldTask[] = [];
    let fails = true;
    const worker = {
      run: async function* (task: WorldTask) {
        asked.push(task);
        await new Promise((done) => setTimeout(done, 5));
        if (fails) throw new Error('the thread ended');
        yield { part: 'tile', bytes: task.task === 'tile' && task.place.x === 0 ? new Uint8Array([1]) : undefined };
      },
    } as unknown as TaskWorker;
    const one = new World('world', worker);
    const all = () => Promise.allSettled(Array.from({ length: 20 }, () => one.tile({ z: 1, x: 0, y: 0 })));
    expect((await all()).every(({ status }) => status === 'rejected')).toBe(true);
    fails = false;
    expect(await all()).toEqual(Array.from({ length: 20 }, () => ({ status: 'fulfilled', value: new Uint8Array([1]) })));
    expect(asked.length).toBe(2);
    for (let round = 0; round < 3; round++) expect(await one.tile({ z: 1, x: 1, y: 0 })).toBeUndefined();
    expect(asked.length).toBe(3);
  });
});
