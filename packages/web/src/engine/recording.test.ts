import { playerOf, type PlayerDocument } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { recordingOf } from './recording.ts';

const player: PlayerDocument = {
  title: 'Rush',
  seed: 9,
  inputs: [
    { tick: 3, agent: 'gleaner', x: 1, gait: 'run' },
    { tick: 40, agent: 'gleaner', act: 'throw', at: [4, 5] },
  ],
};

describe('a scripted player', () => {
  it('is replayed with its seed, until two seconds past its last input', () => {
    const { recording, until } = recordingOf(player, { seed: 1, ticksPerSecond: 30 });
    expect(until).toBe(40 + 60);
    expect(recording.seed).toBe(9);
    expect(recording.inputs[0]).toEqual({
      tick: 3,
      input: { agent: 'gleaner', x: 1, y: 0, gait: 'run' },
    });
  });

  it('is the same once it is recorded again', () => {
    const { recording } = recordingOf(player, {});
    expect(playerOf('Rush', recording.seed, recording.inputs)).toEqual(player);
  });

  it('without a seed takes the project’s, and without input ends at once', () => {
    const idle = recordingOf({ title: 'Idle', inputs: [] }, { seed: 4 });
    expect([idle.recording.seed, idle.until]).toEqual([4, 120]);
    expect(recordingOf({ title: 'Idle', inputs: [] }, {}).recording.seed).toBe(1);
  });
});
