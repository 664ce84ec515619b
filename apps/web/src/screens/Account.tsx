import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState, type FormEvent, type ReactNode } from 'react';
import { Navigate, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { api } from '../api/client.ts';
import { ScreenHeader } from '../common/ScreenHeader.tsx';
import { forgetSolids } from '../common/solidStore.ts';

/** The user's account: password, where they are signed in, all they have as a file, and the way out. */
export function Account() {
  const { data: start, isPending } = useQuery({ queryKey: ['start'], queryFn: api.start });
  if (isPending) return <p className="p-6">Looking for your account…</p>;
  const me = start?.me;
  if (!me) return <Navigate to="/sign-in" replace />;
  return (
    <div className="flex min-h-full flex-col">
      <ScreenHeader to="/projects" words="Projects" />
      <main className="mx-auto flex w-full max-w-[680px] flex-1 flex-col gap-6 p-8">
        <div>
          <h1 className="text-[22px] font-bold">Your account</h1>
          <p className="text-ink2">
            {me.guest
              ? 'A guest of the demo; it is cleared after a day without use.'
              : `${me.name}, ${me.email}`}
          </p>
        </div>
        {!me.guest && <Password />}
        <Sessions />
        <Export />
        <DeleteAccount isGuest={me.guest} />
      </main>
    </div>
  );
}

function Card({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="flex flex-col gap-3 rounded-md border border-rule bg-sheet p-5" aria-label={title}>
      <h2 className="text-[15px] font-semibold">{title}</h2>
      {children}
    </section>
  );
}

function Secret({ name, label, fresh }: { name: string; label: string; fresh?: true }) {
  return (
    <label className="flex flex-1 flex-col gap-1 font-semibold">
      {label}
      <input
        className="field font-normal"
        type="password"
        name={name}
        required
        minLength={fresh && 10}
        maxLength={200}
        autoComplete={fresh ? 'new-password' : 'current-password'}
      />
    </label>
  );
}

const Problem = ({ error }: { error: Error | null }) =>
  error && (
    <p role="alert" className="text-bad">
      {error.message}
    </p>
  );

function Password() {
  const queries = useQueryClient();
  const change = useMutation({
    mutationFn: (form: HTMLFormElement) => {
      const values = new FormData(form);
      return api.changePassword({ old: String(values.get('old')), fresh: String(values.get('fresh')) });
    },
    onSuccess: async (_, form) => {
      form.reset();
      toast('Your password is changed. You are signed out everywhere else.');
      await queries.invalidateQueries({ queryKey: ['sessions'] });
    },
  });
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    change.mutate(event.currentTarget);
  };
  return (
    <Card title="Password">
      <form className="flex flex-col gap-3" onSubmit={submit}>
        <div className="flex flex-wrap gap-3">
          <Secret name="old" label="Present password" />
          <Secret name="fresh" label="New password" fresh />
        </div>
        <p className="text-[12px] text-ink2">At least 10 characters. You are signed out everywhere else.</p>
        <Problem error={change.error} />
        <button type="submit" className="button self-start" disabled={change.isPending}>
          Change password
        </button>
      </form>
    </Card>
  );
}

function Sessions() {
  const queries = useQueryClient();
  const { data } = useQuery({ queryKey: ['sessions'], queryFn: api.sessions });
  const close = useMutation({
    mutationFn: api.closeOtherSessions,
    onSuccess: () => queries.invalidateQueries({ queryKey: ['sessions'] }),
  });
  const others = data?.filter(({ isThis }) => !isThis) ?? [];
  return (
    <Card title="Where you are signed in">
      <ul className="flex flex-col gap-1">
        {data?.map(({ isThis, usedAt }, i) => (
          <li key={i}>
            {isThis ? 'This browser' : 'Another browser'}, last used {dayAndHour(usedAt)}
          </li>
        ))}
      </ul>
      <Problem error={close.error} />
      <button
        type="button"
        className="button self-start"
        disabled={others.length === 0 || close.isPending}
        onClick={() => close.mutate()}
      >
        Sign out everywhere else
      </button>
    </Card>
  );
}

const dayAndHour = (time: string) =>
  new Date(time).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'long',
    hour: '2-digit',
    minute: '2-digit',
  });

const Export = () => (
  <Card title="Everything you have">
    <p className="text-ink2">
      One JSON file with all your projects, each as a Kadrel document with its whole history.
    </p>
    <a className="button self-start" href="/api/account/export" download="kadrel-account.json">
      Download it
    </a>
  </Card>
);

function DeleteAccount({ isGuest }: { isGuest: boolean }) {
  const [isSure, setIsSure] = useState(false);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const remove = useMutation({
    mutationFn: (password: string) => api.deleteAccount(password),
    onSuccess: async () => {
      await forgetSolids();
      queries.clear();
      await navigate('/sign-in');
    },
  });
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    remove.mutate(String(new FormData(event.currentTarget).get('password') ?? ''));
  };
  return (
    <Card title="Delete the account">
      <p className="text-ink2">The account and all its projects are gone then, and cannot be brought back.</p>
      {isSure ? (
        <form className="flex flex-col gap-3" onSubmit={submit}>
          {!isGuest && <Secret name="password" label="Password" />}
          <Problem error={remove.error} />
          <div className="flex gap-2">
            <button type="button" className="button" onClick={() => setIsSure(false)}>
              Keep it
            </button>
            <button type="submit" className="button main" disabled={remove.isPending}>
              Delete for good
            </button>
          </div>
        </form>
      ) : (
        <button type="button" className="button self-start" onClick={() => setIsSure(true)}>
          Delete the account…
        </button>
      )}
    </Card>
  );
}
