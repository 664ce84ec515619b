import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Link, Navigate, useParams } from 'react-router';
import { ApiError } from '../api/call.ts';
import { api } from '../api/client.ts';
import { workshopApi } from '../api/workshop.ts';
import { Afterwards } from '../common/Afterwards.tsx';
import { editsSince } from '../session/earlier.ts';
import { prebuiltFor } from '../session/prebuilt.ts';
import { browserShelf } from '../session/shelf.ts';
import { openSession, type Session } from '../session/store.ts';
import { Stage } from '../viewport/stage.ts';
import { Bench } from './Bench.tsx';
import { AlongGuide, CatchList } from './CatchList.tsx';
import { SessionContext, useSession, useSessionState } from './context.ts';
import { offerConsole } from './console.ts';
import { Header } from './Header.tsx';
import { useKeys } from './keys.ts';
import { OutputDialog } from './OutputDialog.tsx';
import { Layout } from './panels/Layout.tsx';
import { keepPicture } from './picture.ts';
import { keepSolids } from './keepSolids.ts';
import { Shortcuts } from './Shortcuts.tsx';
import { SheetArea } from './sheets/SheetArea.tsx';
import { StatementBar } from './StatementBar.tsx';
import { ViewDial } from './ViewDial.tsx';
import { Views } from './Views.tsx';

/** The workshop of one project. */
export default function Workshop() {
  const { id = '' } = useParams();
  const { data, error } = useQuery({
    queryKey: ['workshop', id],
    queryFn: async () => {
      const shelf = browserShelf();
      const [{ me }, opened, left, prebuilt] = await Promise.all([
        api.start(),
        workshopApi.openProject(id),
        // A browser that keeps nothing has nothing to give; what happens then is reported when there is something to keep.
        shelf.left(id).catch(() => undefined),
        prebuiltFor(id),
      ]);
      if (!me) throw new ApiError(401, 'Sign in first.', undefined);
      return { me, opened, edits: await editsSince(opened, left?.base), shelf, left, prebuilt };
    },
    staleTime: Infinity,
    gcTime: 0,
    retry: false,
  });
  const [session, setSession] = useState<Session | null>(null);

  useEffect(() => {
    if (!data) return;
    const { me, opened, edits, shelf, left, prebuilt } = data;
    const made = openSession({
      projectId: opened.id,
      name: opened.name,
      author: me.name,
      document: opened.document,
      edits,
      revision: opened.revision,
      shelf,
      left,
      prebuilt,
    });
    setSession(made);
    return () => {
      made.close();
      setSession(null);
      document.title = 'Kadrel';
    };
  }, [data]);

  if (error instanceof ApiError && error.status === 401) return <Navigate to="/sign-in" replace />;
  if (error)
    return (
      <main className="p-10">
        <p role="alert" className="mb-4 text-[15px]">
          {error.message}
        </p>
        <Link to="/projects" className="text-plum underline">
          To the projects
        </Link>
      </main>
    );
  if (!session) return <p className="p-6">Opening the workshop…</p>;
  return (
    <SessionContext value={session}>
      <Screen />
    </SessionContext>
  );
}

