/** Long, since cards, their menus and their dialogs are small and are used nowhere else. */
import { Modal } from '../common/Modal.tsx';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { LENGTH_UNITS, LENGTH_UNIT_WORDS, type LengthUnit } from '@kadrel/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Ellipsis, Plus } from 'lucide-react';
import { useEffect, useRef, useState, type FormEvent } from 'react';
import { Link, Navigate, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { ApiError } from '../api/call.ts';
import { api, type ProjectCard } from '../api/client.ts';
import { loadWorkshopAhead } from '../loadWorkshop.ts';
import { ScreenHeader } from '../common/ScreenHeader.tsx';

/** The user's projects, as cards with pictures. */
export function Projects() {
  const [search, setSearch] = useState('');
  const [showArchived, setShowArchived] = useState(false);
  const [isCreating, setIsCreating] = useState(false);
  const { data: start } = useQuery({ queryKey: ['start'], queryFn: api.start });
  const { data, error, isPending } = useQuery({
    queryKey: ['projects'],
    queryFn: api.projects,
    enabled: Boolean(start?.me),
  });
  const isShown = data !== undefined;
  useEffect(() => (isShown ? loadWorkshopAhead() : undefined), [isShown]);
  if (start?.me === null || (error instanceof ApiError && error.status === 401))
    return <Navigate to="/sign-in" replace />;
  const shown = (data ?? []).filter(
    (p) => p.archived === showArchived && p.name.toLowerCase().includes(search.trim().toLowerCase()),
  );

  return (
    <div className="flex min-h-full flex-col">
      <ScreenHeader to="/about" words="About" />
      <main className="mx-auto w-full max-w-[1160px] flex-1 p-8">
        <div className="mb-6 flex items-center gap-3">
          <h1 className="text-[22px] font-bold">Projects</h1>
          <span className="flex-1" />
          <input
            className="field max-w-60"
            type="search"
            placeholder="Find a project"
            aria-label="Find a project"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
          <button
            type="button"
            className="button"
            aria-pressed={showArchived}
            onClick={() => setShowArchived(!showArchived)}
          >
            {showArchived ? 'Show current' : 'Show archived'}
          </button>
          <OpenFile />
          <button
            type="button"
            className="button main inline-flex items-center gap-1.5"
            onClick={() => setIsCreating(true)}
          >
            <Plus size={15} aria-hidden /> New project
          </button>
        </div>
        {error && (
          <p role="alert" className="text-bad">
            {error.message}
          </p>
        )}
        {isPending && <p className="text-ink2">Looking for your projects…</p>}
        {data && shown.length === 0 && (
          <p className="text-ink2">{emptySentence(search, { archived: showArchived })}</p>
        )}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(250px,1fr))] gap-5">
          {shown.map((project) => (
            <Card key={project.id} project={project} />
          ))}
        </ul>
      </main>
      <NewProject isOpen={isCreating} close={() => setIsCreating(false)} />
    </div>
  );
}

/** A Kadrel JSON file becomes a project. */
function OpenFile() {
  const navigate = useNavigate();
  const file = useRef<HTMLInputElement>(null);
  const open = useMutation({
    mutationFn: async (chosen: File) => api.openFile(nameOfFile(chosen.name), jsonIn(await chosen.text())),
    onSuccess: ({ id }) => navigate(`/projects/${id}`),
    onError: (error) => toast.error(error.message),
  });
  return (
    <>
      <button
        type="button"
        className="button"
        disabled={open.isPending}
        onClick={() => file.current?.click()}
      >
        Open a file…
      </button>
      <input
        ref={file}
        type="file"
        accept=".json,application/json"
        hidden
        aria-label="Kadrel JSON file"
        onChange={({ currentTarget }) => {
          const [chosen] = currentTarget.files ?? [];
          if (chosen) open.mutate(chosen);
          currentTarget.value = '';
        }}
      />
    </>
  );
}

const nameOfFile = (name: string) => name.replace(/(\.kadrel)?\.json$/i, '').slice(0, 120) || 'Opened';

function jsonIn(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    throw new Error('This is no Kadrel JSON file: it cannot be read as JSON.', { cause: error });
  }
}

function emptySentence(search: string, { archived }: { readonly archived: boolean }): string {
  if (search.trim()) return `No project’s name contains “${search.trim()}”.`;
  return archived ? 'Nothing is archived.' : 'There is no project yet. Make the first one.';
}

function useProjectChange<T>(work: (value: T) => Promise<unknown>, said: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: work,
    onSuccess: () => {
      toast(said);
      return queries.invalidateQueries({ queryKey: ['projects'] });
    },
    onError: (error) => toast.error(error.message),
  });
}

function Card({ project }: { project: ProjectCard }) {
  const [isRenaming, setIsRenaming] = useState(false);
  const [isDeleting, setIsDeleting] = useState(false);
  return (
    <li className="overflow-hidden rounded-md border border-rule bg-sheet">
      <Link
        to={`/projects/${project.id}`}
        className="block aspect-[16/10] bg-ground"
        aria-label={`Open ${project.name}`}
      >
        {project.picture ? (
          <img
            src={`/api/projects/${project.id}/picture?${project.picture.slice(0, 12)}`}
            alt=""
            className="h-full w-full object-cover"
          />
        ) : (
          <span className="flex h-full items-center justify-center text-ink3">no picture yet</span>
        )}
      </Link>
      <div className="flex items-center gap-1 py-2 pr-1.5 pl-3">
        <div className="min-w-0 flex-1">
          {isRenaming ? (
            <RenameProject project={project} end={() => setIsRenaming(false)} />
          ) : (
            <Link to={`/projects/${project.id}`} className="block truncate font-semibold">
              {project.name}
            </Link>
          )}
          <p className="truncate text-[12px] text-ink3">
            {new Date(project.changedAt).toLocaleDateString('en-GB', {
              day: 'numeric',
              month: 'long',
              year: 'numeric',
            })}{' '}
            · revision {project.revision}
          </p>
        </div>
        <CardMenu project={project} rename={() => setIsRenaming(true)} remove={() => setIsDeleting(true)} />
      </div>
      <DeleteProject project={project} isOpen={isDeleting} close={() => setIsDeleting(false)} />
    </li>
  );
}

