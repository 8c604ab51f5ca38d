import {
  parseJson,
  PROJECT_VERSION,
  titleOfCopy,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { Download, Ellipsis, FilePlus, FolderOpen, Trash2, LayoutTemplate } from 'lucide-react';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { api, ApiError, fileAddress, type ProjectSummary } from '../api/client.ts';
import { useCommands } from '../shell/commands.tsx';
import { Header } from '../shell/header.tsx';
import { Button, MainButton, QuietButton } from '../ui/button.tsx';
import { counted } from '../ui/words/counted.ts';
import { Menu } from '../ui/overlays/menu.tsx';
import { usePickFile } from '../ui/pick-file.tsx';
import { hasStash } from '../state/stash.ts';
import { agoText } from '../ui/words/time.ts';
import { GroundThumbnail } from './ground-thumbnail.tsx';
import type { OpenedFrom } from '../project/version-notice.tsx';
import { newProject } from './new-project.ts';
import { STARTING_PROJECTS } from './starting-projects.ts';
import { runInBackground } from '../state/failures.ts';

/** Files past this are refused before they are read; the server's own limit is the same. */
const LARGEST_FILE = 8 * 1_048_576;

const Page = styled.main`
  width: min(880px, 100%);
  margin: 0 auto;
  padding: 40px 24px;
`;

const Top = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 12px;
  margin-bottom: 20px;
  > div {
    flex: 1;
    min-width: 32ch;
  }
  h1 {
    font: 600 2rem/1.2 var(--title);
  }
  p {
    color: var(--mute);
  }
`;

const Rows = styled.ul`
  border-top: 1px solid var(--line);
`;

const Row = styled.li`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto auto;
  align-items: center;
  gap: 4px 20px;
  padding: 12px 6px;
  border-bottom: 1px solid var(--line);
  a {
    color: var(--bone);
    font: 600 1.2rem var(--title);
    text-decoration: none;
  }
  a:hover {
    text-decoration: underline;
  }
  p {
    color: var(--mute);
  }
`;

const More = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  padding: 12px 6px;
  color: var(--mute);
`;

const Facts = styled.div`
  color: var(--mute);
  text-align: right;
  white-space: nowrap;
`;

const Notice = styled.div`
  display: flex;
  align-items: start;
  gap: 12px;
  margin-bottom: 16px;
  padding: 10px 12px;
  border: 1px solid var(--line2);
  border-radius: 8px;
  background: var(--panel);
  ul {
    margin-top: 4px;
  }
  code {
    font-family: var(--mono);
    color: var(--harm);
  }
  > div {
    flex: 1;
    min-width: 0;
    overflow-wrap: anywhere;
  }
`;

interface NoticeState {
  text: string;
  faults?: { path: string; message: string }[];
  undo?: () => void;
}

export function HomePage() {
  const navigate = useNavigate();
  const [projects, setProjects] = useState<ProjectSummary[] | null>(null);
  const [total, setTotal] = useState(0);
  const [notice, setNotice] = useState<NoticeState | null>(null);

  const attempt = useCallback(async (work: () => Promise<void>) => {
    try {
      await work();
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      setNotice({ text: error.message, faults: error.faults });
    }
  }, []);

  const refresh = useCallback(
    () =>
      attempt(async () => {
        const page = await api.list();
        setProjects(page.projects);
        setTotal(page.total);
      }),
    [attempt],
  );
  const showMore = (shown: ProjectSummary[]) =>
    attempt(async () => {
      const page = await api.list(shown.length);
      // One that was changed meanwhile has moved to the front, and pushes another into this page twice.
      const known = new Set(shown.map(({ id }) => id));
      setProjects([...shown, ...page.projects.filter(({ id }) => !known.has(id))]);
      setTotal(page.total);
    });
  useEffect(() => {
    document.title = 'Crooked Lantern';
    runInBackground(refresh());
  }, [refresh]);

  const begin = useCallback(
    (document: ProjectDocument, place: string) =>
      attempt(async () => {
        const { id } = await api.create(document);
        await navigate(`/projects/${id}/${place}`);
      }),
    [attempt, navigate],
  );
  const create = useCallback(() => begin(newProject('Untitled night'), 'minds'), [begin]);

  const open = (file: File) =>
    attempt(async () => {
      if (file.size > LARGEST_FILE) {
        setNotice({
          text: `“${file.name}” has ${Math.ceil(file.size / 1_048_576)} MB; a project file may have 8 MB. Nothing was opened.`,
        });
        return;
      }
      const parsed = parseJson(await file.text());
      if ('faults' in parsed) {
        const [{ path, message }] = parsed.faults;
        const what = path === '' ? message : `${path} ${message}.`;
        setNotice({ text: `“${file.name}”: ${what} Nothing was opened.` });
        return;
      }
      const document = parsed.value as ProjectDocument;
      const { id } = await api.create(document);
      const { version } = document as { version: number };
      await navigate(`/projects/${id}/minds`, {
        state: version === PROJECT_VERSION ? null : ({ writtenIn: version } satisfies OpenedFrom),
      });
    });

  const { pick, input } = usePickFile('.json,application/json', (file) =>
    runInBackground(open(file)),
  );

  const remove = (project: ProjectSummary) =>
    attempt(async () => {
      await api.remove(project.id);
      setNotice({
        text: `“${project.title}” was deleted.`,
        undo: () =>
          runInBackground(
            attempt(async () => {
              await api.restore(project.id);
              setNotice(null);
              await refresh();
            }),
          ),
      });
      await refresh();
    });

  const duplicate = (project: ProjectSummary) =>
    attempt(async () => {
      const { document } = await api.read(project.id);
      const titles = projects?.map(({ title }) => title) ?? [];
      await api.create({ ...document, title: titleOfCopy(document.title, titles) });
      await refresh();
    });

  useCommands(
    useMemo(
      () => [
        { id: 'new-project', name: 'New project', run: () => runInBackground(create()) },
        ...STARTING_PROJECTS.map(({ id, title, make }) => ({
          id: `new-${id}`,
          name: `New project from: ${title}`,
          run: () => runInBackground(begin(make(), 'watch')),
        })),
        { id: 'open-file', name: 'Open a project file', run: pick },
        {
          id: 'recordings',
          name: 'Open an exported recording',
          run: () => runInBackground(navigate('/recordings')),
        },
      ],
      [begin, create, navigate, pick],
    ),
  );

  return (
    <>
      <Header />
      <Page>
        <Top>
          <div>
            <h1>Projects</h1>
            <p>
              Write the minds of characters, run them on a ground, play against them, and ask them
              why. Recordings that were exported <Link to="/recordings">can be looked at</Link>{' '}
              without their project.
            </p>
          </div>
          <Button onPress={pick}>
            <FolderOpen size={15} /> Open a file
          </Button>
          <Menu
            label="Begin from a small project"
            entries={STARTING_PROJECTS.map(({ id, title, about, make }) => ({
              id,
              text: title,
              label: (
                <>
                  {title} <small>{about}</small>
                </>
              ),
              onAction: () => runInBackground(begin(make(), 'watch')),
            }))}
          >
            <Button>
              <LayoutTemplate size={15} /> Begin from …
            </Button>
          </Menu>
          <MainButton onPress={() => runInBackground(create())}>
            <FilePlus size={15} /> New project
          </MainButton>
          {input}
        </Top>
        {notice && (
          <Notice role="alert">
            <div>
              {notice.text}
              {notice.faults && notice.faults.length > 0 && (
                <ul>
                  {notice.faults.slice(0, 8).map((fault) => (
                    <li key={`${fault.path} ${fault.message}`}>
                      <code>{fault.path || 'file'}</code> {fault.message}
                    </li>
                  ))}
                  {notice.faults.length > 8 && <li>and {notice.faults.length - 8} more</li>}
                </ul>
              )}
            </div>
            {notice.undo && <Button onPress={notice.undo}>Undo</Button>}
            <QuietButton onPress={() => setNotice(null)}>Dismiss</QuietButton>
          </Notice>
        )}
        {projects === null && !notice && <p role="status">Reading the projects …</p>}
        {projects?.length === 0 && (
          <p>No projects yet. Begin with a new one, or open a project file.</p>
        )}
        {projects && projects.length > 0 && (
          <Rows aria-label="Projects">
            {projects.map((project) => (
              <Row key={project.id}>
                <GroundThumbnail ground={project.ground} />
                <div>
                  <Link to={`/projects/${project.id}/minds`}>{project.title}</Link>
                  {project.note && <p>{project.note}</p>}
                  <p>
                    {counted(project.minds, 'mind')} · {counted(project.agents, 'agent')}
                  </p>
                </div>
                <Facts>
                  edit {project.edit}
                  <br />
                  changed {agoText(project.updatedAt, Date.now())}
                  {hasStash(project.id) && (
                    <>
                      <br />
                      unsaved changes in this browser
                    </>
                  )}
                </Facts>
                <Menu
                  label={`Commands for ${project.title}`}
                  entries={[
                    {
                      id: 'duplicate',
                      text: 'Duplicate',
                      label: 'Duplicate',
                      onAction: () => runInBackground(duplicate(project)),
                    },
                    {
                      id: 'download',
                      text: 'Download as a file',
                      label: (
                        <>
                          Download as a file <Download size={14} />
                        </>
                      ),
                      onAction: () => window.location.assign(fileAddress(project.id)),
                    },
                    {
                      id: 'delete',
                      text: 'Delete',
                      label: (
                        <>
                          Delete <Trash2 size={14} />
                        </>
                      ),
                      onAction: () => runInBackground(remove(project)),
                    },
                  ]}
                >
                  <QuietButton aria-label={`More for ${project.title}`}>
                    <Ellipsis size={16} />
                  </QuietButton>
                </Menu>
              </Row>
            ))}
          </Rows>
        )}
        {projects && projects.length < total && (
          <More>
            <span>
              {projects.length} of {total} projects
            </span>
            <Button onPress={() => runInBackground(showMore(projects))}>Show more</Button>
          </More>
        )}
      </Page>
    </>
  );
}
