import type { GroundDocument } from '@crooked-lantern/core';
import styled from 'styled-components';

const Svg = styled.svg`
  width: 88px;
  height: 88px;
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--panel);
  .wall {
    fill: var(--line2);
  }
  .hedge {
    fill: var(--hedge);
  }
  .trunk {
    fill: var(--leaf);
  }
  .agent {
    fill: var(--bone);
  }
`;

/** The ground of a project in small: where its walls, trees and agents are. */
export function GroundThumbnail({ ground }: { ground: GroundDocument | undefined }) {
  if (!ground) return <Svg aria-hidden />;
  return (
    <Svg viewBox={`-1 -1 ${ground.width + 2} ${ground.height + 2}`} aria-hidden>
      {ground.walls.map(({ at: [x, y], size: [width, height], kind = 'wall' }, i) =>
        kind === 'trunk' ? (
          <circle key={i} className="trunk" cx={x + width / 2} cy={y + height / 2} r={0.75} />
        ) : (
          <rect key={i} className={kind} x={x} y={y} width={width} height={height} />
        ),
      )}
      {Object.entries(ground.agents).map(
        ([
          name,
          {
            at: [x, y],
          },
        ]) => (
          <circle key={name} className="agent" cx={x} cy={y} r={0.7} />
        ),
      )}
    </Svg>
  );
}