interface CardMenuProps {
  readonly project: ProjectCard;
  readonly rename: () => void;
  readonly remove: () => void;
}

/** What can be done with a project without opening it. */
function CardMenu({ project, rename, remove }: CardMenuProps) {
  const { data: start } = useQuery({ queryKey: ['start'], queryFn: api.start });
  const duplicate = useProjectChange(() => api.duplicateProject(project.id), 'Duplicated.');
  const archive = useProjectChange(
    () => api.changeProject(project.id, { archived: !project.archived }),
    project.archived ? 'Restored.' : `Archived. It can be restored for ${start?.archiveDays ?? 0} days.`,
  );
  return (
    <Menu>
      <MenuButton className="quiet" aria-label={`More for ${project.name}`}>
        <Ellipsis size={16} aria-hidden />
      </MenuButton>
      <MenuItems modal={false} anchor="bottom end" className="menu w-40">
        <MenuItem>
          <button type="button" className="menu-item" onClick={rename}>
            Rename
          </button>
        </MenuItem>
        <MenuItem>
          <button type="button" className="menu-item" onClick={() => duplicate.mutate(undefined)}>
            Duplicate
          </button>
        </MenuItem>
        <MenuItem>
          <button type="button" className="menu-item" onClick={() => archive.mutate(undefined)}>
            {project.archived ? 'Restore' : 'Archive'}
          </button>
        </MenuItem>
        {project.archived && (
          <MenuItem>
            <button type="button" className="menu-item text-bad" onClick={remove}>
              Delete for good…
            </button>
          </MenuItem>
        )}
      </MenuItems>
    </Menu>
  );
}

interface RenameProjectProps {
  readonly project: ProjectCard;
  readonly end: () => void;
}

/** A field in place of the name. */
function RenameProject({ project, end }: RenameProjectProps) {
  const rename = useProjectChange((name: string) => api.changeProject(project.id, { name }), 'Renamed.');
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const name = String(new FormData(event.currentTarget).get('name') ?? '').trim();
    end();
    if (name && name !== project.name) rename.mutate(name);
  };
  return (
    <form onSubmit={submit}>
      <input
        name="name"
        aria-label="New name"
        className="field"
        defaultValue={project.name}
        maxLength={120}
        autoFocus
        onBlur={(event) => event.currentTarget.form?.requestSubmit()}
        onKeyDown={(event) => event.key === 'Escape' && end()}
      />
    </form>
  );
}

function DeleteProject({
  project,
  isOpen,
  close,
}: {
  project: ProjectCard;
  isOpen: boolean;
  close: () => void;
}) {
  const remove = useProjectChange(() => api.deleteProject(project.id), 'Deleted.');
  return (
    <Modal isOpen={isOpen} close={close} title={`Delete ${project.name}?`} width="w-96">
      <div className="flex flex-col gap-4">
        <p>Its parts and its whole history are gone then, and cannot be brought back.</p>
        <div className="flex justify-end gap-2">
          <button type="button" className="button" onClick={close}>
            Keep it
          </button>
          <button type="button" className="button main" onClick={() => remove.mutate(undefined)}>
            Delete for good
          </button>
        </div>
      </div>
    </Modal>
  );
}

/** A sensible first grid step for each unit, mm. */
const FIRST_GRID: Readonly<Record<LengthUnit, number>> = {
  mm: 5,
  cm: 10,
  m: 100,
  in: 12.7,
  ft: 304.8,
  'ft-in': 25.4,
};

function NewProject({ isOpen, close }: { isOpen: boolean; close: () => void }) {
  const [name, setName] = useState('');
  const [units, setUnits] = useState<LengthUnit>('mm');
  const navigate = useNavigate();
  const queries = useQueryClient();
  const create = useMutation({
    mutationFn: () => api.createProject(name.trim(), { units, grid: FIRST_GRID[units] }),
    onSuccess: async ({ id }) => {
      await queries.invalidateQueries({ queryKey: ['projects'] });
      await navigate(`/projects/${id}`);
    },
  });
  return (
    <Modal isOpen={isOpen} close={close} title="New project" width="w-96">
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) create.mutate();
        }}
      >
        <label className="flex flex-col gap-1 font-semibold">
          Name
          <input
            className="field font-normal"
            value={name}
            maxLength={120}
            autoFocus
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <label className="flex flex-col gap-1 font-semibold">
          Scene units
          <select
            className="field font-normal"
            value={units}
            onChange={(event) => setUnits(event.target.value as LengthUnit)}
          >
            {LENGTH_UNITS.map((unit) => (
              <option key={unit} value={unit}>
                {LENGTH_UNIT_WORDS[unit]}
              </option>
            ))}
          </select>
        </label>
        <p className="text-[12px] text-ink2">
          Everything is drawn 1:1. Units can be changed later; nothing changes its size.
        </p>
        {create.error && (
          <p role="alert" className="text-bad">
            {create.error.message}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <button type="button" className="button" onClick={close}>
            Cancel
          </button>
          <button type="submit" className="button main" disabled={!name.trim() || create.isPending}>
            Create
          </button>
        </div>
      </form>
    </Modal>
  );
}
