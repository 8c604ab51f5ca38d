import { freshIn, namesOf, titleOfCopy, withoutUndefined } from '@crooked-lantern/core';
import { Copy, MapPin, Trash2 } from 'lucide-react';
import { useNavigate, useParams } from 'react-router';
import { useTokens } from '../theme/use-tokens.ts';
import { Button } from '../ui/button.tsx';
import { AgentLinks } from './agent-links.tsx';
import { factionTint } from './factions.ts';
import { FindingsHere } from './findings-here.tsx';
import { ArchetypeGlyph } from './glyphs.tsx';
import { EntryHeading } from './heading.tsx';
import { KindForm } from './kind-form.tsx';
import { Buttons, FormColumn } from './layout.ts';
import { archetypeEditor, type CastEditor } from './use-cast.ts';
import { runInBackground } from '../state/failures.ts';

/** What all agents made from it have. */
export function ArchetypeForm({ cast }: { cast: CastEditor }) {
  const { document, selection, select, change, agents } = cast;
  const { id = '' } = useParams();
  const navigate = useNavigate();
  const tokens = useTokens();
  const { name } = selection;
  const editor = archetypeEditor(cast, name);
  if (!editor) return null;
  const { kind } = editor;
  const made = namesOf(agents).filter((agent) => agents[agent].archetype === name);
  const duplicate = () => {
    const copy = freshIn(document.archetypes, name);
    const titles = Object.values(document.archetypes).map(({ title }) => title);
    const value = { ...kind, title: titleOfCopy(kind.title, titles) };
    if (change({ command: 'setInCast', part: 'archetypes', name: copy, value }))
      select('archetypes', copy);
  };
  const remove = () => change({ command: 'setInCast', part: 'archetypes', name, value: null });
  return (
    <FormColumn aria-label={`Archetype ${kind.title}`}>
      <EntryHeading
        editor={cast}
        entry={kind}
        onChange={(part) =>
          change({
            command: 'setInCast',
            part: 'archetypes',
            name,
            value: withoutUndefined({ ...kind, ...part }),
          })
        }
        sort={
          <>
            <ArchetypeGlyph tint={factionTint(document, kind.faction, tokens.factions)} /> Archetype
          </>
        }
      />
      <p>
        {made.length === 0
          ? 'No agent is made from it yet.'
          : `${made.length} ${made.length === 1 ? 'agent is' : 'agents are'} made from it: `}
        <AgentLinks cast={cast} names={made} />
      </p>
      <Buttons>
        <Button
          onPress={() =>
            runInBackground(
              navigate(`/projects/${id}/ground`, { state: { place: 'agent', archetype: name } }),
            )
          }
        >
          <MapPin size={13} /> Place one
        </Button>
        <Button onPress={duplicate}>
          <Copy size={13} /> Copy
        </Button>
        <Button onPress={remove}>
          <Trash2 size={13} /> Remove
        </Button>
      </Buttons>
      <FindingsHere path={editor.path} />
      <KindForm cast={cast} editor={editor} />
    </FormColumn>
  );
}
