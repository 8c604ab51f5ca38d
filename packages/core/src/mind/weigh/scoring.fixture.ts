import type {
  BandSetDocument,
  ChoiceDocument,
  ConsiderationDocument,
  OptionDocument,
  ProjectDocument,
} from '../../model/documents.ts';
import { cornerProject, KEEN_SIGHT } from '../../testing/orchard.fixture.ts';

/** A keeper that weighs one choice. */

export function project(
  choice: Partial<ChoiceDocument> & Pick<ChoiceDocument, 'options'>,
  bands?: Record<string, BandSetDocument>,
): ProjectDocument {
  const document = cornerProject({
    sight: KEEN_SIGHT,
    memory: { a: { type: 'number', default: 0 }, b: { type: 'number', default: 0 } },
  });
  document.minds.keeper.choices = { whatNow: choice };
  document.minds.keeper.activity = { choice: 'whatNow' };
  if (bands) document.bands = bands;
  return document;
}

export const option = (id: string, more: Partial<OptionDocument>): OptionDocument => ({
  id,
  does: { do: 'wait', seconds: 60 },
  ...more,
});

export const considers = (...worths: (number | Partial<ConsiderationDocument>)[]) => ({
  considerations: worths.map((worth) =>
    typeof worth === 'number' ? { input: String(worth) } : { input: '0', ...worth },
  ),
});