/** The screen itself, once the project is open. */
function Screen() {
  const session = useSession();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [stage, setStage] = useState<Stage | null>(null);
  const [isReady, setIsReady] = useState(false);
  const [isFour, setIsFour] = useState(false);
  const [isOutput, setIsOutput] = useState(false);
  const [isKeys, setIsKeys] = useState(false);

  useEffect(() => {
    let end = () => {};
    // In a task of its own: to set up the drawing takes as long as the screen itself.
    const timer = setTimeout(() => {
      if (!canvas.current) return;
      const made = new Stage(canvas.current, session);
      const withdraw = offerConsole(session, made);
      setStage(made);
      end = () => {
        withdraw();
        made.dispose();
      };
    });
    return () => {
      clearTimeout(timer);
      end();
      setStage(null);
      setIsReady(false);
    };
  }, [session]);
  useEffect(() => (stage && isReady ? keepPicture(session, stage) : undefined), [session, stage, isReady]);
  useEffect(() => keepSolids(session), [session]);
  const isOnSheet = useIsOnSheet();
  useKeys(session, isReady && !isOnSheet ? stage : null, {
    openKeys: () => setIsKeys(true),
    openOutput: () => setIsOutput(true),
    toggleViews: () => setIsFour((four) => !four),
  });

  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[40px_44px_minmax(0,1fr)_48px] overflow-hidden">
      <Header openOutput={() => setIsOutput(true)} openKeys={() => setIsKeys(true)} />
      <StatementBar openOutput={() => setIsOutput(true)} />
      <Layout>
        <main
          className="relative h-full min-w-0 touch-none overflow-hidden bg-ground select-none"
          aria-label="Views"
          data-testid="view"
        >
          <canvas ref={canvas} className="absolute inset-0 h-full w-full" aria-label="The model" role="img" />
          {stage && (
            <Views stage={stage} isFour={isFour} setIsFour={setIsFour} onReady={() => setIsReady(true)} />
          )}
          {stage && <CatchList stage={stage} />}
          {stage && <AlongGuide stage={stage} />}
          {stage && isReady && <ViewDial stage={stage} isSmall={isFour} />}
          <SheetArea openOutput={() => setIsOutput(true)} />
          <LookingAt />
          <KernelTrouble />
          <Empty />
        </main>
      </Layout>
      <Afterwards>
        <Bench />
      </Afterwards>
      <OutputDialog isOpen={isOutput} close={() => setIsOutput(false)} />
      <Shortcuts isOpen={isKeys} close={() => setIsKeys(false)} />
    </div>
  );
}

/** Keys of the views mean nothing while a sheet is shown. */
const useIsOnSheet = () =>
  useSessionState(({ openSheet, document }) => openSheet !== null && openSheet in document.sheets);

function LookingAt() {
  const session = useSession();
  const lookingAt = useSessionState((state) => state.lookingAt);
  const upTo = useSessionState((state) => state.builtPreview?.upTo);
  const name = useSessionState(({ document }) => (upTo ? document.items[upTo.part]?.name : undefined));
  if (lookingAt !== null)
    return (
      <Looking
        words="Looking at the model after statement"
        count={lookingAt}
        back={() => session.lookAt(null)}
      />
    );
  if (!upTo) return null;
  const words = `Looking at ${name} up to step`;
  return <Looking words={words} count={upTo.step + 1} back={() => void session.lookUpTo(null)} />;
}

interface LookingProps {
  readonly words: string;
  readonly count: number;
  readonly back: () => void;
}

const Looking = ({ words, count, back }: LookingProps) => (
  <div
    className="absolute top-2 left-1/2 z-10 flex -translate-x-1/2 items-center gap-3 rounded border border-plum bg-tint px-3 py-1.5"
    onPointerDown={(e) => e.stopPropagation()}
  >
    <span>
      {words} <span className="num">{count}</span>
    </span>
    <button type="button" className="button" onClick={back}>
      Back to now
    </button>
  </div>
);

/** Without its kernel the workshop can show nothing, and says so. */
function KernelTrouble() {
  const reason = useSessionState(({ kernel }) => (kernel.at === 'failed' ? kernel.reason : null));
  if (reason === null) return null;
  return (
    <p
      role="alert"
      className="absolute top-2 left-1/2 z-10 w-96 -translate-x-1/2 rounded border border-bad bg-sheet px-3 py-1.5 text-bad"
    >
      {reason} Nothing is lost. Reload the page to try again.
    </p>
  );
}

/** What to do first, on an empty ground. */
function Empty() {
  const isEmpty = useSessionState(
    (state) => Object.keys(state.document.items).length === 0 && state.statement === null,
  );
  if (!isEmpty) return null;
  return (
    <p className="pointer-events-none absolute top-1/4 left-1/2 w-96 -translate-x-1/2 text-center text-ink2">
      Nothing stands here yet. Press <kbd className="key">B</kbd> for a box or <kbd className="key">C</kbd>{' '}
      for a cylinder, or <kbd className="key">/</kbd> to find a verb. Drag on the ground, or type the numbers.
    </p>
  );
}
