import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm, type UseFormReturn } from 'react-hook-form';
import { Link, useNavigate } from 'react-router';
import { z } from 'zod';
import { api } from '../api/client.ts';
import { Wordmark } from '../common/Wordmark.tsx';

const signInForm = z.object({
  email: z.email('Type an address such as ada@example.org.'),
  name: z.string(),
  password: z.string().min(1, 'Type your password.'),
});
const signUpForm = z.object({
  email: z.email('Type an address such as ada@example.org.'),
  name: z.string().trim().min(1, 'Say what you are called.'),
  password: z.string().min(10, 'At least 10 characters.'),
});
type Form = z.infer<typeof signUpForm>;

/** The start screen: sign in, sign up, or into the demo. */
export function SignIn() {
  const [isNew, setIsNew] = useState(false);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { data: start } = useQuery({ queryKey: ['start'], queryFn: api.start });
  const form = useForm<Form>({
    resolver: zodResolver(isNew ? signUpForm : signInForm),
    defaultValues: { email: '', name: '', password: '' },
  });
  const entered = async () => {
    queries.clear();
    await navigate('/projects');
  };
  const enter = useMutation({
    mutationFn: ({ email, name, password }: Form): ReturnType<typeof api.signUp> =>
      isNew ? api.signUp({ email, name, password }) : api.signIn({ email, password }),
    onSuccess: (answer) => ('confirm' in answer ? undefined : entered()),
  });
  const toConfirm = enter.data && 'confirm' in enter.data ? enter.data.confirm : undefined;
  const demo = useMutation({ mutationFn: api.demo, onSuccess: entered });
  const problem = enter.error ?? demo.error;

  return (
    <div className="grid min-h-full grid-cols-1 md:grid-cols-[1fr_460px]">
      <section aria-hidden className="hidden flex-col justify-between overflow-hidden bg-ground p-12 md:flex">
        <Wordmark large />
        <Drawing />
        <p className="max-w-[52ch] text-[15px] text-ink2">
          Every part is exactly the size, and exactly in the place, that you said, and you can read both back
          at any time.
        </p>
      </section>
      <main className="flex flex-col justify-center gap-6 border-l border-rule bg-sheet p-10">
        <h1 className="text-[22px] font-bold">{isNew ? 'Make an account' : 'Sign in'}</h1>
        {toConfirm !== undefined && <OnItsWay to={toConfirm} />}
        <EntryForm form={form} isNew={isNew} enter={enter} problem={problem} />
        <button
          type="button"
          className="quiet self-start text-plum underline"
          onClick={() => setIsNew(!isNew)}
        >
          {isNew ? 'I have an account' : 'I am new here'}
        </button>
        {start?.demo && <DemoOffer isBusy={demo.isPending} enter={() => demo.mutate()} />}
        <Link to="/about" className="self-start text-ink3 underline">
          About Kadrel
        </Link>
      </main>
    </div>
  );
}

function OnItsWay({ to }: { to: string }) {
  return (
    <p role="status" className="rounded border border-rule bg-ground p-4">
      A message is on its way to <b>{to}</b>. Open the link in it within a day to go on.
    </p>
  );
}

interface EntryFormProps {
  readonly form: UseFormReturn<Form>;
  /** For making an account. */
  readonly isNew: boolean;
  readonly enter: { readonly isPending: boolean; mutate(values: Form): void };
  readonly problem: Error | null;
}

/** Address, password, and for a new account the name. */
function EntryForm({ form, isNew, enter, problem }: EntryFormProps) {
  return (
    <form
      noValidate
      className="flex flex-col gap-4"
      onSubmit={(event) => void form.handleSubmit((values) => enter.mutate(values))(event)}
    >
      <Field form={form} name="email" label="Address" autoComplete="email" />
      {isNew && <Field form={form} name="name" label="Name" autoComplete="name" />}
      <Field
        form={form}
        name="password"
        label="Password"
        autoComplete={isNew ? 'new-password' : 'current-password'}
      />
      {problem && (
        <p role="alert" className="text-bad">
          {problem.message}
        </p>
      )}
      <button type="submit" className="button main" disabled={enter.isPending}>
        {isNew ? 'Make account' : 'Sign in'}
      </button>
    </form>
  );
}

function DemoOffer({ isBusy, enter }: { isBusy: boolean; enter: () => void }) {
  return (
    <div className="border-t border-rule pt-6">
      <p className="mb-3 text-ink2">
        Look around without an account. What you change there is yours alone, and is cleared after a day
        without use.
      </p>
      <button type="button" className="button" disabled={isBusy} onClick={enter}>
        Enter the demo
      </button>
    </div>
  );
}

interface FieldProps {
  readonly form: UseFormReturn<Form>;
  readonly name: keyof Form;
  readonly label: string;
  readonly autoComplete: string;
}

const TYPES = { email: 'email', name: 'text', password: 'password' } as const;

function Field({ form, name, label, autoComplete }: FieldProps) {
  const error = form.formState.errors[name]?.message;
  return (
    <div className="flex flex-col gap-1">
      <label className="font-semibold" htmlFor={name}>
        {label}
      </label>
      <input
        {...form.register(name)}
        id={name}
        type={TYPES[name]}
        autoComplete={autoComplete}
        className="field"
        aria-invalid={error !== undefined}
      />
      {error && (
        <p role="alert" className="text-[12px] text-bad">
          {error}
        </p>
      )}
    </div>
  );
}

/** A quiet dimensioned drawing: a bored plate in plan, as on a sheet. */
function Drawing() {
  return (
    <svg
      viewBox="0 0 560 360"
      className="w-full max-w-[640px]"
      fill="none"
      stroke="var(--ink)"
      fontFamily="var(--font-mono)"
      fontSize="13"
    >
      <rect x="90" y="60" width="380" height="220" fill="var(--sheet)" strokeWidth="1.6" />
      <circle cx="150" cy="220" r="24" fill="var(--ground)" strokeWidth="1.6" />
      <circle cx="410" cy="120" r="24" fill="var(--ground)" strokeWidth="1.6" />
      <g stroke="var(--ink3)" strokeWidth="0.8">
        <path d="M112 220h76M150 182v76M372 120h76M410 82v76" strokeDasharray="10 3 2 3" />
        <path d="M90 290v36M470 290v36M480 60h36M480 280h36" />
        <path d="M90 316h380M506 60v220" />
        <path d="M86 320l8-8M466 320l8-8M502 64l8-8M502 284l8-8" strokeWidth="1.4" />
      </g>
      <g stroke="none" fill="var(--ink2)">
        <text x="280" y="310" textAnchor="middle">
          100.00
        </text>
        <text x="522" y="174" textAnchor="middle" transform="rotate(90 522 174)">
          60.00
        </text>
        <text x="184" y="206">
          ø 8.20
        </text>
      </g>
      <circle cx="90" cy="280" r="7" stroke="var(--plum)" strokeWidth="2" />
      <path d="M90 268v6M90 286v6M78 280h6M96 280h6" stroke="var(--plum)" strokeWidth="2" />
      <text x="20" y="302" stroke="none" fill="var(--plum)" fontFamily="var(--font-sans)">
        endpoint
      </text>
    </svg>
  );
}
