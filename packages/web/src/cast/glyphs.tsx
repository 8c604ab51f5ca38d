/** The outline of a drop for what agents are made from, a filled one for an agent: the two are never to be confused. */

const DROP = 'M8 0C10 4 13 6 13 9.5C13 13 10.8 15.5 8 15.5C5.2 15.5 3 13 3 9.5C3 6 6 4 8 0Z';

export function ArchetypeGlyph({ tint }: { tint: string }) {
  return (
    <svg width="13" height="14" viewBox="0 0 16 16" aria-hidden>
      <path d={DROP} fill="none" stroke={tint} strokeWidth="1.6" strokeDasharray="3 1.6" />
    </svg>
  );
}

export function AgentGlyph({ tint }: { tint: string }) {
  return (
    <svg width="13" height="14" viewBox="0 0 16 16" aria-hidden>
      <path d={DROP} fill={tint} />
    </svg>
  );
}
